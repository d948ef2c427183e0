import type { LaneEcho, LaneRole } from './lane';

/** Where a silence comes from. `ours`: the gateway was silent too. */
export type Fault = 'ours' | 'line' | 'theirs' | 'inside' | 'line-or-theirs' | 'unknown';

/** What a lane said over a stretch, with what stands at its end. */
export interface WatchedLane {
  readonly laneId: string;
  readonly role: LaneRole;
  /** Between two requests, ms. */
  readonly everyMs: number;
  /** In the order of time. */
  readonly echoes: readonly LaneEcho[];
}

/** Something that was silent. */
export interface Outage {
  /** The lanes that were silent. */
  readonly laneIds: readonly string[];
  readonly fault: Fault;
  /** When the first unanswered request was sent, ms since 1970. */
  readonly fromMs: number;
  /** When the first request was sent that was answered again; null: it goes on. */
  readonly untilMs: number | null;
}

/** A silence of one lane. */
interface Silence {
  readonly laneId: string;
  readonly role: LaneRole;
  readonly fromMs: number;
  readonly untilMs: number | null;
  /** The last request that was not answered. */
  readonly lastMs: number;
}

/** So many requests in a row without an answer are an outage: one alone is a lost packet. */
export const SILENT_REQUESTS = 3;
/** Longer than this between two requests, or than a few of its own pauses: nobody was there to send them, and nothing is known. */
const UNWATCHED_MS = 30_000;
const UNWATCHED_PAUSES = 3;

/** Silences of a lane: runs of unanswered requests, ended by an answer or by nobody asking. */
function silencesOf({ laneId, role, everyMs, echoes }: WatchedLane): Silence[] {
  const unwatchedMs = Math.max(UNWATCHED_MS, UNWATCHED_PAUSES * everyMs);
  const found: Silence[] = [];
  let run: LaneEcho[] = [];
  const end = (untilMs: number | null) => {
    if (run.length >= SILENT_REQUESTS)
      found.push({ laneId, role, fromMs: run[0]!.atMs, lastMs: run.at(-1)!.atMs, untilMs });
    run = [];
  };
  echoes.forEach((echo, place) => {
    const before = echoes[place - 1];
    if (before !== undefined && echo.atMs - before.atMs > unwatchedMs) end(before.atMs);
    if (echo.ms === null) run.push(echo);
    else end(echo.atMs);
  });
  end(null);
  return found;
}

const spanOf = ({ fromMs, untilMs, lastMs }: Silence) => [fromMs, untilMs ?? lastMs] as const;

/** Whether two silences are one event: they overlap by at least half of the longer one. */
function isSameEvent(one: Silence, other: Silence): boolean {
  const [[fromA, toA], [fromB, toB]] = [spanOf(one), spanOf(other)];
  const overlap = Math.min(toA, toB) - Math.max(fromA, fromB);
  return overlap >= 0.5 * Math.max(toA - fromA, toB - fromB);
}

/** What is true of a lane in a stretch: silent, answered, or not known. */
function stateIn({ echoes }: WatchedLane, fromMs: number, toMs: number): 'silent' | 'answers' | 'unknown' {
  const within = echoes.filter(({ atMs }) => atMs >= fromMs && atMs <= toMs);
  if (within.length === 0) return 'unknown';
  return within.some(({ ms }) => ms !== null) ? 'answers' : 'silent';
}

const OUTSIDE: readonly LaneRole[] = ['outside', 'far'];

function faultOf(silent: readonly Silence[], lanes: readonly WatchedLane[], fromMs: number, toMs: number): Fault {
  const isSilent = ({ laneId }: WatchedLane) => silent.some((each) => each.laneId === laneId);
  const gateways = lanes.filter(({ role }) => role === 'gateway');
  if (gateways.some((lane) => isSilent(lane) || stateIn(lane, fromMs, toMs) === 'silent')) return 'ours';
  if (!silent.some(({ role }) => OUTSIDE.includes(role))) return 'inside';
  // Without anybody who says that the own network works, it may be that.
  if (!gateways.some((lane) => stateIn(lane, fromMs, toMs) === 'answers')) return 'unknown';
  const outside = lanes.filter(({ role }) => OUTSIDE.includes(role));
  const states = outside.map((lane) => (isSilent(lane) ? 'silent' : stateIn(lane, fromMs, toMs)));
  if (states.includes('answers')) return 'theirs';
  return states.filter((state) => state === 'silent').length > 1 ? 'line' : 'line-or-theirs';
}

/**
 * Outages over a stretch, by what several lanes of one agent said over the same seconds: silent for one outside only, theirs; for all
 * outside while the gateway answers, the line; for the gateway too, ours. A lane that never answered in the stretch and before
 * (`neverAnswered`) tells nothing: some gateways answer no echo requests.
 */
export function outagesOf(lanes: readonly WatchedLane[], neverAnswered: ReadonlySet<string> = new Set()): Outage[] {
  const telling = lanes.filter(({ laneId }) => !neverAnswered.has(laneId));
  const left = telling.flatMap(silencesOf).sort((a, b) => a.fromMs - b.fromMs);
  const outages: Outage[] = [];
  while (left.length > 0) {
    const event = [left.shift()!];
    for (let place = 0; place < left.length;) {
      const joins = event.some((each) => isSameEvent(each, left[place]!));
      if (joins) event.push(...left.splice(place, 1));
      else place += 1;
    }
    const fromMs = Math.min(...event.map((each) => each.fromMs));
    const goesOn = event.some(({ untilMs }) => untilMs === null);
    const untilMs = Math.max(...event.map((each) => spanOf(each)[1]));
    // Who answered is asked of the middle: at the edges the others may not have been asked yet.
    const [middleFrom, middleTo] = [
      Math.max(...event.map((each) => each.fromMs)),
      Math.min(...event.map((each) => spanOf(each)[1])),
    ];
    outages.push({
      laneIds: event.map(({ laneId }) => laneId).sort(),
      fault: faultOf(event, telling, middleFrom, Math.max(middleFrom, middleTo)),
      fromMs,
      untilMs: goesOn ? null : untilMs,
    });
  }
  return outages.sort((a, b) => a.fromMs - b.fromMs);
}
