/**
 * The console's time, on this machine's steady clock: it does not jump when somebody sets the machine's own. Never goes back, so
 * that nothing is placed before what came before it.
 */
export class ConsoleClock {
  #baseMs: number;
  #lastMs = 0;

  constructor(private readonly steadyMs: () => number = () => performance.now()) {
    this.#baseMs = Date.now() - steadyMs();
  }

  /** The console has said what time it is. */
  learn(consoleMs: number): void {
    this.#baseMs = consoleMs - this.steadyMs();
  }

  /** ms since 1970. */
  readonly nowMs = (): number => {
    this.#lastMs = Math.max(this.#lastMs, this.#baseMs + this.steadyMs());
    return this.#lastMs;
  };
}
