import type { ReactNode } from 'react';

const HEAD = 'py-1 pr-5 text-left font-normal text-quiet';
export const CELL = 'py-1 pr-5 align-baseline';
export const FIGURE = `figure whitespace-nowrap text-[0.8rem] ${CELL}`;

/** A table of what was found. */
export function Table({ label, heads, children }: { label: string; heads: readonly string[]; children: ReactNode }) {
  return (
    <div className="overflow-x-auto">
      <table className="text-sm" aria-label={label}>
        <thead>
          <tr>
            {heads.map((head) => (
              <th key={head} scope="col" className={HEAD}>
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </table>
    </div>
  );
}
