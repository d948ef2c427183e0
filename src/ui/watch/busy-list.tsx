import { outageLength } from '@/core';
import type { ShownMachine, WatchedSpan } from '@/services';
import { MomentButton } from './moment-button';

type Busy = WatchedSpan['busy'][number];

interface BusyListProps {
  readonly busy: readonly Busy[];
  readonly machines: readonly Pick<ShownMachine, 'lanes'>[];
  readonly timeZone: string;
  readonly nowMs: number;
  /** "over 24 h". */
  readonly span: string;
  /** Shows the time around it. */
  readonly onShow: (busy: Busy) => void;
}

/** When the line was busy and who made it so, the newest first. */
export function BusyList({ busy, machines, timeZone, nowMs, span, onShow }: BusyListProps) {
  const isRead = machines.some(({ lanes }) => lanes.some(({ role, asked }) => role === 'line' && asked));
  const when = new Intl.DateTimeFormat('en-GB', {
    ...{ timeZone, weekday: 'short', day: '2-digit', month: 'short', hour: '2-digit', minute: '2-digit' },
  });
  if (busy.length === 0)
    return isRead ? (
      <p className="text-quiet">Never by half of the plan, {span}.</p>
    ) : (
      <p className="text-quiet">
        Nobody reads the router’s counters. <a href="/look">Look</a> at the line’s own counters, and keep watching them.
      </p>
    );
  return (
    <ul>
      {busy.map((each) => (
        <li key={`${each.deviceId} ${each.fromMs} ${each.sentence}`} className="border-t border-hairline py-1.5">
          <MomentButton onClick={() => onShow(each)}>{when.format(each.fromMs)}</MomentButton>,{' '}
          {outageLength(each.fromMs, each.untilMs, nowMs)}
          <span className="block break-words text-sm text-quiet">{each.sentence}</span>
        </li>
      ))}
    </ul>
  );
}
