import type { RunSamples } from '@/core';
import { openEngine, type EngineName } from '../../e2e/engines/engine-browser';
import { press, resultOrEnd, type as typeInto, until } from '../../e2e/engines/person';
import type { LabClient } from './lab-client';

/** What the page hears when it hands a run in, kept where the lab can read it. */
const LISTEN = `(() => {
  const plain = window.fetch;
  window.fetch = async (...asked) => {
    const response = await plain(...asked);
    if (String(asked[0]?.url ?? asked[0]).includes('/hand-in'))
      response.clone().json().then((answer) => (window.labAnswer = answer));
    return response;
  };
  return null;
})()`;

interface Answer {
  readonly runId: string;
  readonly status: string;
  readonly figures: string;
  readonly held: string;
}

/** Firefox or WebKit in the client's namespace, on the page that a device opens. */
export async function engineClient(name: EngineName, netns: string): Promise<LabClient> {
  const browser = await openEngine(name, netns);
  let known = false;
  return {
    name,
    run: async (joinAddress, profile, deviceName = `lab ${name}`) => {
      await browser.open(`${joinAddress}?profile=${profile}`);
      await until(browser, `document.querySelector('button')`, 'the page');
      await browser.evaluate(LISTEN);
      if (!known) await typeInto(browser, 'Reading room laptop', deviceName);
      known = true;
      const startedMs = performance.now();
      await press(browser, 'Measure');
      await resultOrEnd(browser);
      const tookMs = performance.now() - startedMs;
      const answer = await browser.evaluate<Answer | null>('window.labAnswer ?? null');
      if (answer?.status !== 'finished')
        return { status: 'unfinished', sentence: `${answer?.figures} ${answer?.held}`, tookMs };
      const { samples } = await browser.evaluate<{ samples: RunSamples }>(
        `fetch('/api/v1/runs/${answer.runId}/samples').then((response) => response.json())`,
      );
      return { status: 'finished', samples, tookMs };
    },
    close: () => browser.close(),
  };
}
