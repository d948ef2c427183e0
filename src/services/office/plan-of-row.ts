import type { Plan } from '@/core';
import type { StoredPlan } from '@/store';

/** The plan as core knows it, from its row; null stays null. */
export function planOfRow(row: StoredPlan | null): Plan | null {
  if (row === null) return null;
  const { name, downBps, upBps, leastDownBps, leastUpBps, basis, fullFrom } = row;
  return { name, downBps, upBps, leastDownBps, leastUpBps, basis, fullFrom };
}
