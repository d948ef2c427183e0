import { groupedBy } from '@/core';
import type { EvidenceRun, Store } from '@/store';
import { OneAtATime } from '../console/one-at-a-time';

/** Runs of one set, the oldest first. The same list as long as none of them changed. */
export type RunSet = readonly EvidenceRun[];

export interface OfficeRuns {
  /** The oldest first. */
  readonly sets: readonly RunSet[];
  /** Another one as soon as runs were removed, or came later than younger ones: then nothing made before is kept. */
  readonly generation: number;
}

/** The runs of one office that its diagnosis is made of, kept in memory: only what changed is read again. */
export class KnownRuns {
  #version: number | null = null;
  #newestMs = -Infinity;
  #generation = 0;
  #sets = new Map<string, RunSet>();
  readonly #turns = new OneAtATime();

  constructor(
    private readonly evidence: Pick<Store['evidence'], 'since'>,
    private readonly siteId: string,
  ) {}

  since(sinceMs: number): Promise<OfficeRuns> {
    return this.#turns.run(async () => {
      if (!(await this.#readChanges(sinceMs))) await this.#readAll(sinceMs);
      const sets = [...this.#sets.values()].sort((a, b) => a[0]!.startedAtMs - b[0]!.startedAtMs);
      return { sets, generation: this.#generation };
    });
  }

  async #readAll(sinceMs: number): Promise<void> {
    const { runs, version } = await this.evidence.since(this.siteId, sinceMs);
    this.#sets = groupedBy(runs, ({ setId }) => setId);
    this.#keep(version, runs.at(-1)?.startedAtMs ?? -Infinity);
    this.#generation += 1;
  }

  #keep(version: number, newestMs: number): void {
    this.#version = version;
    this.#newestMs = Math.max(this.#newestMs, newestMs);
  }

  #forgetBefore(sinceMs: number): void {
    for (const [setId, set] of this.#sets) {
      if (set[0]!.startedAtMs >= sinceMs) continue;
      const left = set.filter(({ startedAtMs }) => startedAtMs >= sinceMs);
      if (left.length > 0) this.#sets.set(setId, left);
      else this.#sets.delete(setId);
    }
  }

  /** False: runs are gone or count no more, so that all has to be read. */
  async #readChanges(sinceMs: number): Promise<boolean> {
    if (this.#version === null) return false;
    const { runs, count, version } = await this.evidence.since(this.siteId, sinceMs, this.#version);
    this.#forgetBefore(sinceMs);
    for (const run of runs) {
      const others = (this.#sets.get(run.setId) ?? []).filter(({ id }) => id !== run.id);
      const set = [...others, run].sort((a, b) => a.startedAtMs - b.startedAtMs);
      this.#sets.set(run.setId, set);
    }
    const known = [...this.#sets.values()].reduce((sum, { length }) => sum + length, 0);
    if (known !== count) return false;
    if (runs.some(({ startedAtMs }) => startedAtMs < this.#newestMs)) this.#generation += 1;
    this.#keep(version, runs.at(-1)?.startedAtMs ?? -Infinity);
    return true;
  }
}
