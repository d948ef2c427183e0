/** Tells whoever goes on hearing from the console by a sign-in that it has ended. */
export class EndedSignIns {
  readonly #listeners = new Map<string, Set<() => void>>();

  /** Returns what ends the listening. */
  listen(signInId: string, listener: () => void): () => void {
    const those = this.#listeners.get(signInId) ?? new Set();
    this.#listeners.set(signInId, those.add(listener));
    return () => {
      those.delete(listener);
      if (those.size === 0) this.#listeners.delete(signInId);
    };
  }

  tell(signInIds: readonly string[]): void {
    for (const id of signInIds) for (const listener of [...(this.#listeners.get(id) ?? [])]) listener();
  }
}
