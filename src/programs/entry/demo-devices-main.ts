import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { SimulatedDevice } from '../demo/simulated-devices';
import { standAsDevice } from '../demo/stand-as-device';
import { linkToLauncher } from '../supervise/child-link';

/** Plays the devices of the demo: `demo-devices-main.js ORIGIN FILE`, FILE holding a list of them as JSON. */
const [origin, file] = process.argv.slice(2) as [string, string];
const read = () => JSON.parse(readFileSync(file, 'utf8')) as SimulatedDevice[];
/** Read anew before each run: a swap may have given it another link. */
const linkOf = (device: SimulatedDevice) =>
  read().find(({ deviceId }) => deviceId === device.deviceId)?.link ?? device.link;
const laneFolder = join(dirname(file), 'demo-lanes');
const stops = read().map((device) =>
  standAsDevice(origin, device, linkOf, (sentence) => console.error(sentence), join(laneFolder, device.deviceId)),
);
const launcher = linkToLauncher(() => stops.forEach((stop) => stop()));
launcher.ready();
