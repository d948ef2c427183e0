/** What several ask for within a moment is found out once. */
const MOMENT_MS = 3000;

export function onceAMoment<Found>(
  find: () => Promise<Found>,
  nowMs: () => number = () => performance.now(),
): () => Promise<Found> {
  let [atMs, found] = [-Infinity, null as Promise<Found> | null];
  return () => {
    if (found === null || nowMs() - atMs > MOMENT_MS) [atMs, found] = [nowMs(), find()];
    return found;
  };
}
