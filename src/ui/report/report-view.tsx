import type { Report } from '@/services';

function Head({ letterhead: { name, lines, logo } }: Pick<Report, 'letterhead'>) {
  if (name === '' && lines.length === 0 && logo === null) return null;
  return (
    <div className="mb-5 flex items-start justify-between gap-6">
      {logo === null ? (
        <span />
      ) : (
        // A data URL: there is nothing to optimise.
        <img src={logo} alt="" className="max-h-16 max-w-60 object-contain object-left" />
      )}
      <address className="min-w-0 break-words text-right text-sm not-italic">
        <b className="block">{name}</b>
        {lines.map((line) => (
          <span key={line} className="block text-quiet">
            {line}
          </span>
        ))}
      </address>
    </div>
  );
}

/** Only a figure, with its unit or without. */
const FIGURE = /^[<+−-]?\d[\d.]*(?: ms| %)?$|^–$/;

/** A report as it will be printed. */
export function ReportView({ report }: { readonly report: Report }) {
  const { title, site, span, lead, sections } = report;
  return (
    <article className="mt-6 max-w-[56rem] border border-hairline bg-sheet px-6 py-6 sm:px-10 print:mt-0 print:border-0 print:px-0">
      <Head letterhead={report.letterhead} />
      <h1 className="text-2xl font-semibold">{title}</h1>
      <p className="mb-4 text-quiet">
        {site.name}, {span}
        {site.demo && ' · demo data'}
      </p>
      {lead.map((sentence) => (
        <p key={sentence} className="mb-1 max-w-[46rem] text-[1.1rem] leading-snug">
          {sentence}
        </p>
      ))}
      {sections.length === 0 && <p className="mt-4 text-quiet">There is nothing more to say of this.</p>}
      {sections.map(({ key, heading, sentences, table }) => (
        <section key={key} className="mt-6 break-inside-auto">
          <h2 className="mb-1 break-after-avoid text-lg font-semibold">{heading}</h2>
          {sentences.map((sentence, index) => (
            <p key={index} className="mb-1 max-w-[46rem] break-words">
              {sentence}
            </p>
          ))}
          {table !== null && (
            <div className="mt-2 overflow-x-auto">
              <table className="w-full table-fixed text-sm max-sm:w-[44rem]">
                <colgroup>
                  {table.shares.map((share, index) => (
                    <col key={index} style={{ width: `${100 * share}%` }} />
                  ))}
                </colgroup>
                <thead className="text-left text-quiet">
                  <tr>
                    {table.head.map((name, index) => (
                      <th key={index} scope="col" className="border-b border-ink pr-3 font-normal">
                        {name}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {table.rows.map((row, index) => (
                    <tr key={index} className="break-inside-avoid border-b border-hairline">
                      {row.map((cell, column) => (
                        <td
                          key={column}
                          className={`break-words py-0.5 pr-3 align-top ${FIGURE.test(cell) ? 'figure text-[0.8rem]' : ''}`}
                        >
                          {cell}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
        </section>
      ))}
    </article>
  );
}
