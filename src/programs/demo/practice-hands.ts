import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import type { Link, SwapCode } from '@/core';
import type { PracticeDocument } from '@/peer';
import type { PracticeHands } from '@/services';
import type { Store } from '@/store';
import { dataFiles } from '../folder/data-folder';
import { MILL_LANE, MILL_LANE_DEVICES, QUAY_STREET, wifi, type DemoDevice } from './scenario';
import type { SimulatedDevice } from './simulated-devices';

/** What a swap does to a device of the demo: what its link lets through from then on, and what it comes up as. */
interface Mended {
  readonly plays: NonNullable<DemoDevice['plays']>;
  readonly link?: Link;
}

const GIGABIT: Mended = { plays: { downMbps: 941, upMbps: 941, queueMs: 3, roundTripMs: 0.4 } };
const CABLE: Mended = { ...GIGABIT, link: { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 } };
const QUIET_24: Mended = { plays: { downMbps: 82, upMbps: 71, queueMs: 20, roundTripMs: 2.5 } };
const ON_5_GHZ: Mended = {
  plays: { downMbps: 164, upMbps: 141, queueMs: 20, roundTripMs: 2.5 },
  link: wifi('5', 'glue room ceiling', 100, 80, -66),
};

/** Only the right swap helps: a demo in which everything mends would teach the wrong thing. */
const HELPS: Readonly<Record<string, Partial<Record<SwapCode, Mended>>>> = {
  [MILL_LANE_DEVICES.scan.name]: { 'other-cable': CABLE },
  [MILL_LANE_DEVICES.bench.name]: { 'other-device': GIGABIT, 'device-mended': GIGABIT },
  [MILL_LANE_DEVICES.glue.name]: { 'air-cleared': QUIET_24, 'other-channel': QUIET_24, 'other-band': ON_5_GHZ },
};
const LINES = [MILL_LANE.line, QUAY_STREET.line];
/** Only what is set below what the line gives keeps the queue where it is managed. */
const HELD_BELOW = 0.97;
/** A queue that is managed stays so short, ms. */
const MANAGED_QUEUE_MS = 9;

function rewrite<Content>(file: string, change: (content: Content) => Content): void {
  // A demo without played devices has nothing to change.
  if (!existsSync(file)) return;
  const next = change(JSON.parse(readFileSync(file, 'utf8')) as Content);
  // Whoever follows the file never reads half of it.
  writeFileSync(`${file}.new`, `${JSON.stringify(next, null, 2)}\n`, { mode: 0o600 });
  renameSync(`${file}.new`, file);
}

/** In the demo nobody can swap a cable: a swap that is written down changes the practice lines instead. */
export function practiceHands(dataFolder: string, store: Pick<Store, 'sites'>): PracticeHands {
  const files = dataFiles(dataFolder);
  return {
    async swapped({ what, deviceId }) {
      const device = deviceId === null ? null : await store.sites.device(deviceId);
      const mended = device === null ? undefined : HELPS[device.name]?.[what as SwapCode];
      if (device === null || mended === undefined) return;
      const { plays, link } = mended;
      rewrite<PracticeDocument>(files.demoLinks, ({ lines }) => ({
        lines: lines.map((line) =>
          line.name.startsWith(`${device.name} to port `)
            ? {
                ...line,
                roundTripMs: plays.roundTripMs,
                down: { rateMbps: plays.downMbps, queueMs: plays.queueMs },
                up: { rateMbps: plays.upMbps, queueMs: plays.queueMs },
              }
            : line,
        ),
      }));
      if (link === undefined) return;
      await store.sites.saveDevice({ ...device, link });
      rewrite<SimulatedDevice[]>(files.demoDevices, (devices) =>
        devices.map((each) => (each.deviceId === device.id ? { ...each, link } : each)),
      );
    },
    queueSet(lineName, bps) {
      rewrite<PracticeDocument>(files.practiceLines, ({ lines }) => ({
        lines: lines.map((line) => {
          const gives = LINES.find(({ name }) => name === lineName);
          if (line.name !== lineName || gives === undefined) return line;
          const rateMbps = Math.min(gives.upMbps, bps / 1e6);
          // Set above what the line gives, the queue fills before it as ever.
          const queueMs = rateMbps <= HELD_BELOW * gives.upMbps ? MANAGED_QUEUE_MS : gives.upQueueMs;
          return { ...line, up: { rateMbps, queueMs } };
        }),
      }));
      return Promise.resolve();
    },
  };
}
