import type { CSSProperties } from 'react';
import { RIPPLE_COLOURS } from '../verdict/delay-mark';
import { RIPPLE_HREF, verdictShapeHref, VERDICT_COLOURS } from '../verdict/verdict-shapes';
import type { CellMark } from './board-keys';
import type { DrawnCell } from './drawn-cell';

interface BoardCellProps {
  readonly cell: DrawnCell;
  readonly mark: CellMark;
  /** The device and the column. */
  readonly place: string;
}

/**
 * The newest result in one place of the board: two straws, figures, both marks, age and added delay. A board has
 * hundreds of them, so each is made of few parts, drawn and styled in globals.css; BoardKeys makes the way
 * to its run one without loading the page anew.
 */
export function BoardCell({ cell, mark, place }: BoardCellProps) {
  const { runId, down, up, downLength, upLength, hollow, verdict, age, set, added, rating } = cell;
  const ripple = rating === undefined ? undefined : RIPPLE_COLOURS[rating];
  const delay = rating === undefined ? '' : ` Delay under load: ${added ?? ''} ms, ${rating}.`;
  return (
    <a
      {...mark}
      href={`/runs/${runId}`}
      aria-label={`${place}: ${verdict}. ${down} down, ${up} up Mb/s.${delay} Open the run.`}
      className={hollow === undefined ? 'board-cell' : `board-cell ${hollow}`}
      style={{ '--down-length': downLength, '--up-length': upLength } as CSSProperties}
    >
      <b className={down.length > 5 ? 'range' : undefined}>{down}</b>
      <svg className={VERDICT_COLOURS[verdict]}>
        <use href={verdictShapeHref(verdict)} />
      </svg>
      {set === undefined ? (
        <i>{age}</i>
      ) : (
        <i title={`median of ${set[0]} runs, ${set[1]} down and ${set[2]} Mb/s up apart`}>{`${set[0]}× ${age}`}</i>
      )}
      <b className={up.length > 5 ? 'range' : undefined}>{up}</b>
      {ripple !== undefined && (
        <svg className={ripple}>
          <use href={RIPPLE_HREF} />
        </svg>
      )}
      {added !== undefined && <small>{added}</small>}
    </a>
  );
}
