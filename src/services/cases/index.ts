export { changeCase, closeCase, openCase, removeCase } from './cases';
