import type { BackupsShown } from '@/services';
import { Button } from '../parts/button';
import { WallTime } from '../parts/wall-time';
import { Section } from './section';

interface CopiesSectionProps {
  readonly copies: BackupsShown;
  readonly make: () => Promise<void>;
}

/** The data folder, as far as a copy in it tells: commands that lack it would look into another one. */
function dataFolderOf(newest: BackupsShown['newest']): string {
  return newest?.folder.replace(/[\\/]backups[\\/][^\\/]+$/, '') ?? 'DATA-FOLDER';
}

/** Where the newest copy of everything lies, what kept the last one from being made, and the way to make one now. */
export function CopiesSection({ copies: { newest, count, trouble }, make }: CopiesSectionProps) {
  const data = dataFolderOf(newest);
  return (
    <Section title="Copies" hint="A copy of everything is made each night, and seven of them are kept.">
      {newest === null ? (
        <p>There is no copy yet.</p>
      ) : (
        <>
          <p>
            The newest of {count} is of <WallTime atMs={newest.madeAtMs} />, with {newest.runs} runs:
          </p>
          <p className="figure mt-1 break-all text-[0.8rem] select-all">{newest.folder}</p>
        </>
      )}
      {trouble !== null && (
        <p role="alert" className="mt-2 border-l-[3px] border-starved pl-4">
          The copy of <WallTime atMs={trouble.atMs} /> could not be made: {trouble.why}
        </p>
      )}
      <form action={make} className="mt-3">
        <Button type="submit">Make a copy now</Button>
      </form>
      <p className="mt-2 text-sm text-quiet">
        It lies on this machine: take one elsewhere now and then with{' '}
        <span className="figure break-all text-[0.8rem] text-ink">npm run backup -- FOLDER --data {data}</span>, and put
        one back with{' '}
        <span className="figure break-all text-[0.8rem] text-ink">npm run restore -- FOLDER --data {data}</span>.
      </p>
    </Section>
  );
}
