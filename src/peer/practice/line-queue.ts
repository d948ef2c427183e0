/** One slice of a connection's bytes on its way through the line. */
export interface QueuedSlice<Owner> {
  readonly owner: Owner;
  readonly data: Buffer;
  readonly dueMs: number;
}

export interface LineQueueOptions {
  readonly rateBps: number;
  readonly queueMs: number;
  /** One way. */
  readonly delayMs: number;
}

const SMALLEST_SLICE = 1448;
const LARGEST_SLICE = 65_536;
const SLICE_MS = 2;
/**
 * A loss-based sender keeps a queue that drops at its tail not quite full: it backs off and grows again. In the lab cubic
 * kept it at 0.82 to 0.92 of its length (docs/measurement.md). The slices of a line that is full add about 0.02 to what this
 * sawtooth holds.
 */
const SAWTOOTH = { from: 0.72, to: 1, periodMs: 1500 } as const;

/**
 * One direction of a practice line: a first-in-first-out queue of finite length in front of a line of constant rate,
 * followed by a constant delay. As the rate is constant, the moment when a slice leaves is known when it enters.
 * Pure: times are passed in (monotonic ms), nothing is moved here.
 */
export class LineQueue<Owner> {
  readonly #slices: QueuedSlice<Owner>[] = [];
  #head = 0;
  #freeAtMs = 0;
  /** Bytes that are read from a connection at once: about 2 ms of the line. */
  readonly sliceBytes: number;
  readonly #capacityBytes: number;

  constructor(private readonly options: LineQueueOptions) {
    const bytesPerMs = options.rateBps / 8000;
    this.sliceBytes = Math.round(Math.min(LARGEST_SLICE, Math.max(SMALLEST_SLICE, bytesPerMs * SLICE_MS)));
    this.#capacityBytes = bytesPerMs * options.queueMs;
  }

  /** Bytes that wait in front of the line at a time. */
  waitingBytes(nowMs: number): number {
    return (Math.max(0, this.#freeAtMs - nowMs) * this.options.rateBps) / 8000;
  }

  /** What the queue takes at a time, bytes. */
  fillableBytes(nowMs: number): number {
    const { from, to, periodMs } = SAWTOOTH;
    return this.#capacityBytes * (from + ((to - from) * (nowMs % periodMs)) / periodMs);
  }

  get leastFillableBytes(): number {
    return this.#capacityBytes * SAWTOOTH.from;
  }

  roomBytes(nowMs: number): number {
    return this.fillableBytes(nowMs) - this.waitingBytes(nowMs);
  }

  /** When there will be room for `bytes`, as things stand, ms. */
  roomAtMs(bytes: number, nowMs: number): number {
    return this.#freeAtMs - ((this.fillableBytes(nowMs) - bytes) * 8000) / this.options.rateBps;
  }

  /** Puts a slice at the tail. The caller has looked at the room; a packet of a probe may go a little over it. */
  enter(owner: Owner, data: Buffer, nowMs: number): void {
    this.#freeAtMs = Math.max(this.#freeAtMs, nowMs) + (data.length * 8000) / this.options.rateBps;
    this.#slices.push({ owner, data, dueMs: this.#freeAtMs + this.options.delayMs });
  }

  /** When the next slice comes out at the far end, ms; null for an empty line. */
  nextDueMs(): number | null {
    return this.#slices[this.#head]?.dueMs ?? null;
  }

  /** Takes out everything that has come through by now, in order. */
  takeDue(nowMs: number): QueuedSlice<Owner>[] {
    const from = this.#head;
    while (this.#head < this.#slices.length && this.#slices[this.#head]!.dueMs <= nowMs) this.#head += 1;
    const due = this.#slices.slice(from, this.#head);
    if (this.#head > 1024) {
      this.#slices.splice(0, this.#head);
      this.#head = 0;
    }
    return due;
  }
}
