'use client';

import { listed, type CheckCode } from '@/core';
import type { HuntPage, ShownTest } from '@/services';
import { Button } from '../parts/button';
import { PrintButton } from '../parts/print-button';
import { StrengthMark } from '../findings/strength-mark';
import { CheckFirst } from './check-first';
import { EndHuntForm } from './end-hunt-form';
import { NextTestCard } from './next-test-card';
import { QueueSteps } from './queue-steps';
import { Story } from './story';
import { SuspicionStraw } from './suspicion-straw';
import { SwapForm, type NoteSwap } from './swap-form';
import { SwapResults } from './swap-results';
import { Link } from '../parts/link';

export interface HuntActions {
  readonly run: (test: Pick<ShownTest, 'deviceId' | 'reach'>) => Promise<string | null>;
  readonly noteSwap: NoteSwap;
  readonly undoSwap: (swapId: string) => Promise<void>;
  readonly addNote: (text: string) => Promise<string | null>;
  readonly end: (state: 'found' | 'mended' | 'given-up', note: string) => Promise<string | null>;
  readonly ruleOut: (check: CheckCode, out: boolean) => Promise<string | null>;
  readonly resume: () => Promise<void>;
  readonly setQueue: (mbps: number, deviceId: string | null) => Promise<string | null>;
}

const STATE_WORDS = { open: 'open', found: 'found', mended: 'mended', 'given-up': 'given up' } as const;

/** A hunt: next test on top, what is suspected beside it, the story below. */
export function HuntView({ page, actions }: { readonly page: HuntPage; readonly actions: HuntActions }) {
  const {
    hunt,
    finding,
    found,
    tests,
    segments,
    direction,
    story,
    swaps,
    places,
    queue,
    standing,
    checks,
    focusDevice,
  } = page;
  const open = hunt.state === 'open';
  return (
    <div className="grid gap-x-12 gap-y-6 lg:grid-cols-[1.15fr_1fr] print:grid-cols-2 print:gap-x-6 print:gap-y-3 print:text-[0.8rem]">
      <header className="lg:col-span-2 print:col-span-2">
        <p className="text-sm text-quiet">
          Hunt, {STATE_WORDS[hunt.state]}
          {focusDevice !== null && `, on the way of ${focusDevice}`}
        </p>
        <h1 className="break-words text-[1.45rem] font-semibold leading-snug">{hunt.title}</h1>
        {finding !== null && (
          <p className="mt-1 flex flex-wrap items-baseline gap-x-4 text-quiet">
            <StrengthMark strength={finding.strength} />
            <span>{finding.nextStep}</span>
          </p>
        )}
      </header>
      <section aria-label="What to do next" className="min-w-0 space-y-4">
        {queue !== null && <QueueSteps advice={queue} standing={standing} setQueue={actions.setQueue} />}
        {found !== null && queue === null && (
          <p className="border-l-[3px] border-starved py-1 pl-4 text-[1.15rem]">
            <span className="font-semibold">It is {listed(found.words)}.</span>
            {found.words.length > 1
              ? ' No test from here tells them apart; a second peer outside would.'
              : ' Change it, write the swap down below, and measure again: before and after are then compared.'}
          </p>
        )}
        {open && found === null && tests.length > 0 && (
          <>
            <h2 className="font-semibold">The next test that would tell most</h2>
            <ol className="space-y-3">
              {tests.map((test, index) => (
                <NextTestCard key={test.id} test={test} first={index === 0} run={actions.run} />
              ))}
            </ol>
          </>
        )}
        {open && tests.length === 0 && found === null && queue === null && (
          <p className="text-quiet">
            {segments.length === 0
              ? 'Nothing has been measured here yet. Run from one device, inside and out to the internet.'
              : 'No test that can be made from here would change what is thought. Swap something, or measure another device.'}
          </p>
        )}
        {open && queue === null && places.length > 0 && (
          <div className="print:hidden">
            <h2 className="mb-1 font-semibold">Swapped something?</h2>
            <SwapForm places={places} noteSwap={actions.noteSwap} />
          </div>
        )}
        {queue === null && <SwapResults swaps={swaps} undo={actions.undoSwap} />}
      </section>
      <section aria-label="What is suspected" className="min-w-0">
        {queue === null && <SuspicionStraw segments={segments} direction={direction} />}
        {checks.length > 0 && found === null && (
          <div className="mt-6 print:hidden">
            <CheckFirst checks={checks} ruleOut={actions.ruleOut} />
          </div>
        )}
      </section>
      <section aria-label="The story so far" className="min-w-0 lg:col-span-2 print:col-span-2">
        <h2 className="mb-1 font-semibold">The story so far</h2>
        <Story lines={story} />
        <div className="mt-3 flex flex-wrap items-end gap-x-6 gap-y-3 print:hidden">
          {open ? (
            <EndHuntForm end={actions.end} addNote={actions.addNote} />
          ) : (
            <form action={actions.resume}>
              <Button type="submit">Go on with it</Button>
            </form>
          )}
          <PrintButton words="Print on one page" />
          <Link
            href={`/report?about=hunt+${encodeURIComponent(hunt.id)}`}
            className="self-center text-sm underline decoration-hairline underline-offset-4 hover:decoration-ink"
          >
            as a report
          </Link>
        </div>
      </section>
    </div>
  );
}
