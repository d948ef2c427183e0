import { LaneBook, type Lane } from '@/core';
import { replyOf, type Post } from '../console-link';
import type { LaneBeat } from '@/wire';
import type { ConsoleClock } from './console-clock';
import type { LaneProbe, OpenProbe } from './lane-probe';
import type { LaneShelf } from './lane-shelf';

const CLOSE_EVERY_MS = 5000;
const BEAT_EVERY_MS = 1000;

export interface LaneKeeperOptions {
  readonly open: OpenProbe;
  readonly clock: ConsoleClock;
  readonly shelf: LaneShelf;
  readonly post: Post;
  /** What was heard in the last second, while somebody looks. */
  readonly onBeats: (beats: readonly LaneBeat[]) => void;
  readonly onNews: (sentence: string) => void;
  readonly closeEveryMs?: number;
}

interface Kept {
  readonly lane: Lane;
  readonly book: LaneBook;
  readonly probe: LaneProbe;
}

const isSame = (one: Lane, other: Lane) => JSON.stringify(one) === JSON.stringify(other);

/** Asks for the lanes that the console wants, keeps their minutes on disk, and hands them in. */
export class LaneKeeper {
  readonly #kept = new Map<string, Kept>();
  readonly #timers: readonly ReturnType<typeof setInterval>[];
  #beats: LaneBeat[] = [];
  #live = false;
  #working: Promise<void> = Promise.resolve();

  constructor(private readonly options: LaneKeeperOptions) {
    this.#timers = [
      setInterval(() => this.#work(), options.closeEveryMs ?? CLOSE_EVERY_MS),
      setInterval(() => this.#beat(), BEAT_EVERY_MS),
    ];
  }

  /** Goes on with the lanes of before the last end of this program, until the console says which it wants. */
  async resume(): Promise<void> {
    const lanes = await this.options.shelf.lanes();
    if (this.#kept.size === 0) this.#open(lanes);
  }

  /** These lanes from now on; `live`: somebody looks at them now. */
  set(lanes: readonly Lane[], live: boolean): void {
    this.#live = live;
    this.#open(lanes);
    // Whoever begins to look sees what no minute holds yet.
    if (live) for (const { book } of this.#kept.values()) this.#recall(book);
    this.#work(() => this.options.shelf.keepLanes(lanes));
  }

  #open(lanes: readonly Lane[]): void {
    for (const [id, { lane, probe }] of this.#kept)
      if (!lanes.some((each) => isSame(each, lane))) {
        probe.close();
        this.#kept.delete(id);
      }
    for (const lane of lanes) {
      if (this.#kept.has(lane.id)) continue;
      const book = new LaneBook(lane.id);
      const probe = this.options.open(
        lane,
        (echo, key) => {
          book.note(echo, key);
          if (this.#live) this.#beats.push([lane.id, Math.round(echo.atMs), echo.ms]);
        },
        this.options.clock.nowMs,
      );
      this.#kept.set(lane.id, { lane, book, probe });
    }
  }

  /** Hands in what there is; resolves when that is done or cannot be done now. */
  async handIn(): Promise<void> {
    this.#work();
    await this.#working;
  }

  async close(): Promise<void> {
    for (const timer of this.#timers) clearInterval(timer);
    this.#live = false;
    this.#open([]);
    await this.#working;
  }

  #recall(book: LaneBook): void {
    const beats = book.open().map(({ atMs, ms }): LaneBeat => [book.laneId, Math.round(atMs), ms]);
    if (beats.length > 0) this.options.onBeats(beats);
  }

  #beat(): void {
    if (this.#beats.length === 0) return;
    const beats = this.#beats;
    this.#beats = [];
    if (this.#live) this.options.onBeats(beats);
  }

  /** One after the other: a part is handed in by one at a time. */
  #work(what: () => Promise<void> = () => this.#closeAndHandIn()): void {
    this.#working = this.#working
      .then(what)
      .catch((error: unknown) =>
        this.options.onNews(`Lanes could not be kept: ${error instanceof Error ? error.message : String(error)}`),
      );
  }

  async #closeAndHandIn(): Promise<void> {
    const { clock, shelf, post, onNews } = this.options;
    await shelf.put([...this.#kept.values()].flatMap(({ book }) => book.closed(clock.nowMs())));
    const dropped = shelf.takeDropped();
    if (dropped > 0) onNews(`No room for more minutes of lanes: ${dropped} hours of the oldest are gone.`);
    for (;;) {
      const part = await shelf.oldest();
      if (part === null) return;
      if (part.minutes.length > 0) {
        const reply = await replyOf(post('/api/v1/lanes/minutes', { minutes: part.minutes }));
        if (reply.kind === 'away' || reply.kind === 'odd') return;
        if (reply.kind === 'answered') {
          const { nowMs } = reply.body as { readonly nowMs?: unknown };
          if (typeof nowMs === 'number') clock.learn(nowMs);
        } else if (reply.refusal.code === 'not-joined') return;
      }
      await shelf.remove(part);
    }
  }
}
