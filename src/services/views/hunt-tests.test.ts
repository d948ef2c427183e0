import type { DiagnosedSegment, HuntQuestion, NamedExplanation } from '@/core';
import { NEW_DEVICE, type Device } from '@/store';
import { candidatesOf, shownTests, type PossibleRun } from './hunt-tests';

const GIGABIT = { lowBps: 875e6, highBps: 941e6 };
const segment = (id: string, kind: DiagnosedSegment['kind'], name: string | null, sound = false): DiagnosedSegment => ({
  ...{ id, kind, name, deviceId: null, band: null, accessPoint: null, generation: 0, hours: null },
  sound: sound ? { down: GIGABIT, up: GIGABIT } : { down: null, up: null },
});
const SEGMENTS = new Map(
  [
    ...['bench', 'press'].flatMap((name) => [
      segment(`device:${name}`, 'device', name),
      segment(`cable:${name}`, 'cable', name, true),
    ]),
    segment('hop', 'hop', null),
    segment('peer:local:p', 'peer', 'cupboard'),
  ].map((each) => [each.id, each]),
);
const device = (id: string): Device => ({
  ...NEW_DEVICE,
  ...{ id, siteId: 's', spotId: null, name: id, link: { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 } },
});
const run = (id: string, byClick = true): PossibleRun => ({
  ...{ device: device(id), reach: 'local', byClick },
  path: [`device:${id}`, `cable:${id}`, 'hop', 'peer:local:p'],
});
const suspected = (id: string) => (['device:bench', 'cable:bench'].includes(id) ? 0.5 : 0);
const EXPLANATIONS: NamedExplanation[] = ['device:bench', 'cable:bench'].map((id) => ({
  ...{ suspects: [id], probability: 0.5, capacitiesBps: [385e6] },
}));
const QUESTION: HuntQuestion = new Map([
  ['device:bench', 'device:bench'],
  ['cable:bench', 'cable:bench'],
]);

describe('tests of a hunt', () => {
  it('are every run that could be made, and swaps of what is suspected on the way of who suffers', () => {
    const of = candidatesOf([run('bench'), run('press')], 'bench', SEGMENTS, 'down', suspected);
    expect(of.map(({ run: { device: by }, without }) => [by.name, without])).toEqual([
      ...[
        ['bench', null],
        ['press', null],
        ['bench', 'device:bench'],
        ['bench', 'cable:bench'],
      ],
    ]);
  });

  it('are none where nothing is known of what the way should carry', () => {
    const unknown = new Map([...SEGMENTS].map(([id, each]) => [id, { ...each, sound: { down: null, up: null } }]));
    expect(candidatesOf([run('bench')], 'bench', unknown, 'down', suspected)).toEqual([]);
  });

  it('propose no swap of what is cleared: without it a run tells the same', () => {
    const of = candidatesOf([run('bench')], 'bench', SEGMENTS, 'down', () => 0);
    expect(of.map(({ swap }) => swap)).toEqual([null]);
  });

  it('cost a minute where the device stands by, and a walk where it does not', () => {
    const minutes = (byClick: boolean) =>
      candidatesOf([run('press', byClick)], null, SEGMENTS, 'down', suspected).map((each) => each.minutes);
    expect(minutes(true)).toEqual([1]);
    expect(minutes(false)[0]).toBeGreaterThan(1);
  });

  it('say what each outcome would mean, each swap once, three at most', () => {
    const candidates = candidatesOf([run('bench'), run('press')], 'bench', SEGMENTS, 'down', suspected);
    const shown = shownTests(EXPLANATIONS, candidates, QUESTION, SEGMENTS);
    expect(shown.length).toBeGreaterThan(0);
    expect(shown.length).toBeLessThanOrEqual(3);
    const swaps = shown.flatMap(({ swap, segment: of }) => (swap === null ? [] : `${swap} ${of?.id}`));
    expect(new Set(swaps).size).toBe(swaps.length);
    const cable = shown.find(({ segment: of }) => of?.id === 'cable:bench');
    // With another cable it stays slow only if it is the device.
    expect(cable).toMatchObject({ ifSlow: ['bench'], ifFast: ['the cable or port of bench'], byClick: false });
    // The same way once more tells nothing that is not known.
    for (const { kind, gainBits } of shown) if (kind === 'run') expect(gainBits).toBeGreaterThanOrEqual(0.02);
  });

  it('are none where nothing is suspected', () => {
    const candidates = candidatesOf([run('bench')], 'bench', SEGMENTS, 'down', () => 0);
    expect(shownTests([{ suspects: [], probability: 1, capacitiesBps: [] }], candidates, QUESTION, SEGMENTS)).toEqual(
      [],
    );
  });
});
