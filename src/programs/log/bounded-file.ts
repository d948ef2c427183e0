import { closeSync, existsSync, fstatSync, openSync, renameSync, writeSync } from 'node:fs';

/**
 * A file that is followed by the next when it is full: `door.log`, before it `door.1.log` and so on up to `older`. Each line
 * is on its way to the disk when `write` returns, and no file is longer than `mostBytes` and one line. What cannot be
 * written, on a full disk, is lost.
 */
export class BoundedFile {
  #descriptor: number;
  #bytes: number;

  /** `path`: without the ending. Throws where the file cannot be opened. */
  constructor(
    private readonly path: string,
    private readonly mostBytes: number,
    private readonly older: number,
  ) {
    this.#descriptor = openSync(`${path}.log`, 'a', 0o600);
    this.#bytes = fstatSync(this.#descriptor).size;
  }

  write(line: string): void {
    try {
      if (this.#bytes >= this.mostBytes) this.#begin();
      this.#bytes += writeSync(this.#descriptor, line);
    } catch {
      // The part goes on without it.
    }
  }

  #begin(): void {
    closeSync(this.#descriptor);
    const nameOf = (number: number) => (number === 0 ? `${this.path}.log` : `${this.path}.${number}.log`);
    for (let number = this.older - 1; number >= 0; number -= 1)
      if (existsSync(nameOf(number))) renameSync(nameOf(number), nameOf(number + 1));
    this.#descriptor = openSync(`${this.path}.log`, 'a', 0o600);
    this.#bytes = 0;
  }
}
