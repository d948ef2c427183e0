import { answering, faultAnswer } from '@/app/api/v1/answer';
import { fileAnswer } from '@/app/file-answer';
import { technician } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { reportOf, reportPdf, siteOf, theConsole } from '@/services';
import { failed } from '@/wire';
import { readReportChoice, reportOrder } from '../read-order';

/** The report of an address as PDF. */
export const GET = answering(async (request: Request): Promise<Response> => {
  const allowed = await technician();
  if (!allowed.ok) return faultAnswer(allowed.fault);
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return faultAnswer(failed('site-missing').fault);
  const choice = readReportChoice(new URL(request.url).searchParams);
  const { order, fault } = reportOrder(site.id, choice, { timeZone: site.timeZone, nowMs: context.wallMs() });
  if (order === null) return faultAnswer(failed('request-malformed', { complaint: fault ?? 'the days' }).fault);
  const report = await reportOf(context, order);
  if (!report.ok) return faultAnswer(report.fault);
  const title = `${report.value.site.name} ${report.value.title}`;
  return fileAnswer(request, { kind: 'pdf', title, otherwise: 'report' }, (signal) =>
    reportPdf(report.value, context.printFonts, signal),
  );
});
