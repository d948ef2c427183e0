export { demoPassphrase } from './demo-passphrase';
export { demoPracticeDocument } from './practice-document';
export { seedDemo } from './seed-demo';
export { simulateSamples, type SimulatedLine } from './simulate-samples';
