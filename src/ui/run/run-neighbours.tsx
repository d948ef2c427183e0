import type { RunPage } from '@/services';
import { Link } from '../parts/link';

/** The runs of the same device and reach just before and after this one. */
export function RunNeighbours({ before, after }: RunPage['neighbours']) {
  const ways = [
    [before, 'the one before'],
    [after, 'the one after'],
  ] as const;
  return (
    <nav aria-label="Neighbouring runs" className="flex gap-4 text-sm print:hidden">
      {ways.map(
        ([run, words]) =>
          run !== null && (
            <Link
              key={words}
              href={`/runs/${run.id}`}
              className="underline decoration-hairline underline-offset-4 hover:decoration-ink"
            >
              {words}
            </Link>
          ),
      )}
    </nav>
  );
}
