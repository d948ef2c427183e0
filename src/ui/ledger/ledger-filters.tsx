'use client';

import { useRouter } from 'next/navigation';
import { LINK_KINDS, linkKindWords, REACHES } from '@/core';
import type { Ledger, LedgerQuery } from '@/services';
import { ledgerHref } from './ledger-href';

interface LedgerFiltersProps {
  readonly ledger: Pick<Ledger, 'devices' | 'total' | 'filtered'>;
  readonly chosen: LedgerQuery;
}

interface ChoiceProps {
  readonly name: string;
  readonly label: string;
  readonly value: string | undefined;
  readonly options: readonly (readonly [string, string])[];
  readonly onChoose: (value: string) => void;
}

function Choice({ name, label, value, options, onChoose }: ChoiceProps) {
  return (
    <label className="text-sm text-quiet">
      {label}
      <select
        name={name}
        defaultValue={value ?? ''}
        onChange={(event) => onChoose(event.target.value)}
        className="field ml-2 !min-h-8 !w-auto !py-0"
      >
        <option value="">any</option>
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Narrows the ledger by device, link and reach. A plain form, so that it works before any script has loaded. */
export function LedgerFilters({ ledger, chosen }: LedgerFiltersProps) {
  const router = useRouter();
  const go = (change: Partial<Record<keyof LedgerQuery, string>>) => {
    router.push(ledgerHref({ ...chosen, ...change, page: undefined } as LedgerQuery));
  };
  return (
    <form action="/ledger" className="flex flex-wrap items-end gap-x-6 gap-y-1">
      <Choice
        name="device"
        label="device"
        value={chosen.deviceId}
        options={ledger.devices.map(({ id, name }) => [id, name.length > 40 ? `${name.slice(0, 39)}…` : name])}
        onChoose={(deviceId) => go({ deviceId })}
      />
      <Choice
        name="link"
        label="link"
        value={chosen.linkKind}
        options={LINK_KINDS.map((kind) => [kind, linkKindWords(kind)])}
        onChoose={(linkKind) => go({ linkKind })}
      />
      <Choice
        name="reach"
        label="reach"
        value={chosen.reach}
        options={REACHES.map((reach) => [reach, reach])}
        onChoose={(reach) => go({ reach })}
      />
      <noscript>
        <button type="submit">narrow</button>
      </noscript>
      <span className="text-sm text-quiet" role="status">
        {ledger.total} {ledger.total === 1 ? 'run' : 'runs'}
        {ledger.filtered && ' match'}
      </span>
    </form>
  );
}
