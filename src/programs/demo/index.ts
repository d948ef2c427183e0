export { demoPassphrase } from './demo-passphrase';
export { demoDevicesOf, type SimulatedDevice } from './simulated-devices';
export { demoPracticeDocument, devicePracticeDocument } from './practice-document';
export { standAsDevice } from './stand-as-device';
export { practiceHands } from './practice-hands';
export { writeDemoDevices } from './write-demo-devices';
export { seedDemo } from './seed-demo';
