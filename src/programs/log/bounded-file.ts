import { closeSync, existsSync, fstatSync, openSync, renameSync, writeSync } from 'node:fs';

/**
 * A file that is followed by the next when it is full: `door.log`, before it `door.1.log` and so on up to `older`. Each line
 * is on its way to the disk when `write` returns, and no file is longer than `mostBytes` and one line. What cannot be
 * written, on a full disk, is lost.
 */
export class BoundedFile {
  /** Null while the file could not be opened: the number of a closed one may be somebody else's by now. */
  #descriptor: number | null = null;
  #bytes = 0;

  /** `path`: without the ending. Throws where the file cannot be opened. */
  constructor(
    private readonly path: string,
    private readonly mostBytes: number,
    private readonly older: number,
  ) {
    this.#open();
  }

  write(line: string): void {
    try {
      if (this.#descriptor !== null && this.#bytes >= this.mostBytes) this.#close();
      const descriptor = this.#descriptor ?? this.#open();
      const written = writeSync(descriptor, line);
      this.#bytes += written;
    } catch {
      // The part goes on without it.
    }
  }

  #open(): number {
    const descriptor = openSync(`${this.path}.log`, 'a', 0o600);
    this.#descriptor = descriptor;
    this.#bytes = fstatSync(descriptor).size;
    return descriptor;
  }

  /** Leaves the file that is full and makes room for the next. */
  #close(): void {
    const full = this.#descriptor!;
    this.#descriptor = null;
    closeSync(full);
    const nameOf = (number: number) => (number === 0 ? `${this.path}.log` : `${this.path}.${number}.log`);
    for (let number = this.older - 1; number >= 0; number -= 1)
      if (existsSync(nameOf(number))) renameSync(nameOf(number), nameOf(number + 1));
  }
}
