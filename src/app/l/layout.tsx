export { default } from '../j/layout';
