export { demoPracticeDocument } from './practice-document';
export { seedDemo } from './seed-demo';
export { simulateSamples, type SimulatedLine } from './simulate-samples';
