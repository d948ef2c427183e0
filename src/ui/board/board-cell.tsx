import type { CSSProperties } from 'react';
import { verdictShapeHref, VERDICT_COLOURS } from '../verdict/verdict-shapes';
import type { CellMark } from './board-keys';
import type { DrawnCell } from './drawn-cell';

interface BoardCellProps {
  readonly cell: DrawnCell;
  readonly mark: CellMark;
  /** The device and the column. */
  readonly place: string;
}

/**
 * The newest result in one place of the board: two straws, figures, added delay with its word, age, verdict. A board has
 * hundreds of them, so each is made of few parts, drawn and styled in globals.css; BoardKeys makes the way
 * to its run one without loading the page anew.
 */
export function BoardCell({ cell, mark, place }: BoardCellProps) {
  const { runId, down, up, downLength, upLength, hollow, verdict, kink, age, set, added, rating } = cell;
  return (
    <a
      {...mark}
      href={`/runs/${runId}`}
      aria-label={`${place}: ${verdict}. ${down} down, ${up} up Mb/s. Open the run.`}
      className={hollow === undefined ? 'board-cell' : `board-cell ${hollow}`}
      style={{ '--down-length': downLength, '--up-length': upLength } as CSSProperties}
    >
      <b>{down}</b>
      <b>{up}</b>
      <svg className={VERDICT_COLOURS[verdict]}>
        <use href={verdictShapeHref(verdict)} />
      </svg>
      {kink && <em>kink</em>}
      {set === undefined ? (
        <i>{age}</i>
      ) : (
        <i title={`median of ${set[0]} runs, ${set[1]} down and ${set[2]} Mb/s up apart`}>{`${set[0]} × ${age}`}</i>
      )}
      {added !== undefined && (
        <small>
          <b>{added}</b>
          {rating !== undefined && ` ${rating}`}
        </small>
      )}
    </a>
  );
}
