export { demoPracticeDocument } from './practice-document';
export { seedDemo } from './seed-demo';
