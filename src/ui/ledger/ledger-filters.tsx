'use client';

import { useRouter } from 'next/navigation';
import { LINK_KINDS, linkKindWords, REACHES } from '@/core';
import type { Ledger } from '@/services';
import { NarrowChoice } from '../parts/narrow-choice';
import { NarrowText } from '../parts/narrow-text';
import { ledgerHref, type LedgerChoice } from './ledger-href';
import { LEDGER_SPANS, SPAN_WORDS, type LedgerSpan } from './ledger-span';

/** Goes to the browser: the ledger's runs are not among it. */
interface LedgerFiltersProps extends Pick<Ledger, 'devices' | 'total' | 'filtered'> {
  readonly chosen: LedgerChoice;
}

/** Narrows the ledger by device, link and reach. A plain form, so that it works before any script has loaded. */
export function LedgerFilters({ devices, total, filtered, chosen }: LedgerFiltersProps) {
  const router = useRouter();
  const go = (change: Partial<Record<keyof LedgerChoice, string>>) => {
    router.push(ledgerHref({ ...chosen, ...change, older: undefined, newer: undefined } as LedgerChoice));
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
      <NarrowChoice
        name="span"
        label="when"
        value={chosen.span}
        options={(Object.keys(LEDGER_SPANS) as LedgerSpan[]).map((span) => [span, SPAN_WORDS[span]])}
        onChoose={(span) => go({ span })}
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
