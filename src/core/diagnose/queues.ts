import { groupedBy } from '../stats/grouped';
import type { Direction } from '../domain/plan';
import { median } from '../stats/percentile';
import type { Occasion } from './observation';
import { classesOf, inTime } from './proof';

/** From so much added delay on a queue is a finding of its own: soggy. */
export const DEEP_QUEUE_MS = 75;
/** The newest occasions of a device that speak for it. */
const NEWEST = 6;

/** A queue that is too deep: whose it is, and who waits in it. */
export interface DeepQueue {
  /** `way`: before the provider's line, or the tunnel; `inside`: on a device's own link. */
  readonly where: 'line' | 'tunnel' | 'inside';
  readonly direction: Direction;
  /** Median over the devices of what it adds beyond what their own links add, ms. */
  readonly addedMs: number;
  readonly deviceIds: readonly string[];
  readonly runIds: readonly string[];
  readonly against: readonly string[];
}

const addedOf = (occasion: Occasion, direction: Direction) =>
  direction === 'down' ? occasion.addedDownMs : occasion.addedUpMs;

const newest = (occasions: readonly Occasion[]): Occasion[] => inTime(occasions).slice(-NEWEST).reverse();

function medianAdded(occasions: readonly Occasion[], direction: Direction): number | null {
  return median(newest(occasions).flatMap((each) => addedOf(each, direction) ?? []));
}

/**
 * Delay's own map. What load adds on runs inside the office belongs to the device's link; what runs through the line add
 * beyond that belongs to the line's queue: upward the router's or modem's, downward the provider's.
 */
export function deepQueuesOf(occasions: readonly Occasion[]): DeepQueue[] {
  const queues: DeepQueue[] = [];
  // A link of a device is told by the first segments of its path: the same device may have a cable and air.
  const linkOf = ({ path }: Occasion) => path.slice(0, 2).join(' ');
  const byLink = groupedBy([...classesOf(occasions).values()], ([first]) => linkOf(first!));
  const to = (far: Occasion['reach'], classes: readonly (readonly Occasion[])[]) =>
    classes.filter(([first]) => first!.reach === far).flatMap((of) => inTime(of).slice(-NEWEST));
  for (const direction of ['down', 'up'] as const) {
    const insideOf = new Map([...byLink].map(([link, of]) => [link, medianAdded(to('local', of), direction)]));
    for (const [link, of] of byLink) {
      const local = newest(to('local', of));
      const addedMs = insideOf.get(link) ?? null;
      if (addedMs !== null && addedMs >= DEEP_QUEUE_MS)
        queues.push({
          ...{ where: 'inside', direction, addedMs, deviceIds: [local[0]!.deviceId], against: [] },
          runIds: local.flatMap(({ runIds }) => runIds),
        });
    }
    for (const reach of ['internet', 'tunnel'] as const) {
      const beyond = [...byLink].flatMap(([link, of]) => {
        const through = newest(to(reach, of));
        const added = medianAdded(through, direction);
        if (added === null) return [];
        return [{ through, beyondMs: added - Math.max(0, insideOf.get(link) ?? 0) }];
      });
      const addedMs = median(beyond.map(({ beyondMs }) => beyondMs));
      if (addedMs === null || addedMs < DEEP_QUEUE_MS) continue;
      const waits = beyond.filter(({ beyondMs }) => beyondMs >= DEEP_QUEUE_MS / 2);
      queues.push({
        where: reach === 'internet' ? 'line' : 'tunnel',
        ...{ direction, addedMs },
        deviceIds: [...new Set(waits.flatMap(({ through }) => through.map(({ deviceId }) => deviceId)))],
        runIds: waits.flatMap(({ through }) => through.flatMap(({ runIds }) => runIds)),
        against: beyond
          .filter(({ beyondMs }) => beyondMs < DEEP_QUEUE_MS / 2)
          .flatMap(({ through }) => through.flatMap(({ runIds }) => runIds)),
      });
    }
  }
  return queues;
}
