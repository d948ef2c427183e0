'use client';

import { useState, type FormEvent } from 'react';
import type { LedgerFrame } from '@/services';
import { Button } from '../parts/button';
import { typedIn } from '../form/typed-in';
import { Popover } from '../parts/popover';

interface LedgerViewsProps {
  readonly views: LedgerFrame['views'];
  readonly onChoose: (search: string) => void;
  /** Answers with what stands in the way, or null. */
  readonly save: (name: string) => Promise<string | null>;
  readonly remove: (name: string) => Promise<string | null>;
}

/** Ways to look at the ledger that somebody kept under a name. */
export function LedgerViews({ views, onChoose, save, remove }: LedgerViewsProps) {
  const [refused, setRefused] = useState<string | null>(null);
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    void save(typedIn(form, 'name')).then((stands) => {
      setRefused(stands);
      if (stands === null) form.reset();
    });
  };
  return (
    <Popover
      label="Views"
      trigger={
        <Button look="quiet" className="!min-h-9 !px-2 text-sm">
          views{views.length > 0 && <span className="figure text-xs"> {views.length}</span>}
        </Button>
      }
    >
      <ul className="min-w-60 space-y-1 pr-6">
        {views.length === 0 && <li className="text-sm text-quiet">None is kept yet.</li>}
        {views.map(({ name, query, byName }) => (
          <li key={name} className="flex items-baseline gap-3">
            <button
              type="button"
              className="min-w-0 flex-1 truncate text-left underline decoration-hairline underline-offset-4 hover:decoration-ink"
              title={`kept by ${byName}`}
              onClick={() => onChoose(query)}
            >
              {name}
            </button>
            <button
              type="button"
              className="text-xs text-quiet hover:text-ink hover:underline"
              aria-label={`Forget the view ${name}`}
              onClick={() => void remove(name).then(setRefused)}
            >
              forget
            </button>
          </li>
        ))}
      </ul>
      <form onSubmit={submit} className="mt-3 flex items-center gap-2 border-t border-hairline pt-3">
        <input
          name="name"
          required
          maxLength={60}
          aria-label="Name of the view"
          placeholder="keep this one as …"
          className="field !min-h-8 min-w-0 flex-1 !py-0 text-sm"
        />
        <Button type="submit" className="!min-h-8 text-sm">
          Keep
        </Button>
      </form>
      {refused !== null && (
        <p role="alert" className="mt-1 text-sm font-medium text-starved">
          {refused}
        </p>
      )}
    </Popover>
  );
}
