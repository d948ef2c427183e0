/** Tells whoever looks at the console that something there has changed, so that it is drawn anew. */
export class Changes {
  readonly #listeners = new Set<() => void>();

  /** Returns what ends the listening. */
  listen(listener: () => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  tell(): void {
    for (const listener of this.#listeners) listener();
  }
}
