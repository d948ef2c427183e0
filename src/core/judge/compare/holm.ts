/**
 * p values adjusted by Holm's step-down (Holm 1979), in their own order: the least is multiplied by their number, the next
 * by one less, and none is below one before it. Example: [0.01, 0.04, 0.03] → [0.03, 0.06, 0.06].
 */
export function holmAdjusted(ps: readonly number[]): number[] {
  const order = ps.map((_, index) => index).sort((a, b) => ps[a]! - ps[b]!);
  const adjusted = ps.map(() => 0);
  let most = 0;
  order.forEach((index, place) => {
    most = Math.max(most, Math.min(1, ps[index]! * (ps.length - place)));
    adjusted[index] = most;
  });
  return adjusted;
}
