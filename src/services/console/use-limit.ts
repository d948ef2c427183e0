/** So many in so long, for one address or one office. */
export interface UseRate {
  readonly most: number;
  readonly overMs: number;
}

/** Keys remembered at once: a flood of made-up ones must not fill the memory. */
const MOST_KEYS = 10_000;

/** Counts what somebody does, so that nobody does it without end. Forgotten when the program restarts. */
export class UseLimit {
  readonly #times = new Map<string, number[]>();

  constructor(private readonly rate: UseRate) {}

  /** Counts one more use. Null when it may be; else the seconds until the next one may. */
  use(key: string, nowMs: number): number | null {
    const recent = (this.#times.get(key) ?? []).filter((atMs) => nowMs - atMs < this.rate.overMs);
    if (recent.length >= this.rate.most) return Math.max(1, Math.ceil((recent[0]! + this.rate.overMs - nowMs) / 1000));
    this.#times.delete(key);
    if (this.#times.size >= MOST_KEYS) this.#times.delete(this.#times.keys().next().value!);
    this.#times.set(key, [...recent, nowMs]);
    return null;
  }
}

const MINUTE_MS = 60_000;

/** What whoever holds a code may do. A technician's own rounds are not counted. */
export const USE_RATES = {
  /** New devices of one address: a person sets up a handful, a script hundreds. */
  devicesOfAddress: { most: 30, overMs: 10 * MINUTE_MS },
  devicesOfOffice: { most: 150, overMs: 60 * MINUTE_MS },
  /** Runs that a device begins by itself. */
  runsOfDevice: { most: 40, overMs: 10 * MINUTE_MS },
  runsOfAddress: { most: 200, overMs: 10 * MINUTE_MS },
  /** How often somebody says that it is slow: of one address, and of an office. */
  complaintsOfAddress: { most: 4, overMs: 10 * MINUTE_MS },
  complaintsOfOffice: { most: 40, overMs: 60 * MINUTE_MS },
  /** Failed sign-ins that are written down, of everybody together. */
  failedSignIns: { most: 200, overMs: 60 * MINUTE_MS },
} as const satisfies Record<string, UseRate>;

export type UseLimits = Readonly<Record<keyof typeof USE_RATES, UseLimit>>;

export function openUseLimits(): UseLimits {
  const limit = (name: keyof typeof USE_RATES) => new UseLimit(USE_RATES[name]);
  return {
    devicesOfAddress: limit('devicesOfAddress'),
    devicesOfOffice: limit('devicesOfOffice'),
    runsOfDevice: limit('runsOfDevice'),
    runsOfAddress: limit('runsOfAddress'),
    complaintsOfAddress: limit('complaintsOfAddress'),
    complaintsOfOffice: limit('complaintsOfOffice'),
    failedSignIns: limit('failedSignIns'),
  };
}
