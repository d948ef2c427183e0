'use client';

import { useState } from 'react';
import type { Phase, ProfileName } from '@/core';
import type { JoinPage } from '@/services';
import { Strip } from '../strip/strip';
import { BeforeRun } from './before-run';
import { DeviceForm, firstAnswers, orderOf, profileWords } from './device-form';
import { RunResult } from './run-result';
import { AskedNote, StandingNote } from './standing-note';
import { useRun, type RunView } from './use-run';
import { useStanding } from './use-standing';

const PHASE_SENTENCES: Record<Phase, string> = {
  idle: 'Listening to the delay of the quiet line.',
  download: 'Downloading, and watching the delay.',
  settle: 'Waiting until the line is quiet again.',
  upload: 'Uploading, and watching the delay.',
  paced: 'Sending UDP at a chosen rate.',
  both: 'Downloading and uploading at once, and watching the delay.',
};

const BUTTON = 'min-h-12 w-full rounded-[3px] border-[1.5px] border-quiet px-4 hover:border-ink hover:bg-sheet';

function headline(view: RunView): string {
  if (view.status === 'measuring') {
    const phase = view.strip?.phases.at(-1)?.phase;
    return phase === undefined ? 'Reaching the peer.' : PHASE_SENTENCES[phase];
  }
  if (view.status === 'handing-in')
    return view.away
      ? 'Measured. The console is not answering; the result is kept here and handed in as soon as it is back.'
      : 'Measured. Handing the result in.';
  return '';
}

interface DevicePageProps {
  readonly join: JoinPage;
  readonly profile: ProfileName;
}

/** The page on a test device: answer, measure, read. */
export function DevicePage({ join: opened, profile }: DevicePageProps) {
  const { view, start, cancel, giveUp } = useRun();
  const [join, setJoin] = useState(opened);
  const [answers, setAnswers] = useState(() => firstAnswers(opened, profile));
  const [answering, setAnswering] = useState(true);
  const run = async (changed = answers, turnId: string | null = null) => {
    setAnswering(false);
    const order = orderOf(join, changed, turnId);
    const grant = await start(order);
    if (grant === null || join.devices.some(({ id }) => id === grant.deviceId)) return;
    // A device that was new is known from now on.
    const device = { id: grant.deviceId, name: grant.deviceName, spotName: order.spotName, link: order.link };
    setJoin({ ...join, devices: [...join.devices, device] });
    setAnswers({ ...changed, deviceId: device.id });
  };

  // A device that is known can be asked to run, unless somebody is just answering on it or it measures.
  const known = answers.deviceId !== '' && join.devices.some(({ id }) => id === answers.deviceId);
  const idle = view.status === 'ready' || view.status === 'done' || view.status === 'refused';
  const { standing, asked, refuse } = useStanding(
    known && idle && (join.knownDeviceId === answers.deviceId || view.status === 'done'),
    ({ turnId, reach, profile: wanted }) => {
      const changed = { ...answers, reach, profile: wanted };
      setAnswers(changed);
      void run(changed, turnId);
    },
  );
  const request = asked !== null && <AskedNote asked={asked} profileWords={profileWords} onRefuse={refuse} />;

  if (view.status === 'waiting')
    return (
      <section>
        <h1 className="text-xl font-semibold" aria-live="polite">
          Waiting for its turn
        </h1>
        <p className="mt-2 text-quiet">
          {view.waiting.why.replace(/^./, (letter) => letter.toUpperCase())}. Two at once would halve each other; this
          begins by itself in about {Math.max(1, Math.round(view.waiting.aboutMs / 1000))} s.
        </p>
        <button type="button" className={`${BUTTON} mt-6`} onClick={giveUp}>
          Give the turn back
        </button>
      </section>
    );

  if (view.status === 'measuring' || view.status === 'handing-in')
    return (
      <section>
        <h1 className="min-h-14 text-xl font-semibold" aria-live="polite">
          {headline(view)}
        </h1>
        <div className="-mx-3 mt-2 border-y border-hairline">
          {view.strip === null ? (
            <div className="h-[21rem] bg-sheet" />
          ) : (
            <Strip data={view.strip} yardsticks={view.grant.yardstick} width={360} height={340} />
          )}
        </div>
        <p className="mt-3 text-sm text-quiet">
          {view.grant.deviceName} against {view.grant.peer.name}
        </p>
        {view.status === 'measuring' && (
          <button type="button" className={`${BUTTON} mt-4`} onClick={cancel}>
            Cancel
          </button>
        )}
      </section>
    );

  if (view.status === 'done' && !answering) {
    const other = join.reaches.find(({ reach }) => reach !== answers.reach);
    return (
      <>
        {request}
        <RunResult answer={view.answer} />
        {view.strip !== null && (
          <div className="-mx-3 mt-6 border-y border-hairline">
            <Strip data={view.strip} yardsticks={view.grant.yardstick} width={360} height={320} />
          </div>
        )}
        <p className="mt-2 text-sm text-quiet">
          {view.grant.deviceName} against {view.grant.peer.name}
        </p>
        <div className="mt-6 space-y-3">
          <button type="button" className={`${BUTTON} bg-ink text-paper hover:!bg-down`} onClick={() => void run()}>
            Run again <span className="opacity-80">(three make a set)</span>
          </button>
          {other !== undefined && (
            <button
              type="button"
              className={BUTTON}
              onClick={() => {
                const changed = { ...answers, reach: other.reach };
                setAnswers(changed);
                void run(changed);
              }}
            >
              {other.reach === 'local' ? 'Now inside the office only' : 'Now out to the internet'}
            </button>
          )}
          <button type="button" className={BUTTON} onClick={() => setAnswering(true)}>
            Change the answers
          </button>
        </div>
        <StandingNote standing={standing} />
      </>
    );
  }

  return (
    <>
      {request}
      <h1 className="text-[1.6rem] font-semibold leading-tight">Test this device</h1>
      <p className="mb-5 mt-1 break-words text-quiet">{join.siteName}</p>
      {view.status === 'refused' && (
        <p role="alert" className="mb-5 border-l-[3px] border-starved pl-4">
          {view.problem.detail}
        </p>
      )}
      {join.reaches.length === 0 && (
        <p role="alert" className="mb-5 border-l-[3px] border-starved pl-4">
          This office has no peer to measure against. Add one in the set-up of the console.
        </p>
      )}
      <noscript>
        <p className="mb-5 border-l-[3px] border-starved pl-4">
          Measuring needs JavaScript. Allow it for this address and load the page again.
        </p>
      </noscript>
      <DeviceForm
        join={join}
        answers={answers}
        onAnswers={setAnswers}
        onRun={() => void run()}
        busy={view.status === 'asking'}
      />
      <BeforeRun notices={join.notices} told={answers.told} onTold={(told) => setAnswers({ ...answers, told })} />
      <StandingNote standing={standing} />
    </>
  );
}
