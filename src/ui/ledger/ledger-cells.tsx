import { StripSketch } from '../strip/strip-sketch';
import { VerdictMark } from '../verdict/verdict-mark';
import type { DrawnRun } from './drawn-run';
import { LEDGER_COLUMNS, type LedgerColumn } from './ledger-columns';
import { Link } from '../parts/link';

/** Columns of what a run came out at: one that has not says so across them. */
const OF_OUTCOME = ['down', 'up', 'idle', 'added', 'verdict'] as const satisfies readonly LedgerColumn[];
type OutcomeColumn = (typeof OF_OUTCOME)[number];
const isOfOutcome = (column: LedgerColumn): column is OutcomeColumn =>
  (OF_OUTCOME as readonly LedgerColumn[]).includes(column);

function Tags({ tags, notes, aside }: Pick<DrawnRun, 'tags' | 'notes' | 'aside'>) {
  const beside = [...(aside === null ? [] : [aside]), ...(notes === '' ? [] : [notes])].join(' · ');
  return (
    <span className="flex w-[6.5rem] items-baseline gap-1.5 overflow-hidden whitespace-nowrap text-xs">
      {tags.map((tag) => (
        <span key={tag} title={tag} className="max-w-full shrink-0 truncate border border-hairline px-1">
          {tag}
        </span>
      ))}
      {beside !== '' && (
        <span className="truncate text-quiet" title={beside}>
          {beside}
        </span>
      )}
    </span>
  );
}

function Finished({ column, of }: { readonly column: OutcomeColumn; readonly of: DrawnRun['outcome'] }) {
  if (of.status !== 'finished') return null;
  switch (column) {
    case 'down':
      return of.down;
    case 'up':
      return of.up;
    case 'idle':
      return <span className="text-[0.78rem]">{of.idle}</span>;
    case 'added':
      return (
        <>
          <span className="figure text-[0.78rem] text-delay">{of.added}</span>{' '}
          <span className="inline-block w-17 text-left font-sans text-quiet">{of.rating}</span>
        </>
      );
    case 'verdict':
      return <VerdictMark verdict={of.verdict} withWord />;
  }
}

function Plain({ column, run }: { readonly column: Exclude<LedgerColumn, OutcomeColumn>; readonly run: DrawnRun }) {
  switch (column) {
    case 'when':
      return (
        <Link
          href={`/runs/${run.id}`}
          className="underline decoration-hairline underline-offset-4 hover:decoration-ink"
        >
          {run.when}
        </Link>
      );
    case 'strip':
      return run.strip === null ? null : <StripSketch drawing={run.strip} />;
    case 'tags':
      return <Tags {...run} />;
    case 'device':
    case 'spot':
    case 'peer':
      return (
        <span className="block max-w-56 truncate" title={run[column]}>
          {run[column]}
        </span>
      );
    case 'link':
    case 'reach':
    case 'profile':
      return <span className="text-quiet">{run[column]}</span>;
  }
}

/** The cells of a run, one for each column; what has no figures says so across theirs. */
export function LedgerCells({ run, columns }: { readonly run: DrawnRun; readonly columns: readonly LedgerColumn[] }) {
  const { outcome } = run;
  const ofOutcome = columns.filter(isOfOutcome);
  return columns.map((column) => {
    if (outcome.status === 'other' && isOfOutcome(column))
      return column === ofOutcome[0] ? (
        <td key={column} colSpan={ofOutcome.length} className="max-w-0 truncate px-3 text-quiet" title={outcome.words}>
          {outcome.words}
        </td>
      ) : null;
    const numeric = LEDGER_COLUMNS[column].numeric;
    return (
      <td key={column} className={`whitespace-nowrap px-3 align-middle ${numeric ? 'figure text-right' : ''}`}>
        {isOfOutcome(column) ? <Finished column={column} of={outcome} /> : <Plain column={column} run={run} />}
      </td>
    );
  });
}
