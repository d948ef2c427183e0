'use client';

import { Suspense, useEffect, useState, useSyncExternalStore } from 'react';
import { REACH_PHRASES, type ProfileName, type Reach, sentenceText } from '@/core';
import type { JoinPage } from '@/services';
import { WallTime } from '../parts/wall-time';
import { BeforeRun } from './before-run';
import { DeviceForm, firstAnswers, orderOf, profileWords, type DeviceAnswers } from './device-form';
import { EndedRun, GoingRun } from './run-view-later';
import { SlowNow } from './slow-now';
import { AskedNote, StandingNote } from './standing-note';
import { lastResultText, readLastResult } from './last-result';
import { post, useRun } from './use-run';
import { nothingToHear } from './use-ready';
import { useStanding } from './use-standing';

/** A result is left to be read before the next run begins by itself. */
const READ_MS = 2500;

const BUTTON = 'min-h-12 w-full rounded-[3px] border-[1.5px] border-quiet px-4 hover:border-ink hover:bg-sheet';

/** What there is to measure next: the reaches that this visit has not measured yet, the farthest first. */
function nextReach(join: JoinPage, measured: ReadonlySet<Reach>, current: Reach): Reach | null {
  const others = join.reaches.map(({ reach }) => reach).filter((reach) => reach !== current);
  return others.find((reach) => !measured.has(reach)) ?? null;
}

/** What this device is called, known or new. */
function nameOf(join: JoinPage, { deviceId, newName }: DeviceAnswers): string {
  return join.devices.find(({ id }) => id === deviceId)?.name ?? newName.trim();
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
  /** It was said that it is slow: two quick runs follow, one inside and one out. */
  const [said, setSaid] = useState(false);
  const [measured, setMeasured] = useState<ReadonlySet<Reach>>(new Set());
  const run = (changed = answers, turnId: string | null = null) => {
    setAnswering(false);
    setMeasured(new Set([...measured, changed.reach]));
    start(orderOf(join, changed, turnId));
  };
  const again = (reach: Reach) => {
    const changed = { ...answers, reach };
    setAnswers(changed);
    run(changed);
  };
  // Said to be slow: what was measured inside is followed by what goes out, which tells the two apart.
  const follows = said && view.status === 'done' && !measured.has('internet');
  const out = join.reaches.some(({ reach }) => reach === 'internet');
  useEffect(() => {
    if (!follows || !out) return;
    const timer = setTimeout(() => again('internet'), READ_MS);
    return () => clearTimeout(timer);
  });
  // A device that was new is known from now on.
  const grant = view.status === 'measuring' || view.status === 'done' ? view.grant : null;
  if (grant !== null && !join.devices.some(({ id }) => id === grant.deviceId)) {
    const { link } = orderOf(join, answers);
    const { spotName } = answers;
    const device = { id: grant.deviceId, name: grant.deviceName, spotName, link };
    setJoin({ ...join, devices: [...join.devices, device] });
    setAnswers({ ...answers, deviceId: device.id });
  }

  // A device that is known can be asked to run, unless somebody is just answering on it or it measures.
  const known = answers.deviceId !== '' && join.devices.some(({ id }) => id === answers.deviceId);
  const idle = view.status === 'ready' || view.status === 'done' || view.status === 'refused';
  const { standing, watching, asked, refuse, agree } = useStanding(
    known && idle && (join.knownDeviceId === answers.deviceId || view.status === 'done'),
    post,
    ({ turnId, reach, profile: wanted }) => {
      const changed = { ...answers, reach, profile: wanted };
      setAnswers(changed);
      run(changed, turnId);
    },
  );
  const request = asked !== null && (
    <AskedNote asked={asked} profileWords={profileWords} onRefuse={refuse} onAgree={agree} />
  );

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
      <Suspense>
        <GoingRun view={view}>
          {view.status === 'measuring' && (
            <button type="button" className={`${BUTTON} mt-4`} onClick={cancel}>
              Cancel
            </button>
          )}
        </GoingRun>
      </Suspense>
    );

  if (view.status === 'done' && !answering) {
    const next = nextReach(join, measured, answers.reach);
    return (
      <>
        {request}
        {said && (
          <p className="mb-4 border-l-[3px] border-ink pl-4">
            Written down: the technician has it, with the minute and these figures.
            {follows && out && ' One more measurement follows by itself: out of the office.'}
          </p>
        )}
        <Suspense>
          <EndedRun view={view} />
        </Suspense>
        <div className="mt-6 space-y-3">
          {view.answer.result?.linkDoubtful === true && (
            <div className="border-l-[3px] border-starved pl-4">
              <p>This is more than the link that was named can carry. How is this device really connected?</p>
              <button type="button" className={`${BUTTON} mt-2`} onClick={() => setAnswering(true)}>
                Answer again
              </button>
            </div>
          )}
          <button type="button" className={`${BUTTON} bg-ink text-paper hover:!bg-down`} onClick={() => run()}>
            Run again <span className="opacity-80">(three make a set)</span>
          </button>
          {next !== null && (
            <button type="button" className={BUTTON} onClick={() => again(next)}>
              Now {REACH_PHRASES[next]}
            </button>
          )}
          <button type="button" className={BUTTON} onClick={() => setAnswering(true)}>
            Change the answers
          </button>
        </div>
        <StandingNote {...{ standing, watching }} />
      </>
    );
  }

  return (
    <>
      {request}
      {join.label !== null && view.status !== 'refused' ? (
        <SlowNow
          join={join}
          deviceName={nameOf(join, answers)}
          spotName={answers.spotName}
          busy={view.status === 'asking'}
          onSaid={() => {
            setSaid(true);
            const inside = join.reaches.find(({ reach }) => reach === 'local')?.reach ?? answers.reach;
            again(inside);
          }}
        />
      ) : (
        <>
          <h1 className="text-[1.6rem] font-semibold leading-tight">Test this device</h1>
          <p className="mb-5 mt-1 break-words text-quiet">{join.siteName}</p>
        </>
      )}
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
        onRun={() => run()}
        busy={view.status === 'asking'}
      />
      <BeforeRun notices={join.notices} told={answers.told} onTold={(told) => setAnswers({ ...answers, told })} />
      <StandingNote {...{ standing, watching }} />
      {view.status === 'ready' && <LastResultNote />}
    </>
  );
}

/** What this device measured the last time that the page was open here. */
function LastResultNote() {
  // Only the browser has it: the server draws the page without.
  const last = readLastResult(useSyncExternalStore(nothingToHear, lastResultText, () => null));
  if (last === null) return null;
  return (
    <section aria-label="Last result" className="mt-6 border-t border-hairline pt-4 text-[0.9375rem]">
      <h2 className="text-sm text-quiet">
        Measured here last, <WallTime atMs={last.atMs} />
      </h2>
      <p className="mt-1">{sentenceText(last.answer)}</p>
      <a href={`/runs/${last.answer.runId}`} className="mt-1 inline-block underline">
        Open it
      </a>
    </section>
  );
}
