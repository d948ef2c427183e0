/** What of the console can have changed, so that only those who show it draw it anew. */
export const CHANGED_THINGS = [
  'office',
  'runs',
  'queue',
  'presence',
  'people',
  'copies',
  'findings',
  'looks',
  'lanes',
] as const;
export type ChangedThing = (typeof CHANGED_THINGS)[number];

type Listener = (what: readonly ChangedThing[]) => void;

/** Tells whoever looks at the console that something there has changed, and what. */
export class Changes {
  readonly #listeners = new Set<Listener>();

  /** Returns what ends the listening. */
  listen(listener: Listener): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  tell(...what: readonly ChangedThing[]): void {
    for (const listener of this.#listeners) listener(what);
  }
}
