import { type BloatRating, foldedName, type LinkKind, type Reach, type StrawSegment, type VerdictWord } from '@/core';
import type { BoardCell, BoardColumn } from './board-cells';

export const BOARD_AGES = ['day', 'week', 'older'] as const;
export type BoardAge = (typeof BOARD_AGES)[number];

/** What the board is narrowed to; everything absent is not narrowed. */
export interface BoardFilter {
  /** Part of the name of a device or a spot. */
  readonly text?: string | undefined;
  readonly spot?: string | undefined;
  readonly linkKind?: LinkKind | undefined;
  readonly reach?: Reach | undefined;
  readonly segment?: StrawSegment['kind'] | undefined;
  readonly verdict?: VerdictWord | undefined;
  /** Only places whose delay under load has this rating. */
  readonly rating?: BloatRating | undefined;
  readonly age?: BoardAge | undefined;
}

const DAY_MS = 24 * 3600_000;

/** Runs of a local reach end before the router, and so do most between machines; those through the tunnel alone cross the tunnel. */
function crosses(reach: Reach, segment: StrawSegment['kind']): boolean {
  if (segment === 'router' || segment === 'line') return reach === 'internet' || reach === 'tunnel';
  if (segment === 'tunnel') return reach === 'tunnel';
  if (segment === 'far-end') return reach === 'internet';
  return true;
}

export function keepsColumn({ linkKind, reach, segment }: BoardFilter, column: BoardColumn): boolean {
  return (
    (linkKind === undefined || linkKind === column.linkKind) &&
    (reach === undefined || reach === column.reach) &&
    (segment === undefined || crosses(column.reach, segment))
  );
}

/** Whether a cell is what was asked for by verdict and age; an empty one never is. */
export function keepsCell({ verdict, rating, age }: BoardFilter, cell: BoardCell | null, nowMs: number): boolean {
  if (verdict === undefined && rating === undefined && age === undefined) return true;
  if (cell === null) return false;
  const oldMs = nowMs - cell.startedAtMs;
  const ageOf: BoardAge = oldMs <= DAY_MS ? 'day' : oldMs <= 7 * DAY_MS ? 'week' : 'older';
  return (
    (verdict === undefined || verdict === cell.verdict) &&
    (rating === undefined || rating === cell.rating) &&
    (age === undefined || age === ageOf)
  );
}

export function keepsRow(
  { text, spot }: BoardFilter,
  row: { readonly deviceName: string; readonly spotName: string | null },
): boolean {
  const wanted = foldedName(text?.trim() ?? '');
  const name = foldedName(`${row.deviceName} ${row.spotName ?? ''}`);
  return (spot === undefined || spot === row.spotName) && name.includes(wanted);
}
