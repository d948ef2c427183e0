'use client';

import { useRouter } from 'next/navigation';
import { useTransition } from 'react';
import { BLOAT_RATINGS, LINK_KINDS, linkKindWords, REACHES, VERDICT_WORDS } from '@/core';
import type { Board, BoardAge, BoardFilter } from '@/services';
import { NarrowChoice } from '../parts/narrow-choice';
import { NarrowText } from '../parts/narrow-text';
import { boardHref } from './board-href';
import { Link } from '../parts/link';

const AGE_WORDS: readonly (readonly [BoardAge, string])[] = [
  ['day', 'within a day'],
  ['week', 'within a week'],
  ['older', 'older'],
];

interface BoardFiltersProps {
  readonly spots: Board['spots'];
  readonly columns: Board['allColumns'];
  readonly chosen: BoardFilter;
}

/** Narrows the board: by name, spot, link, reach, verdict, age. A plain form, so that it works before any script. */
export function BoardFilters({ spots, columns, chosen }: BoardFiltersProps) {
  const router = useRouter();
  const [, startTransition] = useTransition();
  const go = (change: Partial<Record<keyof BoardFilter, string>>) => {
    const next = { ...chosen, ...change } as BoardFilter;
    startTransition(() => router.replace(boardHref(next), { scroll: false }));
  };
  const has = (pick: 'linkKind' | 'reach') => new Set<string>(columns.map((column) => column[pick]));
  const narrowed = Object.values(chosen).some((value) => value !== undefined && value !== '');
  return (
    <form
      action="/"
      aria-label="Narrow the board"
      className="flex items-end gap-x-3 [&_input]:!w-20 [&_select]:max-w-[5.2rem]"
    >
      {chosen.segment !== undefined && <input type="hidden" name="segment" value={chosen.segment} />}
      <NarrowText name="text" label="name or spot" value={chosen.text} onText={(text) => go({ text })} />
      {spots.length > 1 && (
        <NarrowChoice
          name="spot"
          label="spot"
          value={chosen.spot}
          options={spots.map((spot) => [spot, spot])}
          onChoose={(spot) => go({ spot })}
        />
      )}
      <NarrowChoice
        name="link"
        label="link"
        value={chosen.linkKind}
        options={LINK_KINDS.filter((kind) => has('linkKind').has(kind)).map((kind) => [kind, linkKindWords(kind)])}
        onChoose={(linkKind) => go({ linkKind })}
      />
      <NarrowChoice
        name="reach"
        label="reach"
        value={chosen.reach}
        options={REACHES.filter((reach) => has('reach').has(reach)).map((reach) => [reach, reach])}
        onChoose={(reach) => go({ reach })}
      />
      <NarrowChoice
        name="verdict"
        label="verdict"
        value={chosen.verdict}
        options={VERDICT_WORDS.map((word) => [word, word])}
        onChoose={(verdict) => go({ verdict })}
      />
      <NarrowChoice
        name="delay"
        label="delay"
        value={chosen.rating}
        options={BLOAT_RATINGS.map((word) => [word, word])}
        onChoose={(rating) => go({ rating })}
      />
      <NarrowChoice name="age" label="age" value={chosen.age} options={AGE_WORDS} onChoose={(age) => go({ age })} />
      {narrowed && (
        <Link href="/" className="pb-1 text-sm underline decoration-hairline underline-offset-4 hover:decoration-ink">
          show all
        </Link>
      )}
    </form>
  );
}
