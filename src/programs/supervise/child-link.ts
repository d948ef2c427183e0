/** What a part knows that the launcher shows; null: there is none. */
export type PartFacts = Readonly<Record<string, string | null>>;

/** What a child process tells the launcher. */
export type ChildMessage =
  | { readonly kind: 'ready'; readonly facts: PartFacts }
  | { readonly kind: 'failed'; readonly code: string; readonly sentence: string };

/**
 * Ties a child to its launcher: it says when it is ready, ends when told to, and never outlives it. `stop` is called
 * once before the end. Ctrl-C reaches the whole group; only the launcher acts on it.
 */
export function linkToLauncher(stop: () => void | Promise<void>): {
  isStopping(): boolean;
  ready(facts?: PartFacts): void;
  failed(code: string, sentence: string): void;
} {
  let stopping = false;
  const end = () => {
    if (stopping) return;
    stopping = true;
    void Promise.resolve(stop()).finally(() => process.exit(0));
  };
  process.on('SIGINT', () => undefined);
  process.on('SIGTERM', end);
  process.on('disconnect', end);
  // A launcher that ended while this process was still loading has said so already, to nobody.
  if (process.connected === false) end();
  // A launcher that has gone in the meantime is no failure: `disconnect` ends this process.
  const send = (message: ChildMessage) => process.send?.(message, undefined, undefined, () => undefined);
  return {
    isStopping: () => stopping,
    ready: (facts = {}) => send({ kind: 'ready', facts }),
    failed: (code, sentence) => {
      send({ kind: 'failed', code, sentence });
      if (process.send === undefined) console.error(`${sentence} [${code}]`);
      process.exitCode = 1;
      setTimeout(() => process.exit(1), 50);
    },
  };
}
