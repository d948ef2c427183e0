import { answering, faultAnswer } from '@/app/api/v1/answer';
import { fileAnswer } from '@/app/file-answer';
import { technician } from '@/app/role';
import { casePageOf, casePdf, caseRecord, theConsole } from '@/services';

/** What answers with a file of a case. */
export function caseFile(kind: 'pdf' | 'json') {
  return answering(
    async (request: Request, { params }: { readonly params: Promise<{ id: string }> }): Promise<Response> => {
      const allowed = await technician();
      if (!allowed.ok) return faultAnswer(allowed.fault);
      const context = theConsole();
      const page = await casePageOf(context, (await params).id);
      if (!page.ok) return faultAnswer(page.fault);
      return fileAnswer(request, { kind, title: page.value.stored.title, otherwise: 'case' }, (signal) =>
        kind === 'json' ? caseRecord(page.value).bytes : casePdf(page.value, context.printFonts, signal),
      );
    },
  );
}
