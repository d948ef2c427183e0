import type { HandInRequest } from '@/wire';

/** A finished measurement on its way to the console. Its run's id is its own: handing it in twice changes nothing. */
export interface OutboxEntry {
  readonly runId: string;
  readonly request: HandInRequest;
}

/**
 * Where results lie until the console has said that it has them. `put` resolves only once the entry would survive the end
 * of the process; it rejects where that cannot be had, and the result then lives as long as the process.
 */
export interface Outbox {
  put(entry: OutboxEntry): Promise<void>;
  all(): Promise<readonly OutboxEntry[]>;
  remove(runId: string): Promise<void>;
}

/** For where nothing can be kept. */
export function memoryOutbox(): Outbox {
  const entries = new Map<string, OutboxEntry>();
  return {
    put: (entry) => Promise.resolve(void entries.set(entry.runId, entry)),
    all: () => Promise.resolve([...entries.values()]),
    remove: (runId) => Promise.resolve(void entries.delete(runId)),
  };
}
