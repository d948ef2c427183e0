import type { ProfileName } from '@/core';
import { truthOf, type WatchedRun } from '../measure-run';
import { carriedBps, type LabLineConfig } from '../net/lab-line';
import { symmetric, watchedRuns, type ClientName } from './lab-cell';
import { PING_BPS } from '../net/system-ping';
import { medianOf, percentOf, Table } from './table';

const CLIENTS: readonly ClientName[] = ['Chromium', 'Node'];
export const HEADS = [
  ...['line, Mb/s', 'client', 'way', 'runs', 'carries', 'figure', 'error: median (worst)', 'counter: median (worst)'],
  ...['added, ms', 'by ping, ms', 'off: median (worst), ms', 'unsettled', 'stolen'],
];
export const NOTE =
  'Carries: what the shaper lets through as TCP payload, less what `ping` takes. Error: the steady rate against it. Counter: how much faster the ' +
  'engine’s counter grew than the kernel’s over the counted seconds. Added: median delay under load less idle, by the ' +
  'engine and by `ping` over the same seconds. Stolen: processor time that other virtual machines took, median (worst).';

const DIRECTIONS = ['down', 'up'] as const;

export function addRows(
  table: Table,
  name: string,
  client: string,
  config: LabLineConfig,
  runs: readonly WatchedRun[],
  ways: readonly (typeof DIRECTIONS)[number][] = DIRECTIONS,
) {
  for (const way of ways) {
    const carried = carriedBps(config[way], config.mtuBytes, PING_BPS);
    const rates = runs.map((run) => run.report[way].rate);
    const truths = runs.map((run) => truthOf(run, way));
    const errors = rates.map((rate) => (rate === null || carried === null ? null : rate.steadyBps / carried - 1));
    const off = runs.map(({ report }, index) => {
      const [added, ping] = [report[way].addedMs, truths[index]?.pingAddedMs ?? null];
      return added === null || ping === null ? null : Math.abs(added - ping);
    });
    const known = off.filter((value) => value !== null);
    table.row(
      name,
      client,
      way,
      runs.length,
      carried === null ? '–' : (carried / 1e6).toFixed(1),
      medianOf(rates.map((rate) => (rate === null ? null : rate.steadyBps / 1e6))),
      percentOf(errors),
      percentOf(truths.map((truth) => truth?.counterError ?? null)),
      medianOf(runs.map(({ report }) => report[way].addedMs)),
      medianOf(truths.map((truth) => truth?.pingAddedMs)),
      known.length === 0 ? '–' : `${medianOf(known)} (${Math.max(...known).toFixed(1)})`,
      rates.filter((rate) => rate !== null && !rate.settled).length,
      percentOf(runs.map(({ stolen }) => stolen)),
    );
  }
}

interface Line {
  readonly name: string;
  readonly config: Partial<LabLineConfig>;
}

async function fill(
  title: string,
  lines: readonly Line[],
  runs: number,
  clients: readonly ClientName[] = CLIENTS,
  profile: ProfileName = 'standard',
) {
  const table = new Table(title, NOTE, HEADS);
  // LAB_LINES=10/10,50/5 and LAB_CLIENT=Node measure these rows alone.
  const chosen = process.env.LAB_LINES?.split(/,(?! )/);
  for (const { name, config } of lines.filter((line) => chosen?.includes(line.name) ?? true))
    for (const client of clients.filter((name) => (process.env.LAB_CLIENT ?? name) === name)) {
      const done = await watchedRuns(config, client, runs, profile);
      addRows(table, name, client, done.line, done.runs);
    }
}

const shaped = (name: string, down: number, up: number, more: Partial<LabLineConfig> = {}): Line => ({
  name,
  config: { down: { rateMbps: down, queueMs: 50 }, up: { rateMbps: up, queueMs: 50 }, ...more },
});

export async function ratesTable(runs: number): Promise<void> {
  const lines = [10, 50, 100, 300, 900].map((rate) => shaped(`${rate}/${rate}`, rate, rate));
  lines.push(shaped('500/100', 500, 100), shaped('50/5', 50, 5), shaped('1000/40', 1000, 40));
  await fill('Rates, base delay 0, queue 50 ms, cubic', lines, runs);
}

export async function basesTable(runs: number): Promise<void> {
  const lines = [20, 80].flatMap((baseMs) =>
    [50, 300].map((rate) => shaped(`${rate}/${rate}, ${baseMs} ms`, rate, rate, { baseMs })),
  );
  await fill('Base delay 20 and 80 ms, queue 50 ms, cubic', lines, runs);
}

export async function queuesTable(runs: number): Promise<void> {
  const lines = [5, 200, 1000].map((queueMs) => ({
    name: `100/100, queue ${queueMs} ms`,
    config: { ...symmetric(100, queueMs), baseMs: 20 },
  }));
  await fill('Queues, 100 Mb/s, base delay 20 ms, cubic', lines, runs);
}

export async function othersTable(runs: number): Promise<void> {
  const base = { ...symmetric(100, 50), baseMs: 20 };
  const lines: Line[] = [
    { name: 'bbr', config: { ...base, congestion: 'bbr' } },
    { name: 'MTU 1420', config: { ...base, mtuBytes: 1420 } },
    { name: 'MTU 9000', config: { ...base, mtuBytes: 9000 } },
    ...[0.005, 0.01, 0.05].map((lossRatio) => ({ name: `loss ${lossRatio * 100} %`, config: { ...base, lossRatio } })),
  ];
  await fill('Congestion control, packet size and loss; 100 Mb/s, base delay 20 ms, queue 50 ms', lines, runs);
}

/**
 * The profile *single*: one TCP connection on purpose, as a copy has it. What it leaves of the line is no error; how its
 * figure agrees with what the kernel let through in the same seconds is.
 */
export async function singleTable(runs: number): Promise<void> {
  const lines = [
    shaped('100/20', 100, 20, { baseMs: 20 }),
    shaped('500/100', 500, 100, { baseMs: 12 }),
    shaped('300/300, 150 ms', 300, 300, { baseMs: 150 }),
    shaped('100/100, loss 0.5 %', 100, 100, { baseMs: 20, lossRatio: 0.005 }),
  ];
  await fill('One connection, queue 50 ms, cubic', lines, runs, CLIENTS, 'single');
}

const ENGINES: readonly ClientName[] = ['Chromium', 'Firefox', 'WebKit'];

/** The three engines of browsers over the same lines. */
export async function enginesTable(runs: number): Promise<void> {
  const lines = [
    shaped('50/50', 50, 50),
    shaped('210/35, 12 ms', 210, 35, { baseMs: 12 }),
    shaped('640/640', 640, 640),
  ];
  await fill('Browsers by engine, queue 50 ms, cubic', lines, runs, ENGINES);
}

/** Lines at the edges of what an engine is made for: long paths, and slow ones that are measured quickly. */
export async function edgesTable(runs: number): Promise<void> {
  const line = (name: string, down: number, up: number, baseMs: number, queueMs: number): Line => ({
    name,
    config: { down: { rateMbps: down, queueMs }, up: { rateMbps: up, queueMs }, baseMs },
  });
  await fill(
    'Long paths, queue 100 ms, cubic',
    [
      line('100/20, 150 ms', 100, 20, 150, 100),
      line('100/20, 300 ms', 100, 20, 300, 100),
      line('50/10, 600 ms', 50, 10, 600, 100),
    ],
    runs,
  );
  await fill(
    'Slow lines, quick: base delay 40 ms, queue 400 ms, cubic',
    [line('24/2 quick', 24, 2, 40, 400)],
    runs,
    CLIENTS,
    'quick',
  );
}
