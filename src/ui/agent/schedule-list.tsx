'use client';

import type { ShownSchedule } from '@/services';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';
import { useActs } from '../parts/use-acts';
import { Confirm } from '../parts/confirm';
import { WallTime } from '../parts/wall-time';
import { volumeWords } from './schedule-volume';
import { WeekOfTimes } from './week-of-times';

interface ScheduleListProps {
  readonly schedules: readonly ShownSchedule[];
  readonly pause: (id: string, paused: boolean) => Promise<string | null>;
  readonly remove: (id: string) => Promise<string | null>;
}

function Outcome({ of }: { readonly of: ShownSchedule }) {
  if (of.made + of.missed === 0)
    return <p className="text-sm text-quiet">No time of it has come in the last seven days.</p>;
  if (of.missed === 0) return <p className="text-sm text-quiet">Last seven days: all {of.made} made.</p>;
  return (
    <details className="text-sm">
      <summary>
        Last seven days: {of.made} made, {of.missed} missed
      </summary>
      <ul className="mt-1">
        {of.missedTimes.map(({ dueAtMs, deviceName, reach, why }) => (
          <li key={`${dueAtMs} ${deviceName} ${reach}`} className="border-t border-hairline py-0.5">
            <WallTime atMs={dueAtMs} />, {deviceName}, {reach}: {why}
          </li>
        ))}
      </ul>
      {of.missed > of.missedTimes.length && (
        <p className="text-quiet">… and {of.missed - of.missedTimes.length} before.</p>
      )}
    </details>
  );
}

/** The schedules that are kept, each with its week and what became of it. */
export function ScheduleList({ schedules, pause, remove }: ScheduleListProps) {
  const { working, refused, does } = useActs();
  return (
    <div aria-busy={working}>
      <RefusedNote refused={refused} />
      <ul>
        {schedules.map((of) => (
          <li key={of.id} className="grid gap-x-8 gap-y-2 border-t border-hairline py-3 lg:grid-cols-[1fr_30rem]">
            <div className="min-w-0">
              <p className={`break-words font-medium ${of.paused ? 'text-quiet' : ''}`}>
                {of.words.replace(/^./, (letter) => letter.toUpperCase())}
              </p>
              <p className="break-words text-sm">
                For {of.who}. {volumeWords(of, of.devices.join() !== of.who)}
              </p>
              <p className="text-sm text-quiet">
                {of.paused ? (
                  'Paused.'
                ) : of.nextAtMs === null ? (
                  'No time in the next days.'
                ) : (
                  <>
                    Next: <WallTime atMs={of.nextAtMs} />
                    {of.spreadMinutes > 0 && `, spread over ${of.spreadMinutes} minutes`}.
                  </>
                )}{' '}
                Made by {of.byName}.
              </p>
              <Outcome of={of} />
              <div className="mt-1 flex gap-3">
                <Button className="!min-h-8 text-sm" disabled={working} onClick={does(() => pause(of.id, !of.paused))}>
                  {of.paused ? 'Take it up again' : 'Pause'}
                </Button>
                <Confirm
                  trigger={
                    <Button look="quiet" className="!min-h-8 !px-1 text-sm" disabled={working}>
                      Remove
                    </Button>
                  }
                  title="Remove this schedule?"
                  consequence="Nothing is measured by it any more, and what became of its times is forgotten. Its runs stay."
                  action="Remove it"
                  onConfirm={does(() => remove(of.id))}
                />
              </div>
            </div>
            <WeekOfTimes days={of.days} minutes={of.minutes} label={`The week of the schedule: ${of.words}`} />
          </li>
        ))}
      </ul>
    </div>
  );
}
