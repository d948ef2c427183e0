'use client';

import { useRouter } from 'next/navigation';
import { LINK_KINDS, linkKindWords, REACHES } from '@/core';
import type { Ledger, LedgerQuery } from '@/services';
import { NarrowChoice } from '../parts/narrow-choice';
import { NarrowText } from '../parts/narrow-text';
import { ledgerHref } from './ledger-href';

/** Goes to the browser: the ledger's runs are not among it. */
interface LedgerFiltersProps extends Pick<Ledger, 'devices' | 'total' | 'filtered'> {
  readonly chosen: LedgerQuery;
}

/** Narrows the ledger by device, link and reach. A plain form, so that it works before any script has loaded. */
export function LedgerFilters({ devices, total, filtered, chosen }: LedgerFiltersProps) {
  const router = useRouter();
  const go = (change: Partial<Record<keyof LedgerQuery, string>>) => {
    router.push(ledgerHref({ ...chosen, ...change, page: undefined } as LedgerQuery));
  };
  return (
    <form action="/ledger" className="flex flex-wrap items-end gap-x-6 gap-y-1">
      <NarrowText name="text" label="name, spot or peer" value={chosen.text} onText={(text) => go({ text })} />
      <NarrowChoice
        name="device"
        label="device"
        value={chosen.deviceId}
        options={devices.map(({ id, name }) => [id, name.length > 40 ? `${name.slice(0, 39)}…` : name])}
        onChoose={(deviceId) => go({ deviceId })}
      />
      <NarrowChoice
        name="link"
        label="link"
        value={chosen.linkKind}
        options={LINK_KINDS.map((kind) => [kind, linkKindWords(kind)])}
        onChoose={(linkKind) => go({ linkKind })}
      />
      <NarrowChoice
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
        {total} {total === 1 ? 'run' : 'runs'}
        {filtered && ' match'}
      </span>
    </form>
  );
}
