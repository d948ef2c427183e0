'use client';

import { Popover, PopoverAt } from '../parts/popover';
import { WallTime } from '../parts/wall-time';

/** How another device gets here: addresses to read out, the code, and the same as a picture to scan. */
export interface JoinFacts {
  readonly addresses: readonly string[];
  readonly code: string;
  readonly untilMs: number;
  /** QR code of the first address, as SVG made by the server. */
  readonly qrSvg: string;
}

interface HowToJoinProps {
  readonly join: JoinFacts;
  readonly wanted?: string;
}

function HowToJoin({ join, wanted = 'Open this on the device to be tested' }: HowToJoinProps) {
  const [first, ...others] = join.addresses;
  return (
    <>
      <p className="pr-6 font-semibold">{wanted}</p>
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
    </>
  );
}

const LABEL = 'Join a device';

export function JoinSlip({ join, trigger }: { readonly join: JoinFacts; readonly trigger: React.ReactNode }) {
  return (
    <Popover trigger={trigger} label={LABEL}>
      <HowToJoin join={join} />
    </Popover>
  );
}

/** An empty place of the board that was pressed. */
export interface WantedPlace {
  readonly pressed: HTMLElement;
  /** The device and the column. */
  readonly place: string;
}

interface JoinSlipAtProps {
  readonly join: JoinFacts;
  readonly wanted: WantedPlace;
  readonly onClose: () => void;
}

/** The same beside an empty place, saying what is wanted there. */
export function JoinSlipAt({ join, wanted: { pressed, place }, onClose }: JoinSlipAtProps) {
  return (
    <PopoverAt pressed={pressed} places={'[aria-haspopup="dialog"].empty-cell'} label={LABEL} onClose={onClose}>
      <HowToJoin join={join} wanted={`Nothing measured yet: ${place}. Open this there, and run.`} />
    </PopoverAt>
  );
}
