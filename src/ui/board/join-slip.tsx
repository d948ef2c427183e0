'use client';

import { Popover } from '../parts/popover';
import { WallTime } from '../parts/wall-time';

/** How another device gets here: addresses to read out, the code, and the same as a picture to scan. */
export interface JoinFacts {
  readonly addresses: readonly string[];
  readonly code: string;
  readonly untilMs: number;
  /** QR code of the first address, as SVG made by the server. */
  readonly qrSvg: string;
}

interface JoinSlipProps {
  readonly join: JoinFacts;
  readonly trigger: React.ReactNode;
  readonly wanted?: string;
}

export function JoinSlip({ join, trigger, wanted }: JoinSlipProps) {
  const [first, ...others] = join.addresses;
  return (
    <Popover trigger={trigger} label="Join a device">
      <p className="pr-6 font-semibold">{wanted ?? 'Open this on the device to be tested'}</p>
      <div className="my-3 w-44 bg-[#fffdf8]" dangerouslySetInnerHTML={{ __html: join.qrSvg }} />
      <p className="figure break-all text-sm">{first}</p>
      {others.map((address) => (
        <p key={address} className="figure break-all text-xs text-quiet">
          or {address}
        </p>
      ))}
      <p className="mt-2 text-sm text-quiet">
        code <span className="figure text-base text-ink">{join.code}</span>, until <WallTime atMs={join.untilMs} />
      </p>
    </Popover>
  );
}
