/**
 * The console's time, on this machine's steady clock: it does not jump when somebody sets the machine's own. It does not go
 * back by the little that answers take longer or shorter, so that nothing is placed before what came before it; it does follow a
 * console whose clock was put right.
 */
/** More than answers can be apart: somebody set the console's clock. */
const SET_ANEW_MS = 60_000;

export class ConsoleClock {
  #baseMs: number;
  #lastMs = 0;

  constructor(private readonly steadyMs: () => number = () => performance.now()) {
    this.#baseMs = Date.now() - steadyMs();
  }

  /** The console has said what time it is. */
  learn(consoleMs: number): void {
    if (consoleMs < this.nowMs() - SET_ANEW_MS) this.#lastMs = consoleMs;
    this.#baseMs = consoleMs - this.steadyMs();
  }

  /** ms since 1970. */
  readonly nowMs = (): number => {
    this.#lastMs = Math.max(this.#lastMs, this.#baseMs + this.steadyMs());
    return this.#lastMs;
  };
}
