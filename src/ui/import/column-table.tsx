import {
  columnOf,
  IMPORT_FIELD_NAMES,
  IMPORT_FIELDS,
  importFieldWords,
  unitsOf,
  type ImportField,
  type ImportReading,
} from '@/core';
import type { WholeFile } from './use-import';

interface ColumnTableProps {
  readonly file: WholeFile;
  readonly reading: ImportReading;
  readonly onReading: (reading: ImportReading) => void;
}

/** What each column of the file is read as, beside what stands in it. */
export function ColumnTable({ file: { whole }, reading, onReading }: ColumnTableProps) {
  const { columns } = reading;
  const change = (place: number, field: ImportField | null, unit?: string) => {
    const made = field === null ? null : columnOf(field, whole.headings[place]!);
    onReading({
      ...reading,
      columns: columns.map((column, at) => {
        if (at === place) return made !== null && unit !== undefined ? { ...made, unit } : made;
        // What another column held before it holds no longer.
        return field !== null && column?.field === field ? null : column;
      }),
    });
  };
  return (
    <table className="w-full text-sm">
      <thead className="text-left text-quiet">
        <tr>
          {['in the file', 'for example', 'is read as', 'in'].map((name) => (
            <th key={name} scope="col" className="border-b border-ink pb-1 pr-4 font-normal">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {whole.headings.map((heading, place) => {
          const column = columns[place] ?? null;
          const units = column === null ? [] : Object.keys(unitsOf(column.field));
          return (
            <tr key={place} className="border-b border-hairline">
              <th scope="row" className="max-w-44 truncate py-1 pr-4 text-left font-normal" title={heading}>
                {heading}
              </th>
              <td className="figure max-w-64 truncate pr-4 text-[0.78rem] text-quiet">
                {(whole.examples[place] ?? []).join(' · ') || 'blank'}
              </td>
              <td className="pr-4">
                <select
                  aria-label={`${heading} is read as`}
                  title={column === null ? undefined : IMPORT_FIELDS[column.field].about}
                  className={`field !min-h-8 !w-52 !py-0 ${column === null ? 'text-quiet' : ''}`}
                  value={column?.field ?? ''}
                  onChange={({ target }) => change(place, target.value === '' ? null : (target.value as ImportField))}
                >
                  <option value="">passed over</option>
                  {IMPORT_FIELD_NAMES.map((field) => (
                    <option key={field} value={field}>
                      {importFieldWords(field)}
                    </option>
                  ))}
                </select>
              </td>
              <td>
                {column !== null && units.length > 0 && (
                  <select
                    aria-label={`unit of ${heading}`}
                    className="field !min-h-8 !w-24 !py-0"
                    value={column.unit ?? ''}
                    onChange={({ target }) => change(place, column.field, target.value)}
                  >
                    {units.map((unit) => (
                      <option key={unit}>{unit}</option>
                    ))}
                  </select>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
