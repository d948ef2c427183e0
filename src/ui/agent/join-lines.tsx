'use client';

import { CopyText } from '../parts/copy-text';
import { AGENT_FILE, fetchLineOf } from './fetch-line';

interface JoinLinesProps {
  /** An address of this console that other machines reach. */
  readonly origin: string;
  readonly code: string;
}

/** What to type on a machine that is to stand by. */
export function JoinLines({ origin, code }: JoinLinesProps) {
  const lines = [fetchLineOf(origin), `node ${AGENT_FILE} join ${origin}/j/${code} --name "attic box"`];
  const withoutCurl = `node -e "fetch('${origin}/agent.mjs').then(a=>a.text()).then(t=>require('fs').writeFileSync('${AGENT_FILE}',t))"`;
  return (
    <div className="max-w-[56rem]">
      <ol className="grid gap-1.5">
        {lines.map((line) => (
          <li key={line} className="flex items-center gap-3 border border-hairline bg-sheet px-3 py-1.5">
            <code className="figure min-w-0 flex-1 break-all text-[0.85rem]">{line}</code>
            <CopyText text={line} />
          </li>
        ))}
      </ol>
      <p className="mt-2 text-sm">
        The machine needs Node 20 or newer and nothing else. It appears above as soon as it has joined, and stands by
        until it is stopped.
      </p>
      <details className="mt-1 text-sm">
        <summary>So that it goes on by itself, and where there is no curl</summary>
        <p className="mt-1">
          With systemd, as root: a service of its own that starts with the machine, may write nothing but its own state,
          and takes what was measured with it.
        </p>
        <code className="figure mt-1 block break-all border border-hairline bg-sheet px-3 py-1.5 text-[0.85rem]">
          sudo node {AGENT_FILE} unit --install
        </code>
        <p className="mt-2">Instead of the first line, with Node alone:</p>
        <code className="figure mt-1 block break-all border border-hairline bg-sheet px-3 py-1.5 text-[0.85rem]">
          {withoutCurl}
        </code>
      </details>
    </div>
  );
}
