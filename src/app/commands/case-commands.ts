import { changeCase, closeCase, letMeasure, openCase, removeCase, type ConsoleContext } from '@/services';
import type { CaseForm } from '@/wire';
import type { Command, Look } from './command';

async function caseLook({ store }: ConsoleContext, id: string): Promise<Look | null> {
  const stored = await store.cases.byId(id);
  if (stored === null) return null;
  const { siteId, title, contract, rule, closedAtMs, deviceId } = stored;
  const facts = {
    contract: JSON.stringify(contract),
    rule: JSON.stringify(rule),
    closed: closedAtMs !== null,
    device: deviceId,
  };
  return { siteId, subject: title, facts };
}

export const CASE_COMMANDS = {
  openCase: {
    ...{ scope: 'everything', changes: [], audited: 'case-opened' },
    look: ({ context }, made) => (made === null ? Promise.resolve(null) : caseLook(context, made.id)),
    run: ({ context, actor, input }) => openCase(context, actor.name, input),
  } satisfies Command<{ readonly siteId: string; readonly form: CaseForm }, { readonly id: string }>,

  changeCase: {
    ...{ scope: 'everything', changes: [], audited: 'case-changed' },
    look: ({ context, input }) => caseLook(context, input.id),
    run: ({ context, input }) => changeCase(context, input),
  } satisfies Command<{ readonly id: string; readonly form: CaseForm }, null>,

  closeCase: {
    ...{ scope: 'everything', changes: [], audited: 'case-closed' },
    look: ({ context, input }) => caseLook(context, input.id),
    run: ({ context, input }) => closeCase(context, input),
  } satisfies Command<{ readonly id: string; readonly closed: boolean }, null>,

  letMeasure: {
    ...{ scope: 'everything', changes: [], audited: 'case-changed' },
    look: ({ context, input }) => caseLook(context, input.id),
    run: ({ context, input }) => letMeasure(context, input),
  } satisfies Command<{ readonly id: string; readonly deviceId: string | null }, null>,

  removeCase: {
    ...{ scope: 'everything', changes: [], audited: 'case-removed' },
    look: ({ context, input }) => caseLook(context, input.id),
    run: ({ context, input }) => removeCase(context, input.id),
  } satisfies Command<{ readonly id: string }, null>,
};
