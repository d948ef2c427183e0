/** Runs tasks one after the other, in the order in which they came: between them nothing else decides. */
export class OneAtATime {
  #last: Promise<unknown> = Promise.resolve();

  run<Value>(task: () => Promise<Value>): Promise<Value> {
    const next = this.#last.then(task, task);
    this.#last = next.catch(() => undefined);
    return next;
  }
}
