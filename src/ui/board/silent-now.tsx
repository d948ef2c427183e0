import type { OpenOutage } from '@/services';
import { WallTime } from '../parts/wall-time';
import { Link } from '../parts/link';

const titled = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** What is silent just now, above all else that a board has to say. */
export function SilentNow({ silent }: { readonly silent: readonly OpenOutage[] }) {
  if (silent.length === 0) return null;
  return (
    <section aria-label="Silent now" role="status" className="mb-3 border-l-4 border-starved pl-3">
      {silent.map(({ id, fromMs, sentence }) => (
        <p key={id}>
          <span className="font-semibold text-starved">
            Silent since <WallTime atMs={fromMs} />:
          </span>{' '}
          {titled(sentence)}.{' '}
          <Link href="/watch" className="underline underline-offset-4">
            watch it
          </Link>
        </p>
      ))}
    </section>
  );
}
