import type { ShownAlarm } from '@/services';
import { WallTime } from '../parts/wall-time';

/** What happened, the newest first; what goes on is told apart from what is over. */
export function AlarmList({ alarms }: { readonly alarms: readonly ShownAlarm[] }) {
  if (alarms.length === 0) return <p className="text-quiet">Nothing that one would have been told of.</p>;
  return (
    <ul>
      {alarms.map(({ id, sentence, beganAtMs, endedAtMs }) => (
        <li key={id} className="grid gap-x-4 border-t border-hairline py-1.5 md:grid-cols-[5.5rem_1fr_auto]">
          <span className={endedAtMs === null ? 'font-medium text-starved' : 'text-quiet'}>
            {endedAtMs === null ? 'goes on' : 'over'}
          </span>
          <span className={`min-w-0 break-words ${endedAtMs === null ? '' : 'text-quiet'}`}>{sentence}</span>
          <span className="text-sm text-quiet">
            <WallTime atMs={beganAtMs} />
            {endedAtMs !== null && (
              <>
                {' '}
                to <WallTime atMs={endedAtMs} />
              </>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}
