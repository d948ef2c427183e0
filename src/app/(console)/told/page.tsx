import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { siteOf, theConsole, toldPageOf } from '@/services';
import { FollowChanges } from '@/ui/board/follow-changes';
import { FirstOffice } from '@/ui/set-up/first-office';
import { AlarmList } from '@/ui/told/alarm-list';
import { MailServerForm } from '@/ui/told/mail-server-form';
import { RecipientForm } from '@/ui/told/recipient-form';
import { RecipientList } from '@/ui/told/recipient-list';
import { RulesForm } from '@/ui/told/rules-form';
import { saveOfficeAction } from '../set-up/actions';
import {
  addRecipientAction,
  pauseRecipientAction,
  removeRecipientAction,
  saveMailServerAction,
  saveRulesAction,
  tryRecipientAction,
} from './actions';

export const metadata: Metadata = { title: 'Being told' };

/** What an office wants to be told of, what was told, to whom, and whether it arrived. */
export default async function ToldPlace() {
  await connection();
  await technicianOrSignIn('/told');
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  const page = site === null ? null : await toldPageOf(context, site.id);
  if (site === null || page?.ok !== true) return <FirstOffice save={saveOfficeAction} />;
  const { rules, alarms, recipients, mailServer } = page.value;
  const needsMail = mailServer === null && recipients.some(({ kind }) => kind === 'mail');
  return (
    <>
      <FollowChanges />
      <h1 className="text-xl font-semibold">Being told</h1>
      <p className="mb-4 mt-1 max-w-[46rem] text-quiet">
        Once when something begins, and once when it is over. Nobody is told in his quiet hours; what was over by their
        end is not told at all.
      </p>
      <section aria-label="Who is told">
        <h2 className="font-semibold">Who is told</h2>
        {needsMail && (
          <p role="alert" className="my-1 font-medium text-starved">
            No mail server is named yet, so no mail leaves: name one below. What is to be sent waits.
          </p>
        )}
        {recipients.length === 0 ? (
          <p className="text-quiet">Nobody yet. What happens is written down here all the same.</p>
        ) : (
          <RecipientList
            recipients={recipients}
            pause={pauseRecipientAction}
            remove={removeRecipientAction}
            tryIt={tryRecipientAction}
          />
        )}
        <details className="mt-2" open={recipients.length === 0}>
          <summary className="font-semibold">Tell somebody</summary>
          <div className="mt-2">
            <RecipientForm add={addRecipientAction.bind(null, site.id)} />
          </div>
        </details>
      </section>
      <section aria-label="What was told" className="mt-8">
        <h2 className="font-semibold">What happened</h2>
        <AlarmList alarms={alarms} />
      </section>
      <section aria-label="Of what" className="mt-8">
        <h2 className="font-semibold">Of what</h2>
        <RulesForm rules={rules} save={saveRulesAction.bind(null, site.id)} />
      </section>
      <section aria-label="Mail server" className="mt-8">
        <details open={needsMail}>
          <summary className="font-semibold">
            Mail server{' '}
            <span className="font-normal text-quiet">
              {mailServer === null ? 'none named' : `${mailServer.host}:${mailServer.port}`}
            </span>
          </summary>
          <div className="mt-2">
            <MailServerForm server={mailServer} save={saveMailServerAction} />
          </div>
        </details>
      </section>
      <p className="mt-8 max-w-[46rem] text-sm text-quiet">
        A program of yours that gathers figures reads them at <code className="figure">/metrics</code>, as OpenMetrics,
        with a token that may read (set-up, Scripts).
      </p>
    </>
  );
}
