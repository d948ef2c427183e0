'use client';

import { useEffect, useState } from 'react';
import { availabilityWords, type PeerReach } from '@/core';
import type { ShownMachine, ShownOutage } from '@/services';
import { isTyping } from '../shell/console-keys';
import { LaneForm, type TypedLane } from './lane-form';
import { MarkList, type MarkActions } from './mark-list';
import { BusyList } from './busy-list';
import { SoakForm, type AskSoak } from './soak-form';
import { OutageList } from './outage-list';
import { SlowList } from './slow-list';
import { LIVE_UP_TO_MS, useWatch } from './use-watch';
import { WatchPicture } from './watch-picture';
import { endOf, LENGTHS, moved, spanWords, writeSpan, zoomed, type WatchSpan } from './watch-span';

const AROUND_MS = 4 * 60_000;
/** In which a soak fills the picture. */
const SOAK_SPAN_MS = 5 * 60_000;

interface WatchViewProps {
  readonly siteId: string;
  readonly timeZone: string;
  readonly nowMs: number;
  readonly begin: WatchSpan;
  readonly marks: MarkActions;
  readonly reaches: readonly PeerReach[];
  readonly askSoak: AskSoak;
  readonly addLane: (lane: TypedLane) => Promise<string | null>;
  readonly endLane: (laneId: string) => Promise<string | null>;
}

function stateWords({ state, isAgent }: Pick<ShownMachine, 'state' | 'isAgent'>): string {
  if (state === 'measures') return 'measures just now';
  if (state === 'stands-by') return 'stands by';
  return isAgent ? 'silent: what it keeps comes when it is back' : 'its page is closed';
}

/** An outage with some minutes on each side. */
function around({ fromMs, untilMs }: Pick<ShownOutage, 'fromMs' | 'untilMs'>, nowMs: number): WatchSpan {
  const until = untilMs ?? nowMs;
  const side = Math.max(AROUND_MS, until - fromMs);
  return { lengthMs: until - fromMs + 2 * side, untilMs: until + side >= nowMs ? null : until + side };
}

/** Lanes below each other, live; what was silent and whose fault it was; marks and what they did. */
export function WatchView(props: WatchViewProps) {
  const { siteId, timeZone, nowMs: serverNowMs, begin, marks, reaches, askSoak, addLane, endLane } = props;
  const [span, setSpan] = useState(begin);
  const { data, beats, live, nowMs, trouble, reload } = useWatch(siteId, span, serverNowMs);
  const untilMs = endOf(span, nowMs);
  // Of an office in which nothing is asked, nothing is said to be silent, slow or busy.
  const watched = data !== null && data.machines.some(({ lanes }) => lanes.length > 0);
  useEffect(() => window.history.replaceState(null, '', `/watch?${writeSpan(span)}`), [span]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      if (event.key.toLowerCase() !== 'm') return;
      event.preventDefault();
      document.querySelector<HTMLInputElement>('[data-mark]')?.focus();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const step = 'min-h-8 border-b-2 px-1.5 text-sm';
  return (
    <>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <div role="group" aria-label="How much time" className="flex flex-wrap">
          {LENGTHS.map(([lengthMs, name]) => (
            <button
              key={name}
              type="button"
              aria-pressed={span.lengthMs === lengthMs}
              onClick={() => setSpan({ ...span, lengthMs })}
              className={`${step} ${span.lengthMs === lengthMs ? 'border-ink' : 'border-transparent text-quiet hover:text-ink'}`}
            >
              {name}
            </button>
          ))}
        </div>
        <div role="group" aria-label="Move in time" className="flex">
          <button
            type="button"
            aria-label="earlier"
            onClick={() => setSpan(moved(span, -0.5, nowMs))}
            className={`${step} border-transparent`}
          >
            ← earlier
          </button>
          <button
            type="button"
            aria-label="later"
            disabled={span.untilMs === null}
            onClick={() => setSpan(moved(span, 0.5, nowMs))}
            className={`${step} border-transparent disabled:text-quiet`}
          >
            later →
          </button>
          {span.untilMs !== null && (
            <button
              type="button"
              onClick={() => setSpan({ ...span, untilMs: null })}
              className={`${step} border-transparent underline underline-offset-4`}
            >
              now
            </button>
          )}
        </div>
        <p className="text-sm text-quiet" aria-live="polite">
          {spanWords(span)}
          {trouble !== null && <span className="ml-2 font-medium text-starved">{trouble}</span>}
        </p>
      </div>
      <p id="watch-keys" className="sr-only">
        Arrow keys move in time, plus and minus zoom, End leads to now.
      </p>
      {data === null ? (
        <p aria-busy={trouble === null} className="py-10 text-quiet">
          {trouble === null ? 'Reading the lanes …' : 'Nothing can be shown.'}
        </p>
      ) : (
        <>
          {data.machines.map((machine) => (
            <section key={machine.deviceId} aria-label={machine.name} className="mb-6">
              <h2 className="mb-1 flex flex-wrap items-baseline gap-x-3">
                <span className="font-semibold">{machine.name}</span>
                <span className="text-sm text-quiet">
                  {stateWords(machine)}
                  {machine.lanes.length > 0 && `; ${availabilityWords(machine.availability)}`}
                </span>
              </h2>
              <WatchPicture
                {...{ data, machine, beats, live, timeZone, untilMs }}
                fromMs={untilMs - span.lengthMs}
                onZoom={(times, share) => setSpan(zoomed(span, times, nowMs, share))}
                onMove={(share) => setSpan(moved(span, share, nowMs))}
              />
            </section>
          ))}
          <div className="grid gap-x-12 gap-y-8 lg:grid-cols-2">
            {watched && (
              <>
                <section aria-label="Outages">
                  <h2 className="font-semibold">What was silent</h2>
                  {data.outages.length === 0 ? (
                    <p className="text-quiet">Nothing, {spanWords(span)}.</p>
                  ) : (
                    <OutageList
                      outages={data.outages}
                      {...{ timeZone, nowMs }}
                      onShow={(outage) => setSpan(around(outage, nowMs))}
                    />
                  )}
                </section>
                <section aria-label="Slow times">
                  <h2 className="font-semibold">What was slow</h2>
                  {span.lengthMs <= LIVE_UP_TO_MS ? (
                    <p className="text-quiet">Shown over an hour and more: what is slow for a second is seen above.</p>
                  ) : (
                    <SlowList
                      slow={data.slow}
                      machines={data.machines}
                      timeZone={timeZone}
                      span={spanWords(span)}
                      onShow={(slow) => setSpan(around(slow, nowMs))}
                    />
                  )}
                </section>
                <section aria-label="Busy times">
                  <h2 className="font-semibold">When the line was busy</h2>
                  <BusyList
                    busy={data.busy}
                    machines={data.machines}
                    {...{ timeZone, nowMs }}
                    span={spanWords(span)}
                    onShow={(busy) => setSpan(around(busy, nowMs))}
                  />
                </section>
              </>
            )}
            <section aria-label="Marks">
              <h2 className="font-semibold">Marks</h2>
              <MarkList marks={data.marks} {...{ nowMs, timeZone, ...marks }} onDone={reload} />
            </section>
          </div>
          <section aria-label="A soak" className="mt-8">
            <h2 className="font-semibold">A soak</h2>
            <p className="mb-2 max-w-[46rem] text-sm text-quiet">
              One device loads its link for four minutes, two each way. Mark what is switched on and off meanwhile: its
              rate says what that did.
            </p>
            <SoakForm
              standing={data.standing}
              reaches={reaches}
              ask={askSoak}
              onAsked={() => setSpan({ lengthMs: SOAK_SPAN_MS, untilMs: null })}
            />
          </section>
          {(watched || data.standing.length > 0) && (
            <details className="mt-8">
              <summary className="font-semibold">Lanes to be asked</summary>
              <div className="mt-2">
                <LaneForm
                  {...{ machines: data.machines, standing: data.standing, peers: data.peers }}
                  {...{ add: addLane, end: endLane, onDone: reload }}
                />
              </div>
            </details>
          )}
        </>
      )}
    </>
  );
}
