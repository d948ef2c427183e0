import { durationWords, FAULT_NAMES } from '@/core';
import type { ShownMachine, ShownSlowTime } from '@/services';
import { MomentButton } from './moment-button';

const BECAUSE = {
  busy: '; the line was busy then, as its router counts it',
  soak: '; a soak of ours filled it then',
} as const;

interface SlowListProps {
  readonly slow: readonly ShownSlowTime[];
  readonly machines: readonly Pick<ShownMachine, 'deviceId' | 'name'>[];
  readonly timeZone: string;
  /** "the last hour". */
  readonly span: string;
  /** Shows the time around it. */
  readonly onShow: (slow: ShownSlowTime) => void;
}

/** What answered late, when, for how long and whose fault it was, the newest first. */
export function SlowList({ slow, machines, timeZone, span, onShow }: SlowListProps) {
  if (slow.length === 0) return <p className="text-quiet">Nothing that is more than usual, {span}.</p>;
  const when = new Intl.DateTimeFormat('en-GB', {
    ...{ timeZone, weekday: 'short', day: '2-digit', month: 'short', hour: '2-digit', minute: '2-digit' },
  });
  const seenBy = (deviceId: string) => machines.find((machine) => machine.deviceId === deviceId)?.name ?? 'a machine';
  return (
    <ul>
      {slow.map((each) => (
        <li key={`${each.deviceId} ${each.fromMs} ${each.laneIds.join()}`} className="border-t border-hairline py-1.5">
          <MomentButton onClick={() => onShow(each)}>{when.format(each.fromMs)}</MomentButton>,{' '}
          {durationWords((each.untilMs - each.fromMs) / 1000)}:{' '}
          <span
            className={`font-medium ${each.because === null && (each.fault === 'line' || each.fault === 'line-or-theirs') ? 'text-starved' : ''}`}
          >
            {FAULT_NAMES[each.fault]}
          </span>
          <span className="block break-words text-sm text-quiet">
            {each.sentence}
            {each.because !== null && BECAUSE[each.because]}; seen by {seenBy(each.deviceId)}
          </span>
        </li>
      ))}
    </ul>
  );
}
