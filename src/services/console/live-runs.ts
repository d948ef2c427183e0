/** When each running run was last heard of, in memory: a sign of life every few seconds costs no writes. */
export class LiveRuns {
  readonly #heardMs = new Map<string, number>();

  /** `sinceMs`: when this process began; nobody can have been heard before. */
  constructor(readonly sinceMs: number = -Infinity) {}

  note(runId: string, nowMs: number): void {
    this.#heardMs.set(runId, nowMs);
  }

  forget(runId: string): void {
    this.#heardMs.delete(runId);
  }

  /** After a restart a device gets the usual time from then on to be heard again. */
  lastHeardMs(runId: string, startedAtMs: number): number {
    return Math.max(this.#heardMs.get(runId) ?? -Infinity, startedAtMs, this.sinceMs);
  }
}
