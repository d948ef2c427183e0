import type { ChildProcess } from 'node:child_process';

const ends = new Set<() => void>();
process.on('exit', () => {
  for (const end of ends) end();
});

/** Whatever is given here is done when the tool ends, however it ends; returns what takes it back. */
export function endsWithTool(end: () => void): () => void {
  ends.add(end);
  return () => ends.delete(end);
}

/** A child that does not outlive the tool. */
export function childOfTool(child: ChildProcess): ChildProcess {
  const forget = endsWithTool(() => child.kill('SIGTERM'));
  child.once('exit', forget);
  return child;
}

/** Lets a tool that is interrupted end in order, so that nothing it started stays behind. */
export function endInOrder(): void {
  for (const [signal, code] of [
    ['SIGINT', 130],
    ['SIGTERM', 143],
    ['SIGHUP', 129],
  ] as const)
    process.once(signal, () => process.exit(code));
}

/** A number from the command line of a tool; what is none ends it with a sentence. */
export function numberArgument(text: string | undefined, usual: number, what: string): number {
  const value = text === undefined ? usual : Number(text);
  if (Number.isFinite(value) && value > 0) return value;
  console.error(`${what} must be a number above 0, and ${text} is none.`);
  process.exit(64);
}
