import { setTimeout as sleep } from 'node:timers/promises';
import { Sequelize } from 'sequelize';
import { findingWords, type Finding, type Reach } from '@/core';
import { openStore, type Store } from '@/store';
import { LAB_PLAN, LabOffice, type LabDevice, type LabFault } from '../net/lab-office';
import { Table } from './table';

/** How long the console may take to work out what stands out after the last run, ms. */
const PATIENCE_MS = 30_000;
const HOUR_MS = 3600_000;
const DAY_MS = 24 * HOUR_MS;

type Ask = readonly [LabDevice, Reach];
const INSIDE: readonly Ask[] = (['press', 'scan', 'bench'] as const).map((device) => [device, 'local']);
const OUT: readonly Ask[] = (['press', 'bench'] as const).map((device) => [device, 'internet']);
const TUNNEL: readonly Ask[] = (['press', 'scan'] as const).map((device) => [device, 'tunnel']);

interface Case {
  readonly name: string;
  readonly fault: LabFault;
  readonly runs: readonly Ask[];
  readonly isFound: (finding: Finding) => boolean;
}

const ofBench = ({ segments }: Finding) =>
  segments.length > 0 && segments.every(({ id }) => /^(cable|device):/.test(id)) && segments[0]!.name === 'bench';

const CASES: readonly Case[] = [
  {
    ...{ name: 'nothing', fault: {}, runs: [...INSIDE, ...OUT] },
    isFound: () => false,
  },
  {
    ...{ name: 'a port that came up at 100 Mb/s', fault: { benchPortMbps: 100 }, runs: [...INSIDE, ...OUT] },
    isFound: (finding) => finding.facts.code === 'cable-came-up-slow' && ofBench(finding),
  },
  {
    ...{ name: 'a cable that loses 1 %', fault: { benchLoss: 0.01 }, runs: [...INSIDE, ...OUT, ...OUT] },
    isFound: (finding) => ['packets-lost', 'segment-holds-back'].includes(finding.facts.code) && ofBench(finding),
  },
  {
    ...{ name: 'an upload queue of 300 ms', fault: { upQueueMs: 300 }, runs: [...INSIDE, ...OUT] },
    isFound: ({ facts }) => facts.code === 'queue-too-deep' && facts.where === 'line' && facts.direction === 'up',
  },
  {
    ...{
      name: 'a device with a thirtieth of a processor',
      fault: { benchProcessor: 0.033 },
      runs: [...INSIDE, ...OUT],
    },
    isFound: (finding) => finding.facts.code === 'segment-holds-back' && ofBench(finding),
  },
  {
    ...{ name: 'a tunnel whose far line gives 20 up', fault: {}, runs: [...INSIDE, ...OUT, ...TUNNEL] },
    isFound: ({ facts }) => facts.code === 'tunnel-slower-end' && facts.direction === 'down',
  },
];

async function found(store: Store, siteId: string, afterMs: number): Promise<readonly Finding[]> {
  for (const untilMs = Date.now() + PATIENCE_MS; Date.now() < untilMs; await sleep(500)) {
    const kept = await store.findings.diagnosis(siteId);
    if (kept !== null && kept.madeAtMs >= afterMs) return kept.diagnosis.findings;
  }
  throw new Error('the console worked nothing out');
}

const wordsOf = (finding: Finding | undefined) =>
  finding === undefined ? '**not found**' : `${findingWords(finding).sentence} (${finding.strength})`;

async function onOffice<Result>(fault: LabFault, use: (office: LabOffice, store: Store) => Promise<Result>) {
  const office = new LabOffice(fault);
  try {
    await office.open();
    const store = await openStore(office.database);
    try {
      return await use(office, store);
    } finally {
      await store.close();
    }
  } finally {
    await office.close();
  }
}

/** LAB_SHOW=1: what each run gave, on the other output. */
async function showRuns(store: Store, siteId: string): Promise<void> {
  for (const { deviceId, reach, downBps, upBps, brief } of (await store.evidence.since(siteId, 0)).runs)
    console.error(`  ${deviceId.slice(0, 4)} ${reach}`, Math.round(downBps! / 1e6), Math.round(upBps! / 1e6), brief);
  console.error(JSON.stringify((await store.findings.diagnosis(siteId))?.diagnosis.findings, null, 1));
}

async function oneCase({ name, fault, runs, isFound }: Case, table: Table): Promise<void> {
  await onOffice(fault, async (office, store) => {
    let lastId = '';
    for (const [device, reach] of runs)
      lastId = await office.run(device, reach).catch((error: Error) => (console.error(`  ${error.message}`), lastId));
    const site = (await store.sites.all()).find((each) => each.name === office.siteName)!;
    const findings = await found(store, site.id, (await store.runs.byId(lastId))!.endedAtMs!);
    if (process.env['LAB_SHOW'] !== undefined) await showRuns(store, site.id);
    const others = findings.filter((finding) => !isFound(finding));
    table.row(
      name,
      runs.length,
      name === 'nothing' && findings.length === 0 ? 'nothing stands out' : wordsOf(findings.find(isFound)),
      others.map(wordsOf).join('; ') || 'none',
    );
  });
}

/** Hours of the days before at which the sagging line is measured: in the evening five times, else ten. */
const SAG = { hour: 20, downMbps: 120, evenings: 5, others: [9, 11, 13, 15, 10, 12, 14, 16, 9, 14] } as const;

/**
 * A line that sags in the evening. Its runs are real, each over the line as it is at that hour; that they lie on days and
 * hours before is written into the record afterwards, for nobody waits five days.
 */
async function sag(table: Table): Promise<void> {
  await onOffice({}, async (office, store) => {
    const today = new Date().setHours(0, 0, 0, 0);
    const times = [
      ...Array.from({ length: SAG.evenings }, (_, day) => ({ day: day + 1, hour: SAG.hour })),
      ...SAG.others.map((hour, index) => ({ day: 1 + (index % SAG.evenings), hour: hour })),
    ];
    const placed: { readonly runId: string; readonly atMs: number }[] = [];
    for (const { day, hour } of times) {
      office.shapeLine(hour === SAG.hour ? SAG.downMbps : LAB_PLAN.downMbps);
      const runId = await office.run('press', 'internet');
      placed.push({ runId, atMs: today - day * DAY_MS + hour * HOUR_MS + 60_000 * placed.length });
    }
    const sequelize = new Sequelize({ dialect: 'sqlite', storage: office.database, logging: false });
    for (const { runId, atMs } of placed)
      await sequelize.query(
        'UPDATE runs SET startedAtMs = :atMs, endedAtMs = :atMs + 10000, setId = id WHERE id = :runId',
        {
          replacements: { runId, atMs },
        },
      );
    await sequelize.close();
    const site = (await store.sites.all()).find((each) => each.name === office.siteName)!;
    const isSag = ({ facts, hours }: Finding) =>
      facts.code === 'line-slow-in-hours' && JSON.stringify(hours) === JSON.stringify([SAG.hour]);
    // The program may just be working out what it knew before: what it finds next is waited for.
    const untilMs = Date.now() + PATIENCE_MS;
    let findings: readonly Finding[] = [];
    while (!findings.some(isSag) && Date.now() < untilMs) {
      await sleep(500);
      findings = (await store.findings.diagnosis(site.id))?.diagnosis.findings ?? [];
    }
    const others = findings.filter((finding) => !isSag(finding));
    table.row(
      `a line that gives ${SAG.downMbps} at ${SAG.hour}:00`,
      placed.length,
      wordsOf(findings.find(isSag)),
      others.map(wordsOf).join('; ') || 'none',
    );
  });
}

/** Faults built into an office of namespaces, and what the real program finds from real runs. */
export async function faultsTable(): Promise<void> {
  const table = new Table(
    'Faults built into an office',
    `Three devices behind a switch with 1000 Mb/s, a router, a line of ${LAB_PLAN.downMbps}/${LAB_PLAN.upMbps} Mb/s, a peer outside and one in another office; quick runs of the agent, one after another. What else stands out is shown too.`,
    ['built in', 'runs', 'found', 'besides'],
  );
  const chosen = process.env['LAB_FAULT'];
  for (const each of CASES.filter(({ name }) => chosen === undefined || name.includes(chosen)))
    await oneCase(each, table);
  if (chosen === undefined || chosen === 'sag') await sag(table);
}
