import { ANSWER_WITHIN_MS } from './echo-of-ping';
import { MINUTE_MS, type LaneEcho, type LaneMinute } from './lane';
import { laneFigures } from './lane-figures';
import { packMinute } from './packed-minute';

/**
 * The requests of one lane as they are sent and answered, until their minute is over. An answer counts for the moment at which its
 * request was sent, however late it comes; one that comes twice counts once.
 */
export class LaneBook {
  readonly #sent = new Map<number, LaneEcho>();
  #seq = 0;

  constructor(readonly laneId: string) {}

  /** A request and what came of it; answers the same that ping gives it, or a new one. */
  note(echo: LaneEcho, key: number = (this.#seq += 1)): void {
    const known = this.#sent.get(key);
    if (known !== undefined && known.ms !== null) return;
    // When it was sent is known exactly only when it was answered.
    this.#sent.set(key, known === undefined || echo.ms !== null ? echo : known);
  }

  /** What is not in a closed minute yet, in the order of time. */
  open(): LaneEcho[] {
    return [...this.#sent.values()].sort((a, b) => a.atMs - b.atMs);
  }

  /** The minutes that are over for so long that nothing can come any more; they are forgotten with that. */
  closed(nowMs: number): LaneMinute[] {
    const minutes = new Map<number, LaneEcho[]>();
    for (const [key, echo] of this.#sent) {
      const fromMs = Math.floor(echo.atMs / MINUTE_MS) * MINUTE_MS;
      if (fromMs + MINUTE_MS + ANSWER_WITHIN_MS > nowMs) continue;
      minutes.set(fromMs, [...(minutes.get(fromMs) ?? []), echo]);
      this.#sent.delete(key);
    }
    return [...minutes]
      .sort(([a], [b]) => a - b)
      .map(([fromMs, unsorted]) => {
        const echoes = unsorted.sort((a, b) => a.atMs - b.atMs);
        return { laneId: this.laneId, fromMs, ...laneFigures(echoes), raw: packMinute(fromMs, echoes) };
      });
  }
}
