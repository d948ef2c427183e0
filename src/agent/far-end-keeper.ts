import type { StandingAnswer, StandingOrder } from '@/wire';

type Serve = Extract<StandingOrder, { kind: 'serve' }>;
type ServedAt = NonNullable<Extract<StandingAnswer, { kind: 'serving' }>['at']>;

/** A far end that stands on this machine. */
export interface OpenedFarEnd extends ServedAt {
  close(): void;
}

/** Opens one that serves whoever has a ticket of the console with this key. Rejects where no port can be had. */
export type OpenFarEnd = (trust: string) => Promise<OpenedFarEnd>;

/** Serves as the far end of runs of other machines, each for as long as it takes and never longer than was said. */
export class FarEndKeeper {
  /** Null: it is being opened. */
  readonly #open = new Map<string, { readonly farEnd: OpenedFarEnd; readonly timer: NodeJS.Timeout } | null>();

  constructor(
    private readonly openFarEnd: OpenFarEnd | null,
    private readonly onServing: (port: number) => void,
  ) {}

  /** Where it serves; null: it cannot, or the run was over before it could. */
  async serve({ serveId, trust, forMs }: Serve): Promise<ServedAt | null> {
    if (this.openFarEnd === null || this.#open.has(serveId)) return null;
    this.#open.set(serveId, null);
    const farEnd = await this.openFarEnd(trust).catch(() => null);
    if (farEnd === null || !this.#open.has(serveId)) {
      this.#open.delete(serveId);
      farEnd?.close();
      return null;
    }
    const timer = setTimeout(() => this.end(serveId), forMs);
    timer.unref();
    this.#open.set(serveId, { farEnd, timer });
    this.onServing(farEnd.port);
    return { port: farEnd.port, publicKey: farEnd.publicKey };
  }

  end(serveId: string): void {
    const open = this.#open.get(serveId) ?? null;
    this.#open.delete(serveId);
    if (open === null) return;
    clearTimeout(open.timer);
    open.farEnd.close();
  }

  endAll(): void {
    for (const serveId of [...this.#open.keys()]) this.end(serveId);
  }
}
