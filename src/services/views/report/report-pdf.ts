import type { Report } from './report';

/** A report as PDF. `fonts`: their folder. Rejects as soon as `signal` is aborted. */
export async function reportPdf(report: Report, fonts: string, signal?: AbortSignal): Promise<Buffer> {
  // What draws is large: read by whoever prints.
  const { PrintSheet, QUIET } = await import('../print-sheet');
  const { title, site, span, lead, sections, letterhead, madeAtMs } = report;
  const zone = site.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  const made = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone: zone }).format(
    madeAtMs,
  );
  const head = [title, site.name, `${made} (${zone})`, ...(site.demo ? ['demo data'] : [])].join(' · ');
  const sheet = new PrintSheet(fonts, head, title, signal);
  sheet.letterhead(letterhead);
  sheet.text(title, { size: 20, weight: '700', gap: 2 });
  sheet.text(`${site.name}, ${span}`, { color: QUIET, gap: 8 });
  lead.forEach((sentence) => sheet.text(sentence, { size: 12, gap: 4 }));
  for (const { heading, sentences, table } of sections) {
    sheet.heading(heading);
    for (const sentence of sentences) sheet.text(sentence);
    if (table !== null) await sheet.table(table.head, table.shares, table.rows);
  }
  if (sheet.lacksLetters)
    sheet.text('A letter that the fonts of this paper lack is a question mark here.', { color: QUIET });
  return sheet.finish();
}
