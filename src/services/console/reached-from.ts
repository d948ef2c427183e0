/** From where other machines have reached this console since it started: the proof that no firewall is in the way. */
export class ReachedFrom {
  #last: { readonly address: string; readonly atMs: number } | null = null;

  note(address: string, atMs: number): void {
    this.#last = { address, atMs };
  }

  get last() {
    return this.#last;
  }
}
