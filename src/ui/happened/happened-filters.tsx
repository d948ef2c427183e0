'use client';

import { useRouter } from 'next/navigation';
import { NarrowChoice } from '../parts/narrow-choice';
import { happenedHref } from './happened-href';
import { KIND_WORDS, type Kind } from './kinds';

interface HappenedFiltersProps {
  readonly names: readonly string[];
  readonly who: string | null;
  readonly kind: Kind | null;
}

/** Narrows what happened to one person or script, or one kind of thing. Works before any script has loaded. */
export function HappenedFilters({ names, who, kind }: HappenedFiltersProps) {
  const router = useRouter();
  const go = (change: { who?: string; kind?: string }) => {
    const chosen = { who: who ?? '', kind: kind ?? '', ...change };
    router.push(happenedHref({ who: chosen.who || null, kind: chosen.kind || null, before: null }));
  };
  return (
    <form action="/happened" className="mb-4 flex flex-wrap items-end gap-x-6 gap-y-1">
      <NarrowChoice
        name="who"
        label="who"
        value={who ?? undefined}
        options={names.map((name) => [name, name])}
        onChoose={(name) => go({ who: name })}
      />
      <NarrowChoice
        name="kind"
        label="what"
        value={kind ?? undefined}
        options={Object.entries(KIND_WORDS)}
        onChoose={(chosen) => go({ kind: chosen })}
      />
      <noscript>
        <button type="submit">narrow</button>
      </noscript>
    </form>
  );
}
