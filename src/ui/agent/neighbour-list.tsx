'use client';

import { countWords } from '@/core';
import type { ShownNeighbour } from '@/services';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';
import { useActs } from '../parts/use-acts';
import { WallTime } from '../parts/wall-time';

interface NeighbourListProps {
  readonly neighbours: readonly ShownNeighbour[];
  readonly known: () => Promise<string | null>;
}

function Row({ of }: { readonly of: ShownNeighbour }) {
  return (
    <tr className="border-t border-hairline align-baseline">
      <td className="figure whitespace-nowrap py-1 pr-5 text-[0.8rem]">{of.address}</td>
      <td className="min-w-0 break-words py-1 pr-5">
        {of.agentName ?? of.name ?? <span className="text-quiet">no name</span>}
        {of.agentName !== null && <span className="text-quiet">, an agent of ours</span>}
      </td>
      <td className="min-w-0 break-words py-1 pr-5 text-quiet">
        {of.maker ?? (of.madeUp ? 'made up by the device' : 'maker not known')}
      </td>
      <td className="figure whitespace-nowrap py-1 pr-5 text-[0.8rem] text-quiet">{of.mac}</td>
      <td className="whitespace-nowrap py-1 text-quiet">
        <WallTime atMs={of.firstAtMs} /> to <WallTime atMs={of.lastAtMs} />
      </td>
    </tr>
  );
}

function Table({ of, label }: { readonly of: readonly ShownNeighbour[]; readonly label: string }) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full max-w-[62rem] text-sm" aria-label={label}>
        <tbody>
          {of.map((each) => (
            <Row key={each.mac} of={each} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Whom the agents have heard in the last week: those whom nobody knows yet first. */
export function NeighbourList({ neighbours, known }: NeighbourListProps) {
  const { working, refused, does } = useActs();
  const fresh = neighbours.filter((each) => each.fresh);
  const others = neighbours.filter((each) => !each.fresh);
  return (
    <div aria-busy={working}>
      <p className="text-sm text-quiet">
        {countWords(neighbours.length, 'other')} heard by the agents in the last seven days
        {fresh.length === 0
          ? '; none of them is new.'
          : `; ${fresh.length} of them ${fresh.length === 1 ? 'is' : 'are'} new.`}
      </p>
      {fresh.length > 0 && (
        <>
          <Table of={fresh} label="New on the network" />
          <Button className="mt-2 !min-h-8 text-sm" disabled={working} onClick={does(known)}>
            I know {fresh.length === 1 ? 'it' : 'all of them'}
          </Button>
          <RefusedNote refused={refused} />
        </>
      )}
      {others.length > 0 && (
        <details className="mt-2">
          <summary className="text-sm">Those that are known</summary>
          <Table of={others} label="Known on the network" />
        </details>
      )}
    </div>
  );
}
