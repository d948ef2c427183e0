import type { ReactNode } from 'react';
import type { JoinFacts } from '../board/join-slip';
import { Button } from '../parts/button';
import { WallTime } from '../parts/wall-time';
import { Section } from './section';

interface JoinSectionProps {
  readonly join: JoinFacts;
  readonly renewCode: () => Promise<void>;
  /** Whether other devices can reach it; comes later than the rest. */
  readonly reachability: ReactNode;
}

/** The address in letters that can be read out across a room, the code, and the same to scan. */
export function JoinSection({ join, renewCode, reachability }: JoinSectionProps) {
  const [first, ...others] = join.addresses;
  return (
    <Section title="Join a device" hint="Nothing to install: open the address in the device’s browser, or scan.">
      <div className="flex flex-wrap items-start gap-x-8 gap-y-4">
        <div className="w-36 shrink-0 bg-[#fffdf8]" dangerouslySetInnerHTML={{ __html: join.qrSvg }} />
        <div className="min-w-0 flex-1">
          <p className="figure break-all text-2xl leading-snug" aria-label="address to open">
            {first}
          </p>
          {others.map((address) => (
            <p key={address} className="figure break-all text-quiet">
              or {address}
            </p>
          ))}
          <p className="mt-3 text-quiet">
            code <span className="figure text-2xl tracking-[0.08em] text-ink">{join.code}</span>, until{' '}
            <WallTime atMs={join.untilMs} />. Devices that have joined stay.
          </p>
          <form action={renewCode}>
            <Button type="submit" look="quiet" className="!px-0 text-sm">
              Make a new code; the old one stops at once
            </Button>
          </form>
        </div>
      </div>
      <p className="mt-2 text-sm text-quiet">
        <a href="/labels" className="text-ink underline underline-offset-4">
          Labels to print
        </a>{' '}
        let whoever finds it slow say so at once, with a measurement.
      </p>
      <div className="mt-3">{reachability}</div>
    </Section>
  );
}
