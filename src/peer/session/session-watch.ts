import { askKernel, readSockets } from '../kernel/read-sockets';
import { startLoadMeter, type LoadMeter } from '../kernel/peer-load';
import type { Session } from './session';

const WATCH_MS = 1000;

/**
 * While anybody measures, tells each session once a second what the kernel says of its connections and how busy this
 * peer is. Costs nothing while nobody does.
 */
export class SessionWatch {
  #timer: NodeJS.Timeout | null = null;
  #meter: LoadMeter | null = null;
  #asking = false;

  constructor(
    private readonly sessions: () => readonly Session[],
    private readonly monotonicMs: () => number,
  ) {}

  start(): void {
    if (this.#timer !== null) return;
    this.#meter = startLoadMeter();
    this.#timer = setInterval(() => void this.#look(), WATCH_MS);
  }

  stop(): void {
    if (this.#timer !== null) clearInterval(this.#timer);
    this.#meter?.stop();
    this.#timer = this.#meter = null;
  }

  async #look(): Promise<void> {
    const sessions = this.sessions();
    if (sessions.length === 0) return this.stop();
    const load = this.#meter!.look();
    const atMs = this.monotonicMs();
    const moving = sessions.filter((session) => session.movedSinceLastLook());
    for (const session of sessions) {
      const otherSessions = moving.filter((other) => other !== session).length;
      session.seen.otherSessions = Math.max(session.seen.otherSessions, otherSessions);
      session.tell({ kind: 'load', sample: { atMs, otherSessions, ...load } });
    }
    if (this.#asking) return;
    this.#asking = true;
    for (const localPort of new Set(moving.flatMap((session) => session.localPort ?? []))) {
      const text = await askKernel(localPort);
      if (text === null) continue;
      for (const session of moving) {
        const sightings = readSockets(text, session.clientPorts(), atMs);
        if (sightings.length === 0) continue;
        const least = Math.min(
          ...sightings.map(({ minRttMs }) => minRttMs ?? Infinity),
          session.seen.minRttMs ?? Infinity,
        );
        if (least < Infinity) session.seen.minRttMs = least;
        session.tell({ kind: 'kernel', sightings });
      }
    }
    this.#asking = false;
  }
}
