import type { StandingAnswer, StandingOrder } from '@/wire';
import type { StandingDevices } from './standing-devices';

type Serving = Extract<StandingAnswer, { kind: 'serving' }>;
/** Where an agent serves, and by which key it proves itself. */
export type ServedAt = NonNullable<Serving['at']>;

interface Waiting {
  readonly deviceId: string;
  readonly resolve: (at: ServedAt | null) => void;
}

/** An agent opens a port and says so within this, ms. */
const PATIENCE_MS = 4000;

/** Agents that serve as the far end of a run. Forgotten with the process: an agent ends by itself what nobody uses. */
export class FarEnds {
  readonly #waiting = new Map<string, Waiting>();
  readonly #open = new Map<string, string>();

  constructor(private readonly standing: StandingDevices) {}

  /** Asks an agent to serve; null when it is away, cannot, or does not say so in time. */
  async open(
    deviceId: string,
    order: Omit<Extract<StandingOrder, { kind: 'serve' }>, 'kind'>,
  ): Promise<ServedAt | null> {
    const { serveId } = order;
    const at = await new Promise<ServedAt | null>((resolve) => {
      this.#waiting.set(serveId, { deviceId, resolve });
      const timer = setTimeout(() => resolve(null), PATIENCE_MS);
      timer.unref();
      if (!this.standing.send(deviceId, { kind: 'serve', ...order })) resolve(null);
    });
    this.#waiting.delete(serveId);
    this.#open.set(serveId, deviceId);
    if (at === null) this.close(serveId);
    return at;
  }

  /** An agent says where it serves: heard only from the one that was asked. */
  hear(deviceId: string, { serveId, at }: Serving): void {
    const waiting = this.#waiting.get(serveId);
    if (waiting?.deviceId === deviceId) waiting.resolve(at);
  }

  /** The run is over, whatever became of it. */
  close(serveId: string): void {
    const deviceId = this.#open.get(serveId);
    this.#open.delete(serveId);
    if (deviceId !== undefined) this.standing.send(deviceId, { kind: 'serve-over', serveId });
  }
}
