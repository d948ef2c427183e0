/**
 * An agent in a network namespace of its own keeps a schedule for an hour of real time, while the console, the agent and the
 * cable between them go and come back: `node scripts/tool.mjs lab/reliability/keep-schedule.ts [MINUTES [SEED]]`.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync, watch } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { seededRandom } from '@/core';
import { checkStore, openStore } from '@/store';
import { childOfTool } from '../end-together';
import { command, ended, lineOf, startIn } from '../net/command';
import { LabLine, PLAIN_LINE } from '../net/lab-line';
import { readyForLab } from '../net/lab-rights';
import { storedRuns } from './kills';

const MINUTES = Number(process.argv[2] ?? 60);
const SEED = Number(process.argv[3] ?? 1);
/** A time every so many minutes, and something that happens in between. */
const EVERY_MINUTES = 3;
const PORT = 4870;
const MINUTE_MS = 60_000;
/** After the last time what waits or is kept has so long to come to its end. */
const CLOSING_MS = 3 * MINUTE_MS;
const HAPPENINGS = ['console killed', 'console stopped', 'agent killed', 'cable out'] as const;

const missing = await readyForLab();
if (missing !== null) {
  console.error(missing);
  process.exit(1);
}
const random = seededRandom(SEED);
const between = (least: number, most: number) => least + (most - least) * random();
const line = new LabLine({
  ...PLAIN_LINE,
  ...{ down: { rateMbps: 100, queueMs: 50 }, up: { rateMbps: 20, queueMs: 50 }, baseMs: 20 },
});
const data = mkdtempSync(join(tmpdir(), 'bent-straw-schedule-'));
const home = mkdtempSync(join(tmpdir(), 'bent-straw-schedule-'));
const database = join(data, 'bent-straw.sqlite');
let program: ChildProcess;
let code = '';

async function startConsole(): Promise<void> {
  program = startIn(
    line.netns('peer'),
    process.execPath,
    ...['dist/launch.js', 'start', '--no-agent', '--data', data, '--port', String(PORT), '--office', 'Lab'],
  );
  code = /\(code (\w+)\)/.exec(await lineOf(program, /\(code \w+\)/))?.[1] ?? code;
  program.stdout!.resume();
}

/** Whatever `ip netns exec` started: the launcher and its parts. */
function killAll(child: ChildProcess): void {
  const children = (pid: number): number[] => {
    const file = `/proc/${pid}/task/${pid}/children`;
    if (!existsSync(file)) return [];
    return command('cat', file)
      .trim()
      .split(/\s+/)
      .filter((text) => text !== '')
      .flatMap((text) => [Number(text), ...children(Number(text))]);
  };
  for (const pid of [child.pid!, ...children(child.pid!)])
    try {
      process.kill(pid, 'SIGKILL');
    } catch {
      // Gone with the one before.
    }
}

function startAgent(...words: string[]): ChildProcess {
  const inside = ['netns', 'exec', line.netns('client'), process.execPath, 'dist/agent.mjs', ...words];
  const env = { ...process.env, HOME: home, XDG_STATE_HOME: home };
  return childOfTool(spawn('ip', inside, { env, stdio: 'ignore' }));
}

/** Every result that was ever put down to be handed in. */
const kept = new Set<string>();
watch(home, { recursive: true }, (_, name) => {
  const id = /outbox\/\w+\/([\w-]+)\.json$/.exec(name ?? '')?.[1];
  if (id !== undefined) kept.add(id);
});
const leftInOutbox = () =>
  (readdirSync(home, { recursive: true }) as string[]).filter((name) => /outbox\/.+\.json$/.test(name)).length;

async function withStore<Value>(use: (store: Awaited<ReturnType<typeof openStore>>) => Promise<Value>): Promise<Value> {
  const store = await openStore(database);
  try {
    return await use(store);
  } finally {
    await store.close();
  }
}

const happened = new Map<string, number>();
let agent: ChildProcess;

async function happen(): Promise<void> {
  const what = HAPPENINGS[Math.floor(random() * HAPPENINGS.length)]!;
  happened.set(what, (happened.get(what) ?? 0) + 1);
  const awayMs = between(2, 75) * 1000;
  console.error(`${new Date().toISOString()} ${what} for ${(awayMs / 1000).toFixed(0)} s`);
  switch (what) {
    case 'console killed':
      killAll(program);
      await sleep(awayMs);
      return startConsole();
    case 'console stopped':
      program.kill('SIGINT');
      await ended(program);
      await sleep(awayMs);
      return startConsole();
    case 'agent killed':
      killAll(agent);
      await sleep(awayMs);
      agent = startAgent('serve');
      return;
    case 'cable out':
      command('ip', '-n', line.netns('client'), 'link', 'set', line.clientDevice, 'down');
      await sleep(awayMs);
      command('ip', '-n', line.netns('client'), 'link', 'set', line.clientDevice, 'up');
      command('ip', '-n', line.netns('client'), 'route', 'replace', 'default', 'via', '10.87.1.1');
  }
}

let broken = 0;
function must(held: boolean, what: string): void {
  if (!held) broken += 1;
  console.log(`${held ? 'held' : 'BROKEN'}: ${what}`);
}

try {
  await line.open();
  await startConsole();
  agent = startAgent('join', `http://${line.peerAddress}:${PORT}/j/${code}`, '--name', 'Attic box');
  for (let waited = 0; waited < 60 && !existsSync(database); waited += 1) await sleep(500);
  await sleep(8000);
  program!.kill('SIGINT');
  await ended(program!);
  const startMs = Date.now();
  await withStore(async (store) => {
    const [site] = await store.sites.all();
    const minutes = Array.from({ length: (24 * 60) / EVERY_MINUTES }, (_, index) => index * EVERY_MINUTES);
    await store.schedules.save({
      ...{ id: 'hour', siteId: site!.id, who: { kind: 'office' }, spreadMinutes: 0.5, paused: false, byName: 'Lab' },
      ...{ madeAtMs: startMs, doneUntilMs: startMs },
      schedule: { days: [0, 1, 2, 3, 4, 5, 6], times: { kind: 'at', minutes }, reaches: ['local'], profile: 'quick' },
    });
  });
  await startConsole();
  const endMs = startMs + MINUTES * MINUTE_MS;
  while (Date.now() < endMs) {
    await sleep(Math.min(between(40, 200) * 1000, Math.max(0, endMs - Date.now())));
    if (Date.now() < endMs) await happen();
  }
  await sleep(CLOSING_MS);
  program!.kill('SIGINT');
  await ended(program!);
  killAll(agent);

  await withStore(async (store) => {
    const [site] = await store.sites.all();
    const times = await store.schedules.timesOf(site!.id, startMs, endMs);
    const why = new Map<string, number>();
    for (const { state, why: reason } of times) why.set(reason ?? state, (why.get(reason ?? state) ?? 0) + 1);
    console.log(`\n${MINUTES} minutes, a time every ${EVERY_MINUTES} (seed ${SEED})`);
    console.log(`What happened: ${[...happened].map(([what, count]) => `${what} ${count}`).join(', ')}`);
    console.log(`What became of the times: ${[...why].map(([what, count]) => `${what} ${count}`).join(', ')}`);
    const due = new Set(times.map(({ dueAtMs }) => dueAtMs));
    const expected =
      Math.floor(endMs / (EVERY_MINUTES * MINUTE_MS)) - Math.floor(startMs / (EVERY_MINUTES * MINUTE_MS));
    must(
      due.size === expected && times.length === expected,
      `each time is written down once: ${times.length} of ${expected}`,
    );
    must(
      times.every(({ state }) => state === 'made' || state === 'missed'),
      'each came to an end, with why',
    );
    const made = times.filter(({ state }) => state === 'made');
    const runs = await storedRuns(data);
    const isFinished = (id: string | null) => id !== null && (runs.get(id)?.startsWith('finished') ?? false);
    must(
      made.every(({ runId }) => isFinished(runId)),
      `each that was made has its run: ${made.length}`,
    );
    must(new Set(made.map(({ runId }) => runId)).size === made.length, 'no run counts for two of them');
    const lost = [...kept].filter((id) => runs.get(id)?.startsWith('running') ?? true);
    must(
      lost.length === 0,
      `results that were ever put down and are not in the record: ${lost.length} of ${kept.size}`,
    );
    must(leftInOutbox() === 0, `results still to be handed in: ${leftInOutbox()}`);
  });
  const { dangling, samplesWithoutRun } = await checkStore(database);
  must(dangling.length === 0 && samplesWithoutRun === 0, 'the database is whole');
} finally {
  await line.close();
  rmSync(home, { recursive: true, force: true });
}
process.exit(broken === 0 ? 0 : 1);
