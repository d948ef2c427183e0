'use client';

import type { ShownRecipient } from '@/services';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';
import { useActs } from '../parts/use-acts';
import { Confirm } from '../parts/confirm';
import { WallTime } from '../parts/wall-time';

type Delivery = ShownRecipient['deliveries'][number];

const STATE_WORDS: Readonly<Record<Delivery['state'], string>> = {
  waits: 'not yet',
  sent: 'arrived',
  failed: 'given up',
  dropped: 'not sent',
};

const clock = (minute: number) =>
  `${Math.floor(minute / 60)}${minute % 60 === 0 ? '' : `:${String(minute % 60).padStart(2, '0')}`}`;

function DeliveryLine({ of }: { readonly of: Delivery }) {
  return (
    <li className="grid gap-x-4 border-t border-hairline py-1 md:grid-cols-[6.5rem_1fr_auto]">
      <span className={of.state === 'failed' ? 'font-medium text-starved' : of.state === 'sent' ? '' : 'text-quiet'}>
        {STATE_WORDS[of.state]}
      </span>
      <span className="min-w-0 break-words">
        {of.subject}
        {of.trouble !== null && of.state !== 'sent' && (
          <span className="block text-quiet">
            {of.trouble}
            {of.tries > 0 && `; tried ${of.tries === 1 ? 'once' : `${of.tries} times`}`}
            {of.state === 'waits' && of.tries > 0 && (
              <>
                , next <WallTime atMs={of.nextTryAtMs} />
              </>
            )}
          </span>
        )}
      </span>
      <span className="text-quiet">
        <WallTime atMs={of.madeAtMs} />
      </span>
    </li>
  );
}

interface RecipientListProps {
  readonly recipients: readonly ShownRecipient[];
  readonly pause: (id: string, paused: boolean) => Promise<string | null>;
  readonly remove: (id: string) => Promise<string | null>;
  readonly tryIt: (id: string) => Promise<string | null>;
}

/** Who is told, and what became of the last messages. */
export function RecipientList({ recipients, pause, remove, tryIt }: RecipientListProps) {
  const { working, refused, does } = useActs();
  return (
    <div aria-busy={working}>
      <RefusedNote refused={refused} />
      <ul>
        {recipients.map((each) => {
          const { id, target, kind, ofAll, paused, digest, quiet, deliveries } = each;
          const [newest] = deliveries;
          return (
            <li key={id} aria-label={target} className="border-t border-hairline py-2">
              <div className="flex flex-wrap items-baseline gap-x-4">
                <span className={`min-w-0 break-all font-medium ${paused ? 'text-quiet' : ''}`}>{target}</span>
                <span className="text-sm text-quiet">
                  {kind === 'mail' ? 'by mail' : 'by webhook'}, of {ofAll ? 'all offices' : 'this office'}
                  {digest && ', and the week'}
                  {quiet !== null && `, quiet from ${clock(quiet.fromMinute)} to ${clock(quiet.untilMinute)}`}
                  {paused && '; paused'}
                </span>
                <span className="ml-auto flex gap-3">
                  <Button
                    look="quiet"
                    className="!min-h-8 !px-1 text-sm"
                    disabled={working}
                    onClick={does(() => tryIt(id))}
                  >
                    Try it
                  </Button>
                  <Button
                    look="quiet"
                    className="!min-h-8 !px-1 text-sm"
                    disabled={working}
                    onClick={does(() => pause(id, !paused))}
                  >
                    {paused ? 'Take it up again' : 'Pause'}
                  </Button>
                  <Confirm
                    trigger={
                      <Button look="quiet" className="!min-h-8 !px-1 text-sm" disabled={working}>
                        Remove
                      </Button>
                    }
                    title={`Tell ${target} nothing any more?`}
                    consequence="What was told there, and whether it arrived, is forgotten."
                    action="Remove"
                    onConfirm={does(() => remove(id))}
                  />
                </span>
              </div>
              {newest === undefined ? (
                <p className="text-sm text-quiet">Nothing was told yet.</p>
              ) : (
                <ul className="text-sm">
                  <DeliveryLine of={newest} />
                </ul>
              )}
              {deliveries.length > 1 && (
                <details className="text-sm">
                  <summary className="text-quiet">What was told before</summary>
                  <ul>
                    {deliveries.slice(1).map((delivery) => (
                      <DeliveryLine key={delivery.id} of={delivery} />
                    ))}
                  </ul>
                </details>
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
