import { readFileSync } from 'node:fs';
import { standAsDevice, type SimulatedDevice } from '@/programs/demo';
import { linkToLauncher } from '../supervise/child-link';

/** Plays the devices of the demo: `demo-devices-main.js ORIGIN FILE`, FILE holding a list of them as JSON. */
const [origin, file] = process.argv.slice(2) as [string, string];
const devices = JSON.parse(readFileSync(file, 'utf8')) as SimulatedDevice[];
const stops = devices.map((device) => standAsDevice(origin, device, (sentence) => console.error(sentence)));
const launcher = linkToLauncher(() => stops.forEach((stop) => stop()));
launcher.ready();
