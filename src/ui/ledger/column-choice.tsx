'use client';

import { Button } from '../parts/button';
import { Popover } from '../parts/popover';
import { LEDGER_COLUMN_NAMES, LEDGER_COLUMNS, type LedgerColumn } from './ledger-columns';

interface ColumnChoiceProps {
  readonly columns: readonly LedgerColumn[];
  readonly onColumns: (columns: readonly LedgerColumn[]) => void;
}

/** Which columns are shown; kept in this browser. */
export function ColumnChoice({ columns, onColumns }: ColumnChoiceProps) {
  return (
    <Popover
      label="Columns"
      trigger={
        <Button look="quiet" className="!min-h-9 !px-2 text-sm">
          columns
        </Button>
      }
    >
      <ul className="grid grid-cols-2 gap-x-6 pr-6 text-sm">
        {LEDGER_COLUMN_NAMES.map((column) => {
          const shown = columns.includes(column);
          return (
            <li key={column}>
              <label className="flex min-h-7 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-4 accent-ink"
                  checked={shown}
                  // One column is the least that a table has.
                  disabled={shown && columns.length === 1}
                  onChange={() =>
                    onColumns(LEDGER_COLUMN_NAMES.filter((each) => (each === column ? !shown : columns.includes(each))))
                  }
                />
                {LEDGER_COLUMNS[column].head}
              </label>
            </li>
          );
        })}
      </ul>
    </Popover>
  );
}
