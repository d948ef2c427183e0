export { simulateSamples, type SimulatedDirection, type SimulatedLine } from './simulate-samples';
