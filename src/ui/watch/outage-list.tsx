import { FAULT_NAMES, outageLength } from '@/core';
import type { ShownOutage } from '@/services';

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
          <button
            type="button"
            onClick={() => onShow(outage)}
            className="figure whitespace-nowrap text-left text-[0.85rem] underline decoration-hairline underline-offset-4 hover:decoration-ink"
          >
            {when.format(outage.fromMs)}
          </button>
          , {outageLength(outage.fromMs, outage.untilMs, nowMs)}:{' '}
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
