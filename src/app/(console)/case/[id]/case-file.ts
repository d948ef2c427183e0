import { answering, faultAnswer } from '@/app/api/v1/answer';
import { technician } from '@/app/role';
import { casePageOf, casePdf, caseRecord, theConsole } from '@/services';

const TYPES = { pdf: 'application/pdf', json: 'application/json' } as const;

const nameOf = (title: string) =>
  title
    .normalize('NFKD')
    .replace(/[^\w]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase();

/** What answers with a file of a case. */
export function caseFile(kind: keyof typeof TYPES) {
  return answering(async (_: Request, { params }: { readonly params: Promise<{ id: string }> }): Promise<Response> => {
    const allowed = await technician();
    if (!allowed.ok) return faultAnswer(allowed.fault);
    const context = theConsole();
    const page = await casePageOf(context, (await params).id);
    if (!page.ok) return faultAnswer(page.fault);
    const file = kind === 'json' ? caseRecord(page.value).bytes : await casePdf(page.value, context.printFonts);
    return new Response(new Uint8Array(file), {
      headers: {
        'Content-Type': TYPES[kind],
        'Content-Disposition': `attachment; filename="${nameOf(page.value.stored.title) || 'case'}.${kind}"`,
      },
    });
  });
}
