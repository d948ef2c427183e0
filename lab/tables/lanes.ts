import { setTimeout as sleep } from 'node:timers/promises';
import { openEchoProbe } from '@/agent';
import {
  outagesOf,
  seededRandom,
  type Fault,
  type LaneEcho,
  type LaneRole,
  type Outage,
  type WatchedLane,
} from '@/core';
import { LabWay, WAY, type Cut, type WayTarget } from '../net/lab-way';
import { medianOf, Table } from './table';

const OFFICES = 5;
const CASES_EACH = 10;
const EVERY_MS = 1000;

const ROLES: Readonly<Record<WayTarget, LaneRole>> = {
  ...{ gateway: 'gateway', store: 'inside', peer: 'outside', resolver: 'outside', far: 'far' },
};
const EXPECTED: Readonly<Record<Cut, Fault>> = {
  ...{ 'cable of the box': 'ours', router: 'ours', line: 'line', peer: 'theirs', 'far end': 'theirs', store: 'inside' },
};
const CUTS = Object.keys(EXPECTED) as Cut[];

interface Case {
  readonly cut: Cut;
  readonly fromMs: number;
  readonly untilMs: number;
  readonly found: readonly Outage[];
}

/** Cuts one way after the other in one office, and says what its lanes made of each. */
async function casesOf(number: number): Promise<Case[]> {
  const way = new LabWay(number);
  way.open();
  const heard = new Map<WayTarget, Map<number, LaneEcho>>();
  const probes = Object.entries(WAY).map(([name, target]) => {
    const of = new Map<number, LaneEcho>();
    heard.set(name as WayTarget, of);
    const lane = { id: name, name, kind: 'echo', target, role: ROLES[name as WayTarget], everyMs: EVERY_MS } as const;
    const note = (echo: LaneEcho, key = echo.atMs) => {
      if (echo.ms !== null || !of.has(key)) of.set(key, echo);
    };
    return openEchoProbe(lane, note, Date.now, ['ip', 'netns', 'exec', way.netns('box')]);
  });
  const watched = (fromMs: number, untilMs: number): WatchedLane[] =>
    [...heard].map(([name, of]) => ({
      ...{ laneId: name, role: ROLES[name], everyMs: EVERY_MS },
      echoes: [...of.values()].filter(({ atMs }) => atMs >= fromMs && atMs < untilMs).sort((a, b) => a.atMs - b.atMs),
    }));
  const random = seededRandom(100 + number);
  const cases: Case[] = [];
  try {
    await sleep(4000);
    for (let time = 0; time < CASES_EACH; time += 1) {
      const cut = CUTS[Math.floor(random() * CUTS.length)]!;
      const beganMs = Date.now();
      await sleep(3000 + 1500 * random());
      const mend = way.cut(cut);
      const fromMs = Date.now();
      await sleep(5000 + 9000 * random());
      mend();
      const untilMs = Date.now();
      await sleep(5000);
      cases.push({ cut, fromMs, untilMs, found: outagesOf(watched(beganMs, Date.now() - 1500)) });
    }
  } finally {
    probes.forEach((probe) => probe.close());
    await sleep(300);
    way.close();
  }
  return cases;
}

/** Ways that are cut while the system's ping goes on: whether each is found, put to the right fault, and dated. */
export async function lanesTable(): Promise<void> {
  const offices = await Promise.all(Array.from({ length: OFFICES }, (_, number) => casesOf(number)));
  const cases = offices.flat();
  const table = new Table(
    'Lanes: ways that are cut',
    `${cases.length} cuts of 5 to 14 s in ${OFFICES} offices of namespaces, five lanes each by the system’s ping, one request a second.`,
    ['cut', 'times', 'one outage, right fault', 'begin off, s (worst)', 'end off, s (worst)'],
  );
  for (const cut of CUTS) {
    const of = cases.filter((each) => each.cut === cut);
    const right = of.filter(({ found }) => found.length === 1 && found[0]!.fault === EXPECTED[cut]);
    const off = (pick: (each: Case) => number | null) => {
      const seconds = right
        .map(pick)
        .filter((value) => value !== null)
        .map((ms) => Math.abs(ms) / 1000);
      return seconds.length === 0 ? '–' : `${medianOf(seconds, 2)} (${Math.max(...seconds).toFixed(2)})`;
    };
    table.row(
      ...[cut, of.length, `${right.length} of ${of.length}`],
      off(({ found, fromMs }) => found[0]!.fromMs - fromMs),
      off(({ found, untilMs }) => (found[0]!.untilMs === null ? null : found[0]!.untilMs - untilMs)),
    );
    for (const { found } of of.filter((each) => !right.includes(each)))
      console.error(`${cut}: ${JSON.stringify(found)}`);
  }
}
