/** When each running run was last heard of, in memory: a sign of life every few seconds costs no writes. */
export class LiveRuns {
  readonly #heardMs = new Map<string, number>();
  readonly #stopping = new Set<string>();

  /** `sinceMs`: when this process began; nobody can have been heard before. */
  constructor(readonly sinceMs: number = -Infinity) {}

  note(runId: string, nowMs: number): void {
    this.#heardMs.set(runId, nowMs);
  }

  /** Whoever measures it is told with its next sign of life that nobody wants it any more. */
  stop(runId: string): void {
    this.#stopping.add(runId);
  }

  isStopped(runId: string): boolean {
    return this.#stopping.has(runId);
  }

  forget(runId: string): void {
    this.#stopping.delete(runId);
    this.#heardMs.delete(runId);
  }

  /** After a restart a device gets the usual time from then on to be heard again. */
  lastHeardMs(runId: string, startedAtMs: number): number {
    return Math.max(this.#heardMs.get(runId) ?? -Infinity, startedAtMs, this.sinceMs);
  }
}
