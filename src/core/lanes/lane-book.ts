import { ANSWER_WITHIN_MS } from './echo-of-ping';
import { MINUTE_MS, type LaneEcho, type LaneMinute } from './lane';
import { laneFigures } from './lane-figures';
import { lossWays, type LossWay, type NumberedRequest } from './loss-ways';
import { packMinute } from './packed-minute';

/** A request as it is known so far. */
interface Noted extends NumberedRequest {
  readonly echo: LaneEcho;
}

const isLostBy =
  (way: LossWay, ways: ReadonlyMap<number, LossWay>) =>
  (sum: number, { key }: Noted) =>
    sum + (ways.get(key) === way ? 1 : 0);

/**
 * The requests of one lane as they are sent and answered, until their minute is over. An answer counts for the moment at which its
 * request was sent, however late it comes; one that comes twice counts once.
 */
export class LaneBook {
  readonly #sent = new Map<number, Noted>();
  /** The newest request of those that are forgotten that was answered with a number: the next loss lies behind it. */
  #numbered: NumberedRequest[] = [];
  #seq = 0;

  constructor(readonly laneId: string) {}

  /** A request and what came of it; answers the same that ping gives it, or a new one. */
  note(echo: LaneEcho, key: number = (this.#seq += 1)): void {
    const known = this.#sent.get(key);
    const reflected = [...(known?.reflected ?? []), ...(echo.reflected === undefined ? [] : [echo.reflected])];
    // When it was sent is known exactly only when it was answered.
    const told = known === undefined || (known.echo.ms === null && echo.ms !== null) ? echo : known.echo;
    this.#sent.set(key, { key, echo: told, reflected });
  }

  /** What is not in a closed minute yet, in the order of time. */
  open(): LaneEcho[] {
    return [...this.#sent.values()].map(({ echo }) => echo).sort((a, b) => a.atMs - b.atMs);
  }

  /** The minutes that are over for so long that nothing can come any more; they are forgotten with that. */
  closed(nowMs: number): LaneMinute[] {
    const minutes = new Map<number, Noted[]>();
    for (const noted of this.#sent.values()) {
      const fromMs = Math.floor(noted.echo.atMs / MINUTE_MS) * MINUTE_MS;
      if (fromMs + MINUTE_MS + ANSWER_WITHIN_MS > nowMs) continue;
      minutes.set(fromMs, [...(minutes.get(fromMs) ?? []), noted]);
    }
    if (minutes.size === 0) return [];
    const ways = this.#ways();
    return [...minutes]
      .sort(([a], [b]) => a - b)
      .map(([fromMs, noted]) => {
        const echoes = noted.map(({ echo }) => echo).sort((a, b) => a.atMs - b.atMs);
        const lost = {
          lostThere: noted.reduce(isLostBy('there', ways), 0),
          lostBack: noted.reduce(isLostBy('back', ways), 0),
        };
        this.#forget(noted);
        const raw = packMinute(fromMs, echoes, lost);
        return { laneId: this.laneId, fromMs, ...laneFigures(echoes, lost), raw };
      });
  }

  #ways(): ReadonlyMap<number, LossWay> {
    const counted = [...this.#numbered, ...this.#sent.values()];
    if (!counted.some(({ reflected }) => reflected.length > 0)) return new Map();
    return lossWays(counted.sort((a, b) => a.key - b.key));
  }

  #forget(noted: readonly Noted[]): void {
    for (const { key } of noted) this.#sent.delete(key);
    const newest = noted
      .filter(({ reflected }) => reflected.length > 0)
      .sort((a, b) => a.key - b.key)
      .at(-1);
    if (newest === undefined) {
      // Nothing of it was answered: what was lost from there on lies between the same two answers as what is not over yet.
      if (this.#numbered.length > 0) this.#numbered = [...this.#numbered, ...noted].slice(-MOST_BEFORE);
    } else this.#numbered = [newest, ...noted.filter(({ key }) => key > newest.key)];
  }
}

/** A silence of more requests than these is no single loss: nobody asks on which way it was. */
const MOST_BEFORE = 1000;
