import { decidingWords, type RunReport, type SuitabilityWord, type Use } from '@/core';

const USE_WORDS: Record<Use, string> = {
  voice: 'voice call',
  meeting: 'video meeting',
  'remote-desktop': 'remote desktop',
  music: 'playing music together',
  streaming: '4K streaming',
  backup: 'backup to outside',
};

const TONE: Record<SuitabilityWord, string> = {
  fine: 'text-ink',
  strained: 'font-medium text-thin-words',
  'not usable': 'font-medium text-starved',
};

/** What this path would feel like while it is loaded, each with the figure that decides. */
export function RunSuitability({ report: { suitability } }: { readonly report: RunReport }) {
  if (suitability.length === 0) return null;
  return (
    <section aria-label="Suitability">
      <h2 className="mb-2 font-semibold">What it would feel like under load</h2>
      <dl className="text-[0.9rem]">
        {suitability.map(({ use, word, because }) => (
          <div key={use} className="grid grid-cols-[10.5rem_5.5rem_1fr] gap-x-2 border-b border-hairline py-1">
            <dt className="text-quiet">{USE_WORDS[use]}</dt>
            <dd className={TONE[word]}>{word}</dd>
            <dd className="text-quiet">{decidingWords(because)}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
