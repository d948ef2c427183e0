import type { Occasion } from '@/core';
import type { StoredHunt, StoredHuntStep } from '@/store';
import { storyOf } from './hunt-story';
import type { ShownSwap } from './swaps-page';

const HUNT: StoredHunt = {
  ...{ id: 'h', siteId: 's', kind: 'hunt', title: 'slow', focus: {}, state: 'open', openedAtMs: 100, openedBy: 'Ines' },
  ...{ closedAtMs: null, outcome: null },
};
const run = (startedAtMs: number, added: readonly [number | null, number | null] = [null, null]): Occasion => ({
  ...{ runIds: [`r${startedAtMs}a`, `r${startedAtMs}`], deviceId: 'd', reach: 'local', startedAtMs, hour: 9 },
  ...{ path: ['device:d'], down: null, up: null, addedDownMs: added[0], addedUpMs: added[1] },
  ...{ resentShare: null, flags: [] },
});
const step = (atMs: number, kind: string, facts: object): StoredHuntStep => ({
  ...{ id: `s${atMs}`, huntId: 'h', atMs, byName: 'Tom', kind },
  facts: { ...facts },
});
const swap = (atMs: number, what: ShownSwap['what'] = 'other-cable'): ShownSwap => ({
  ...{ id: `w${atMs}`, what, words: 'the cable', note: '', atMs, byName: 'Tom', compared: null },
});
const told = (of: Partial<Parameters<typeof storyOf>[0]>) =>
  storyOf({
    ...{ hunt: HUNT, steps: [], swaps: [], occasions: [], devices: [], segments: new Map() },
    ...of,
  });

describe('the story of a hunt', () => {
  it('begins with who began it, and goes on in the order of time', () => {
    const story = told({
      occasions: [run(300)],
      swaps: [swap(200)],
      steps: [step(400, 'note', { text: 'pinched' }), step(150, 'ruled-out', { check: 'backup' })],
    });
    expect(story.map(({ kind }) => kind)).toEqual(['opened', 'checked', 'swap', 'run', 'note']);
  });

  it('leaves out what happened before it was opened and after it was closed', () => {
    const closed = {
      ...HUNT,
      closedAtMs: 500,
      state: 'found',
      outcome: { note: 'the cable', byName: 'Ines' },
    } as const;
    const story = told({ hunt: closed, occasions: [run(50), run(300), run(600)], swaps: [swap(99), swap(501)] });
    expect(story.map(({ kind, atMs }) => [kind, atMs])).toEqual([
      ...[
        ['opened', 100],
        ['run', 300],
        ['ended', 500],
      ],
    ]);
    expect(story.at(-1)).toMatchObject({ byName: 'Ines', state: 'found', text: 'the cable' });
  });

  it('tells a tick and what took it back, and a step of another version as it can', () => {
    const steps = [
      step(110, 'ruled-out', { check: 'update' }),
      step(120, 'not-ruled-out', { check: 'update' }),
      step(130, 'of-tomorrow', { moon: true }),
    ];
    expect(told({ steps }).slice(1)).toMatchObject([
      ...[
        { kind: 'checked', check: 'update', out: true },
        { kind: 'checked', check: 'update', out: false },
        { kind: 'note', text: '' },
      ],
    ]);
  });

  it('tells a queue that was set once, not as a swap beside it', () => {
    const story = told({
      steps: [step(200, 'queue-set', { bps: 90e6 })],
      swaps: [swap(200, 'queue-managed'), swap(300, 'queue-managed')],
    });
    expect(story.map(({ kind }) => kind)).toEqual(['opened', 'queue-set', 'swap']);
    expect(story[1]).toMatchObject({ bps: 90e6 });
  });

  it('has the newest run of a set, the worse delay of both ways, and unknown where there is none', () => {
    const [, quiet, loud, up] = told({ occasions: [run(200), run(300, [12, 220]), run(400, [null, 8])] });
    expect(quiet).toMatchObject({ runId: 'r200', addedMs: null, downBps: null, soundBps: null, deviceName: '' });
    expect(loud).toMatchObject({ addedMs: 220 });
    expect(up).toMatchObject({ addedMs: 8 });
  });

  it('of a long one keeps the end', () => {
    const story = told({
      steps: Array.from({ length: 60 }, (_, index) => step(200 + index, 'note', { text: `${index}` })),
    });
    expect(story).toHaveLength(40);
    expect(story.at(-1)).toMatchObject({ text: '59' });
  });
});
