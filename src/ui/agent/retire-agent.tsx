'use client';

import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';
import { useActs } from '../parts/use-acts';
import { Confirm } from '../parts/confirm';

/** Lets a machine be an agent no more. */
export function RetireAgent({
  name,
  retire,
}: {
  readonly name: string;
  readonly retire: () => Promise<string | null>;
}) {
  const { working, refused, does } = useActs();
  return (
    <span aria-busy={working}>
      <Confirm
        trigger={
          <Button look="quiet" className="!min-h-0 !px-1 text-sm" disabled={working}>
            Retire
          </Button>
        }
        title={`Retire ${name}?`}
        consequence="It is sent away and measures no more, until it joins again. Its device and its runs stay."
        action="Retire it"
        onConfirm={does(retire)}
      />
      <RefusedNote refused={refused} />
    </span>
  );
}
