import type { Direction } from '../domain/plan';

/** What went over a port, step by step: Mb/s, null: not known. */
export interface LoadSteps {
  readonly laneId: string;
  readonly name: string;
  /** Length of a step, ms; of single readings, their pause. */
  readonly stepMs: number;
  readonly atMs: readonly number[];
  readonly mbps: readonly (number | null)[];
}

/** A stretch in which the line was busy one way, and who made it so. */
export interface BusyTime {
  readonly way: Direction;
  readonly fromMs: number;
  readonly untilMs: number;
  /** The mean of it, and what the plan promises, Mb/s. */
  readonly mbps: number;
  readonly ofMbps: number;
  /** The port inside over which most of it went; null: of those that are watched none carried half of it. */
  readonly port: { readonly name: string; readonly mbps: number } | null;
}

/** From this share of the plan on the line is busy: whoever comes then shares it. */
const BUSY_SHARE = 0.5;
/** Shorter is a page that was opened. */
const LEAST_MS = 60_000;
/** So many steps that are not busy do not end it. */
const PAUSE_STEPS = 2;
const MOST_SHARE = 0.5;

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/** What a port carried in a stretch, on average; null: nobody read it then. */
function carried({ atMs, mbps, stepMs }: LoadSteps, fromMs: number, untilMs: number): number | null {
  const values = atMs.flatMap((at, place) => {
    const value = mbps[place] ?? null;
    return value !== null && at + stepMs > fromMs && at < untilMs ? [value] : [];
  });
  return values.length === 0 ? null : mean(values);
}

function stretchesOf({ atMs, mbps, stepMs }: LoadSteps, leastMbps: number): { fromMs: number; untilMs: number }[] {
  const found: { fromMs: number; untilMs: number }[] = [];
  atMs.forEach((at, place) => {
    if ((mbps[place] ?? -Infinity) < leastMbps) return;
    const last = found.at(-1);
    if (last !== undefined && at - last.untilMs <= PAUSE_STEPS * stepMs) last.untilMs = at + stepMs;
    else found.push({ fromMs: at, untilMs: at + stepMs });
  });
  return found.filter(({ fromMs, untilMs }) => untilMs - fromMs >= LEAST_MS);
}

/**
 * When a line was busy by its router's counters, the newest first: half of what the plan promises that way, for a minute and more; and the
 * port inside that carried most of it, where ports are watched as well. `promised`: Mb/s each way.
 */
export function busyTimes(
  line: Readonly<Record<Direction, LoadSteps | null>>,
  promised: Readonly<Record<Direction, number>>,
  ports: readonly LoadSteps[],
): BusyTime[] {
  return (['down', 'up'] as const)
    .flatMap((way) => {
      const steps = line[way];
      if (steps === null) return [];
      return stretchesOf(steps, BUSY_SHARE * promised[way]).map(({ fromMs, untilMs }): BusyTime => {
        const mbps = carried(steps, fromMs, untilMs)!;
        const most = ports
          .flatMap((port) => {
            const own = carried(port, fromMs, untilMs);
            return own === null ? [] : [{ name: port.name, mbps: own }];
          })
          .sort((a, b) => b.mbps - a.mbps)[0];
        const port = most !== undefined && most.mbps >= MOST_SHARE * mbps ? most : null;
        return { way, fromMs, untilMs, mbps, ofMbps: promised[way], port };
      });
    })
    .sort((a, b) => b.fromMs - a.fromMs);
}
