import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { RunConditions } from './run-conditions';
import { reportOf } from '../judge/run-report';
import type { RunSamples } from './run-samples';
import { stripDataOf } from '../picture/strip-data';

/** Raw samples of real runs, recorded in the lab (LAB_KEEP=FOLDER npm run lab) over lines that the kernel shaped. */
const FOLDER = 'src/core/run/fixtures';

interface Recorded {
  readonly config: {
    readonly down: { readonly rateMbps: number; readonly queueMs: number };
    readonly up: { readonly rateMbps: number; readonly queueMs: number };
    readonly baseMs: number;
    readonly mtuBytes: number;
    readonly lossRatio: number;
  };
  readonly client: string;
  readonly samples: RunSamples;
}

const LAB: RunConditions = {
  ...{ reach: 'local', link: { medium: 'unknown' }, plan: null, sameMachine: false, practice: false, ipVersion: 4 },
  ...{ pageHiddenMs: 0, peerLinkBps: null, otherPeerThanUsual: false },
};

const recorded = readdirSync(FOLDER).map((file): [string, Recorded] => [
  file,
  JSON.parse(readFileSync(join(FOLDER, file), 'utf8')) as Recorded,
]);

describe.each(recorded)('the run recorded in %s', (_, { config, samples }) => {
  const report = reportOf(samples, LAB);
  const clean = config.lossRatio === 0;

  it.each(['down', 'up'] as const)('has what the shaper let through as its rate %s', (way) => {
    const { rate } = report[way];
    const carriedBps = (config[way].rateMbps * 1e6 * (config.mtuBytes - 52)) / (config.mtuBytes + 14);
    const error = Math.abs(rate!.steadyBps / carriedBps - 1);
    // A line that drops at random is not filled by cubic: then the run must say that its figure is not the line's.
    if (clean) expect(error).toBeLessThan(0.01);
    else expect(error < 0.05 || !rate!.settled || rate!.steadiness < 0.97).toBe(true);
  });

  it('has the empty line’s round trip as its idle delay, with the cost of a WebSocket', () => {
    const over = report.idleDelay!.medianMs - config.baseMs;
    expect(over).toBeGreaterThan(0);
    expect(over).toBeLessThan(4);
  });

  it.each(['down', 'up'] as const)('shows the queue under load %s, and when it began to fill', (way) => {
    if (!clean) return;
    expect(report[way].addedMs).toBeGreaterThan(config[way].queueMs * 0.7);
    expect(report[way].addedMs).toBeLessThan(config[way].queueMs * 1.2 + 5);
    expect(report[way].queueOnsetMs).toBeLessThan(1500);
  });

  it('is drawn on one time axis, its ramps hatched', () => {
    const strip = stripDataOf(samples);
    expect(strip.discarded.length).toBeGreaterThanOrEqual(3);
    for (const { fromMs, toMs } of strip.discarded) expect(toMs).toBeGreaterThan(fromMs);
    expect(Math.max(...strip.up!.atMs)).toBeLessThan(strip.durationMs);
  });
});

it('there are recorded runs of both clients', () => {
  expect(new Set(recorded.map(([, { client }]) => client))).toEqual(new Set(['Chromium', 'Node']));
});
