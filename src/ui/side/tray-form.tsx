'use client';

import { useState, useTransition, type FormEvent } from 'react';
import type { KnownValues } from '@/core';
import { Button } from '../parts/button';
import { LedgerField } from '../ledger/ledger-field';
import { SIDE_RULES, type SideRule, type TypedTray } from './side-rules';

interface TrayFormProps {
  readonly trays: readonly TypedTray[];
  readonly name: string;
  readonly known: KnownValues;
  readonly does: string;
  /** Answers with what stands in the way, or null. */
  readonly submit: (name: string, trays: readonly TypedTray[]) => Promise<string | null>;
}

const [LEAST, MOST] = [2, 8];
const EMPTY: TypedTray = { name: '', query: '', runIds: null };

/** What is held against what: each tray by what is typed, as in the ledger; or all of them by a rule. */
export function TrayForm({ trays: first, name: firstName, known, does, submit }: TrayFormProps) {
  const [trays, setTrays] = useState<readonly TypedTray[]>(first);
  const [name, setName] = useState(firstName);
  const [refused, setRefused] = useState<string | null>(null);
  const [working, start] = useTransition();
  const change = (place: number, tray: Partial<TypedTray>) =>
    setTrays((before) => before.map((each, index) => (index === place ? { ...each, ...tray } : each)));
  const byRule = (rule: SideRule) => {
    const made = rule.trays(known);
    if (made.length >= LEAST) setTrays(made.slice(0, MOST));
    else setRefused(rule.wants);
  };
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    start(async () => setRefused(await submit(name, trays)));
  };
  return (
    <form onSubmit={onSubmit} className="max-w-[60rem]" aria-label="Trays">
      <p className="flex flex-wrap items-baseline gap-x-2 gap-y-1 text-sm">
        <span className="text-quiet">by a rule:</span>
        {SIDE_RULES.map((rule) => (
          <Button key={rule.words} look="quiet" className="!min-h-8 !px-1 text-sm" onClick={() => byRule(rule)}>
            {rule.words}
          </Button>
        ))}
      </p>
      <ol className="mt-2 space-y-1">
        {trays.map((tray, place) => (
          <li key={place} className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <span className="w-4 font-semibold">{String.fromCharCode(65 + place)}</span>
            <input
              aria-label={`Name of tray ${String.fromCharCode(65 + place)}`}
              placeholder="by what differs"
              maxLength={80}
              value={tray.name}
              onChange={(event) => change(place, { name: event.target.value })}
              className="field !min-h-9 !w-48 !py-0 text-sm"
            />
            <LedgerField
              label={`Runs of tray ${String.fromCharCode(65 + place)}`}
              placeholder="as in the ledger: device=… link=wired from=12.11."
              value={tray.query}
              known={known}
              onQuery={(query) => change(place, { query })}
            />
            {tray.runIds !== null && <span className="text-sm text-quiet">{tray.runIds.length} chosen by hand</span>}
            {trays.length > LEAST && (
              <Button
                look="quiet"
                className="!min-h-8 !px-1 text-sm"
                aria-label={`Take tray ${String.fromCharCode(65 + place)} away`}
                onClick={() => setTrays((before) => before.filter((_, index) => index !== place))}
              >
                take away
              </Button>
            )}
          </li>
        ))}
      </ol>
      <div className="mt-3 flex flex-wrap items-center gap-3">
        {trays.length < MOST && (
          <Button className="!min-h-9 text-sm" onClick={() => setTrays((before) => [...before, EMPTY])}>
            One more tray
          </Button>
        )}
        <input
          aria-label="Name of the comparison"
          placeholder="name, so that it is found again"
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.target.value)}
          className="field !min-h-9 !w-72 !py-0 text-sm"
        />
        <Button type="submit" look="main" disabled={working}>
          {does}
        </Button>
      </div>
      {refused !== null && (
        <p role="alert" className="mt-2 font-medium text-starved">
          {refused}
        </p>
      )}
    </form>
  );
}
