'use client';

import { useState } from 'react';
import { addedDelayWords, rateFigure, shareWords, type QueueAdvice } from '@/core';
import type { HuntPage } from '@/services';
import { Button } from '../parts/button';

interface QueueStepsProps {
  readonly advice: QueueAdvice;
  readonly standing: HuntPage['standing'];
  /** Says that the queue was set, and has three quick runs made. */
  readonly setQueue: (mbps: number, deviceId: string | null) => Promise<string | null>;
}

/** The next figure to set in the router, and what came of the ones before. */
export function QueueSteps({ advice, standing, setQueue }: QueueStepsProps) {
  const [deviceId, setDeviceId] = useState(standing[0]?.id ?? '');
  const [said, setSaid] = useState<string | null>(null);
  const set = async (bps: number) =>
    setSaid(
      (await setQueue(Number((bps / 1e6).toFixed(2)), deviceId === '' ? null : deviceId)) ??
        (deviceId === ''
          ? 'Written down. Make three quick runs now.'
          : 'Written down. Three quick runs were asked for.'),
    );
  return (
    <section aria-label="Queue advice" className="border-l-[3px] border-ink py-1 pl-4">
      {advice.status === 'set' && (
        <>
          <h3 className="text-[1.15rem] font-semibold">
            Set the router’s queue management to {rateFigure(advice.bps)} Mb/s
          </h3>
          <p className="text-sm text-quiet">
            Step {advice.step} of at most six. In the router it may be called traffic shaping, smart queue or bandwidth
            limit; it is the rate that its queue is kept to.
          </p>
          <div className="mt-2 flex flex-wrap items-end gap-4">
            {standing.length > 0 && (
              <label className="text-sm text-quiet">
                measure on
                <select
                  className="field text-ink"
                  value={deviceId}
                  onChange={(event) => setDeviceId(event.target.value)}
                >
                  {standing.map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </select>
              </label>
            )}
            <Button look="main" onClick={() => void set(advice.bps)}>
              It is set, measure
            </Button>
          </div>
        </>
      )}
      {advice.status === 'measure' && (
        <p>
          Set to {rateFigure(advice.bps)} Mb/s: {advice.wanted} more quick {advice.wanted === 1 ? 'run' : 'runs'} out to
          the internet, over a cable.
        </p>
      )}
      {advice.status === 'done' && (
        <p className="text-[1.05rem]">
          <span className="font-semibold">{rateFigure(advice.bps)} Mb/s keeps it firm</span>: load adds{' '}
          {addedDelayWords(advice.addedMs)}. It costs {shareWords(advice.costsShare)} of the rate.
        </p>
      )}
      {advice.status === 'no-help' && (
        <p>Even half of the rate did not help: the queue that fills is not the one that was set. Look for another.</p>
      )}
      {advice.status === 'swings' && (
        <p>
          The line’s own rate swings by {shareWords(advice.share)}: one figure cannot hold it. Ask the provider first,
          or let the router measure and follow.
        </p>
      )}
      {said !== null && (
        <p role="status" className="mt-2 text-sm text-quiet">
          {said}
        </p>
      )}
    </section>
  );
}
