import { FAULT_NAMES, outageLength } from '@/core';
import type { ShownOutage } from '@/services';
import { MomentButton } from './moment-button';

interface OutageListProps {
  readonly outages: readonly ShownOutage[];
  readonly timeZone: string;
  readonly nowMs: number;
  /** Shows the time around it. */
  readonly onShow: (outage: ShownOutage) => void;
}

/** What was silent, when, for how long and whose fault it was, the newest first. */
export function OutageList({ outages, timeZone, nowMs, onShow }: OutageListProps) {
  const when = new Intl.DateTimeFormat('en-GB', {
    ...{ timeZone, weekday: 'short', day: '2-digit', month: 'short' },
    ...{ hour: '2-digit', minute: '2-digit', second: '2-digit' },
  });
  return (
    <ul>
      {outages.map((outage) => (
        <li key={outage.id} className="border-t border-hairline py-1.5">
          <MomentButton onClick={() => onShow(outage)}>{when.format(outage.fromMs)}</MomentButton>,{' '}
          {outageLength(outage.fromMs, outage.untilMs, nowMs)}:{' '}
          <span
            className={
              outage.fault === 'line' || outage.fault === 'line-or-theirs' ? 'font-medium text-starved' : 'font-medium'
            }
          >
            {FAULT_NAMES[outage.fault]}
          </span>
          <span className="block break-words text-sm text-quiet">
            {outage.sentence}; seen by {outage.deviceName}
          </span>
        </li>
      ))}
    </ul>
  );
}
