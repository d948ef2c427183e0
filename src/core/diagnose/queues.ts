import { groupedBy } from '../stats/grouped';
import type { Direction } from '../domain/plan';
import type { PeerReach } from '../domain/reach';
import { madeOnce } from '../stats/made-once';
import { median } from '../stats/percentile';
import type { Occasion } from './observation';
import { classesOf, inTime, type ClassOfOccasions } from './proof';

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

const medianAdded = (newest: readonly Occasion[], direction: Direction) =>
  median(newest.flatMap((each) => addedOf(each, direction) ?? []));

/** The newest occasions of some classes, the newest first. */
function newestOf(classes: readonly ClassOfOccasions[]): readonly Occasion[] {
  const each = classes.map((of) => newestOnce(of, 'newest', () => inTime(of).slice(-NEWEST).reverse()));
  if (each.length < 2) return each[0] ?? [];
  return each
    .flat()
    .sort((a, b) => b.startedAtMs - a.startedAtMs)
    .slice(0, NEWEST);
}
const newestOnce = madeOnce<ClassOfOccasions, readonly Occasion[]>();

/** Of one link of one device: the newest occasions as far as each reach. */
type NewestOfLink = Readonly<Record<PeerReach, readonly Occasion[]>>;

function byLinkOf(occasions: readonly Occasion[]): NewestOfLink[] {
  // A link of a device is told by the first segments of its path: the same device may have a cable and air.
  const links = groupedBy(classesOf(occasions).values(), ([first]) => first!.path.slice(0, 2).join(' '));
  return [...links.values()].map((of) => {
    const to = (far: PeerReach) => newestOf(of.filter(([first]) => first!.reach === far));
    return { local: to('local'), internet: to('internet'), tunnel: to('tunnel') };
  });
}

/**
 * Delay's own map. What load adds on runs inside the office belongs to the device's link; what runs through the line add
 * beyond that belongs to the line's queue: upward the router's or modem's, downward the provider's.
 */
export function deepQueuesOf(occasions: readonly Occasion[]): DeepQueue[] {
  const queues: DeepQueue[] = [];
  const links = byLinkOf(occasions);
  for (const direction of ['down', 'up'] as const) {
    const inside = links.map(({ local }) => medianAdded(local, direction));
    links.forEach(({ local }, place) => {
      const addedMs = inside[place] ?? null;
      if (addedMs !== null && addedMs >= DEEP_QUEUE_MS)
        queues.push({
          ...{ where: 'inside', direction, addedMs, deviceIds: [local[0]!.deviceId], against: [] },
          runIds: local.flatMap(({ runIds }) => runIds),
        });
    });
    for (const reach of ['internet', 'tunnel'] as const) {
      const beyond = links.flatMap(({ [reach]: through }, place) => {
        const added = medianAdded(through, direction);
        return added === null ? [] : [{ through, beyondMs: added - Math.max(0, inside[place] ?? 0) }];
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
