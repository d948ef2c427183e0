import type { BoardCell } from '@/services';

/** The notch of the yardstick stands here, of a hundred; a little room is left for what goes beyond. */
const NOTCH = 87;
const LONGEST = 98;
/** Stripes of the upload's straw, drawn once for the whole board. */
export const CELL_STRIPES = 'cell-stripes';

function lengthOf(rateBps: number | null, yardstickBps: number | null): number {
  if (rateBps === null) return 0;
  return yardstickBps === null ? LONGEST : Math.round(Math.max(3, Math.min(LONGEST, (rateBps / yardstickBps) * NOTCH)));
}

/** Both straws of a cell in one small drawing: down solid, up striped, each with its notch; hollow without a yardstick. */
export function CellStraws({ cell }: { readonly cell: BoardCell }) {
  const { downBps, upBps, yardstickDownBps, yardstickUpBps } = cell;
  const [down, up] = [lengthOf(downBps, yardstickDownBps), lengthOf(upBps, yardstickUpBps)];
  const notches = [yardstickDownBps === null ? '' : `M${NOTCH} 0V11`, yardstickUpBps === null ? '' : `M${NOTCH} 20V31`];
  return (
    <svg viewBox="0 0 100 31" preserveAspectRatio="none" className="cell-straws" aria-hidden="true">
      {down > 0 && <path className={yardstickDownBps === null ? 'down hollow' : 'down'} d={`M.5 1H${down}V10H.5Z`} />}
      {up > 0 && <path className={yardstickUpBps === null ? 'up hollow' : 'up'} d={`M.5 21H${up}V30H.5Z`} />}
      <path className="notch" d={notches.join('')} />
    </svg>
  );
}

/** What the straws of all cells share. */
export function CellStripes() {
  return (
    <svg className="absolute size-0" aria-hidden="true">
      <pattern id={CELL_STRIPES} width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="4" height="4" fill="var(--paper)" />
        <rect width="2.3" height="4" fill="var(--up)" />
      </pattern>
    </svg>
  );
}
