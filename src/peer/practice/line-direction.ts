import type { Socket } from 'node:net';
import { LineQueue, type LineQueueOptions } from './line-queue';

/** A connection's bytes in one direction: read from one socket, written to the other after the line. */
export interface Flow {
  readonly from: Socket;
  readonly to: Socket;
  ended: boolean;
  finished: boolean;
  waitingSlices: number;
}

const PACKET_BYTES = 1448;
/** More than this unread by the far end and its connection is not read from any more: memory stays bounded. */
const MOST_UNREAD_BYTES = 4 * 1024 * 1024;
const LEAST_TIMER_MS = 1;
/** Below this many slices on the line, the last stretch before a due time is polled for, so that delays are exact. */
const SPARSE_SLICES = 4;

/**
 * Moves the bytes of all connections of one direction through one shared queue. When there is room, connections take
 * turns; one that has nothing in the queue may always add one packet, as a packet of a probe would arrive at the tail.
 */
export class LineDirection {
  readonly #queue: LineQueue<Flow>;
  readonly #flows: Flow[] = [];
  #turn = 0;
  #onLine = 0;
  #timer: NodeJS.Timeout | NodeJS.Immediate | null = null;

  constructor(
    options: LineQueueOptions,
    private readonly monotonicMs: () => number,
  ) {
    this.#queue = new LineQueue(options);
  }

  /** Starts moving bytes from one socket to the other; ends the other when the first has ended and all has passed. */
  connect(from: Socket, to: Socket): void {
    const flow: Flow = { from, to, ended: false, finished: false, waitingSlices: 0 };
    this.#flows.push(flow);
    from.on('readable', () => this.#run());
    from.on('end', () => {
      flow.ended = true;
      this.#run();
    });
    to.on('drain', () => this.#run());
    const forget = () => {
      const index = this.#flows.indexOf(flow);
      if (index >= 0) this.#flows.splice(index, 1);
      flow.finished = true;
    };
    from.on('close', () => {
      if (!flow.ended) forget();
    });
    to.on('close', forget);
  }

  stop(): void {
    this.#clearTimer();
  }

  #run(): void {
    this.#clearTimer();
    const nowMs = this.monotonicMs();
    this.#deliver(nowMs);
    this.#admit(nowMs);
    this.#plan(nowMs);
  }

  #deliver(nowMs: number): void {
    for (const { owner, data } of this.#queue.takeDue(nowMs)) {
      owner.waitingSlices -= 1;
      this.#onLine -= 1;
      if (!owner.finished && owner.to.writable) owner.to.write(data);
    }
    for (const flow of [...this.#flows]) {
      if (flow.ended && !flow.finished && flow.waitingSlices === 0 && flow.from.readableLength === 0) {
        flow.finished = true;
        flow.to.end();
        this.#flows.splice(this.#flows.indexOf(flow), 1);
      }
    }
  }

  #enter(flow: Flow, mostBytes: number, nowMs: number): boolean {
    const bytes = Math.min(mostBytes, flow.from.readableLength);
    const data = bytes === 0 ? null : (flow.from.read(bytes) as Buffer | null);
    if (data === null) return false;
    flow.waitingSlices += 1;
    this.#onLine += 1;
    this.#queue.enter(flow, data, nowMs);
    return true;
  }

  #readable(flow: Flow): boolean {
    if (flow.from.readableLength === 0) flow.from.read(0);
    return flow.from.readableLength > 0 && flow.to.writableLength < MOST_UNREAD_BYTES;
  }

  #admit(nowMs: number): void {
    for (const flow of this.#flows)
      if (flow.waitingSlices === 0 && this.#readable(flow)) this.#enter(flow, PACKET_BYTES, nowMs);
    let idle = 0;
    while (idle < this.#flows.length && this.#queue.roomBytes(nowMs) >= this.#sliceRoom()) {
      const flow = this.#flows[this.#turn % this.#flows.length]!;
      this.#turn += 1;
      const entered = this.#readable(flow) && this.#enter(flow, this.#queue.sliceBytes, nowMs);
      idle = entered ? 0 : idle + 1;
    }
  }

  #sliceRoom(): number {
    return Math.min(this.#queue.sliceBytes, this.#queue.leastFillableBytes);
  }

  #plan(nowMs: number): void {
    const dueMs = this.#queue.nextDueMs();
    const someWait = this.#flows.some((flow) => this.#readable(flow));
    const roomMs = someWait ? this.#queue.roomAtMs(this.#sliceRoom(), nowMs) : null;
    const nextMs = Math.min(dueMs ?? Infinity, roomMs ?? Infinity);
    if (nextMs === Infinity) return;
    const leftMs = nextMs - nowMs;
    const sparse = this.#onLine <= SPARSE_SLICES;
    if (leftMs <= 0 || (sparse && leftMs < 2 * LEAST_TIMER_MS)) this.#timer = setImmediate(() => this.#run());
    else this.#timer = setTimeout(() => this.#run(), Math.max(LEAST_TIMER_MS, Math.floor(leftMs - (sparse ? 1.5 : 0))));
  }

  #clearTimer(): void {
    if (this.#timer === null) return;
    clearTimeout(this.#timer as NodeJS.Timeout);
    clearImmediate(this.#timer as NodeJS.Immediate);
    this.#timer = null;
  }
}
