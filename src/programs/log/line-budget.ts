/** Lines that anybody can cause, a minute: with more of them whoever knocks would fill the file. */
const PER_MINUTE = 120;
const MINUTE_MS = 60_000;

/** Lets so many lines a minute through; what is held back is counted, and told when the minute is over. */
export class LineBudget {
  #left = PER_MINUTE;
  #held = 0;
  #untilMs = 0;

  constructor(
    private readonly nowMs: () => number,
    private readonly onHeld: (count: number) => void,
  ) {}

  /** Whether one more line may be written. */
  take(): boolean {
    const nowMs = this.nowMs();
    if (nowMs >= this.#untilMs) {
      if (this.#held > 0) this.onHeld(this.#held);
      [this.#left, this.#held, this.#untilMs] = [PER_MINUTE, 0, nowMs + MINUTE_MS];
    }
    if (this.#left === 0) {
      this.#held += 1;
      return false;
    }
    this.#left -= 1;
    return true;
  }
}
