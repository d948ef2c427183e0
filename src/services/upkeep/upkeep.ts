/** Something that is done again and again while a console is open. */
export interface UpkeepTask {
  readonly name: string;
  readonly everyMs: number;
  readonly act: () => Promise<unknown>;
}

/**
 * Does each task every so often, never twice at once; one that fails is reported and tried again at its time. `stop`
 * resolves when nothing of it is under way any more.
 */
export function startUpkeep(
  tasks: readonly UpkeepTask[],
  onTrouble: (name: string, error: unknown) => void,
): { stop(): Promise<void> } {
  const running = new Map<UpkeepTask, Promise<void>>();
  const timers = tasks.map((task) =>
    setInterval(() => {
      if (running.has(task)) return;
      const done = task
        .act()
        .then(
          () => undefined,
          (error: unknown) => onTrouble(task.name, error),
        )
        .finally(() => running.delete(task));
      running.set(task, done);
    }, task.everyMs),
  );
  return {
    stop: async () => {
      timers.forEach(clearInterval);
      await Promise.all(running.values());
    },
  };
}
