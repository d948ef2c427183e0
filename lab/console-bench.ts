import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import WebSocket from 'ws';
import { median, type DiagnosisInput, type Tray } from '@/core';
import { PROGRAM_FOLDER } from '@/programs/folder/version';
import { ThinkingThread } from '@/programs/supervise/thinking-thread';
import {
  boardOf,
  DEVICE_COOKIE,
  deviceCookieValue,
  exportedRuns,
  ledgerOf,
  makeComparison,
  matchingRuns,
  sidePageOf,
  timeSeriesOf,
  refreshDiagnosis,
  openPresence,
  type ConsoleContext,
  type LedgerQuery,
} from '@/services';
import { openStore } from '@/store';
import { readSigningKey } from '@/wire/peer/ticket';
import { STANDING_PATH } from '@/wire/console/device';
import { newDataFolder, startProgram, type Program } from '../e2e/program';
import { fillStore } from './bench/full-store';
import { endInOrder, numberArgument } from './end-together';

/**
 * How fast the console's pages come with much in the store, and what devices that stand by cost it.
 * `npm run bench-console -- RUNS SECONDS TIMES`: runs on the board (five times as many in the ledger), how long to watch,
 * and how often each page is asked for.
 */
const PORT = 4996;
const BOARD_RUNS = numberArgument(process.argv[2], 20_000, 'The number of runs');
const TIMES = numberArgument(process.argv[4], 40, 'How often each is asked for');
/** The first ones warm up. */
const WARMING = Math.min(5, TIMES - 1);
const STANDING = 50;
/** For the list of all of them. */
const OFFICES = 30;
/** Of each of two trays. */
const SIDE_RUNS = 5000;
/** What takes long is asked for so often at most. */
const MOST_SLOW = 7;
const MOST_SETTLING_S = 60;
const KEYS = 40;
const WATCH_MS = 1000 * numberArgument(process.argv[3], 20, 'The seconds to watch');

/** How the board behaves in Chromium: how far it shifts while it comes, and how long a key press takes to be seen. */
async function inBrowser(program: Program): Promise<void> {
  const { startBrowser } = await import('../e2e/browser');
  const { signIn } = await import('../e2e/technician');
  const browser = await startBrowser();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(() => {
    const seen = { shift: 0, keysMs: [] as number[] };
    Object.assign(window, { seen });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) seen.shift += (entry as unknown as { value: number }).value;
    }).observe({ type: 'layout-shift', buffered: true });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) if (entry.name === 'keydown') seen.keysMs.push(entry.duration);
    }).observe({ type: 'event', durationThreshold: 16 } as PerformanceObserverInit);
  });
  await signIn(page, program);
  await page.reload();
  await page.locator('[data-row="0"][data-column="0"]').focus();
  for (let step = 0; step < KEYS; step += 1) await page.keyboard.press(step % 4 === 3 ? 'ArrowRight' : 'ArrowDown');
  await page.waitForTimeout(1000);
  const { shift, keysMs } = await page.evaluate(
    () => (window as unknown as { seen: { shift: number; keysMs: number[] } }).seen,
  );
  // A browser tells of a press only when it took 16 ms and more.
  const words = (ms: number) => (ms === 0 ? 'under 16 ms' : `${ms.toFixed(0)} ms`);
  const allMs = [...keysMs, ...Array.from({ length: KEYS - keysMs.length }, () => 0)];
  console.log(
    `\nIn Chromium: layout shift ${shift.toFixed(3)}; of ${KEYS} key presses on the board the median took ${words(median(allMs)!)}, the slowest ${words(Math.max(...allMs))}.`,
  );
  await browser.close();
}

async function signedIn(program: Program): Promise<string> {
  const { startBrowser } = await import('../e2e/browser');
  const { signIn } = await import('../e2e/technician');
  const browser = await startBrowser();
  const page = await browser.newPage();
  await signIn(page, program);
  const cookies = await page.context().cookies();
  await browser.close();
  return cookies.map(({ name, value }) => `${name}=${value}`).join('; ');
}

/** Time until the whole answer is there, ms: median and 95th of many. */
async function timed(url: string, cookie: string): Promise<{ medianMs: number; p95Ms: number; kB: number }> {
  const took: number[] = [];
  let bytes = 0;
  for (let time = 0; time < TIMES; time += 1) {
    const startedMs = performance.now();
    bytes = (await (await fetch(url, { headers: { Cookie: cookie } })).text()).length;
    took.push(performance.now() - startedMs);
  }
  const warm = took.slice(WARMING).sort((a, b) => a - b);
  return { medianMs: median(warm)!, p95Ms: warm[Math.floor(warm.length * 0.95)]!, kB: Math.round(bytes / 1000) };
}

/** What the services take for the data of a place, without the page around it, ms. */
async function serviceTimes(data: string, runs: number): Promise<void> {
  const store = await openStore(join(data, 'bent-straw.sqlite'));
  // The thread does not keep a program from ending, and here nothing else may be under way.
  const alive = setInterval(() => undefined, 1000);
  const thread = new ThinkingThread(join(PROGRAM_FOLDER, 'dist', 'think-main.js'));
  let ids = 0;
  const newId = () => `bench-${(ids += 1)}`;
  const context = {
    ...{ store, wallMs: () => Date.now(), newId, ...openPresence() },
    think: (siteId: string, input: DiagnosisInput) => thread.diagnose(siteId, input),
    compare: (trays: readonly Tray[]) => thread.compare(trays),
  } as unknown as ConsoleContext;
  const middle = async (act: () => Promise<unknown>, before: () => Promise<unknown> = () => Promise.resolve()) => {
    const took: number[] = [];
    for (let time = 0; time < TIMES; time += 1) {
      await before();
      const startedMs = performance.now();
      await act();
      took.push(performance.now() - startedMs);
    }
    return median(took.slice(WARMING))!.toFixed(0);
  };
  console.log(`| data of the board | ${runs} | ${await middle(() => boardOf(context))} | | |`);
  const [site] = await store.sites.all();
  const startedMs = performance.now();
  await refreshDiagnosis(context, site!.id);
  const firstMs = (performance.now() - startedMs).toFixed(0);
  console.log(`| what stands out, from all runs, for the first time after a start | ${runs} | ${firstMs} | | |`);
  console.log(`| what stands out, from all runs anew | ${runs} | ${await anew(context, site!.id, data)} | | |`);
  const [newestId] = await store.ledger.ids(site!.id, [], 1, new Map());
  const oneMore = async () => {
    const { id, setId, startedAtMs } = { id: newId(), setId: newId(), startedAtMs: Date.now() };
    await store.runs.insert({ ...(await store.runs.byId(newestId!))!, id, setId, startedAtMs });
  };
  const after = await middle(() => refreshDiagnosis(context, site!.id), oneMore);
  console.log(`| what stands out, after one more run | ${runs} | ${after} | | |`);
  console.log(`| data of the ledger | ${runs} | ${await middle(() => ledgerOf(context, {}))} | | |`);
  await ledgerTimes(context, runs);
  clearInterval(alive);
  await thread.close();
  await store.close();
}

/** What a diagnosis takes that keeps nothing of the one before, as after a removal; median, ms. */
async function anew(context: ConsoleContext, siteId: string, data: string): Promise<string> {
  const took: number[] = [];
  for (let time = 0; time < Math.min(TIMES, MOST_SLOW); time += 1) {
    const store = await openStore(join(data, 'bent-straw.sqlite'));
    const startedMs = performance.now();
    await refreshDiagnosis({ ...context, store }, siteId);
    took.push(performance.now() - startedMs);
    await store.close();
  }
  return median(took)!.toFixed(0);
}

/** What people ask of the ledger, from one that all runs answer to one that none does. */
const ASKED: readonly LedgerQuery[] = [
  ...[{}, { query: 'verdict=full reach=internet' }, { query: 'down<100' }, { query: '"device 17"' }],
  ...[{ query: 'link=5 -delay=firm' }, { query: 'nobody' }, { query: 'note=nothing' }, { query: 'last=24h down<300' }],
  ...[{ sort: 'down' }, { sort: 'device', query: 'link=wired' }, { sort: 'added', query: 'reach=internet' }],
] as const satisfies readonly LedgerQuery[];

/** Of all that is asked of the ledger, the median and the 95th, ms; and of all runs as a file, s and MB. */
async function ledgerTimes(context: ConsoleContext, runs: number): Promise<void> {
  const took: number[] = [];
  for (let time = 0; time < TIMES; time += 1)
    for (const query of ASKED) {
      const startedMs = performance.now();
      await ledgerOf(context, query);
      if (time >= WARMING) took.push(performance.now() - startedMs);
    }
  took.sort((a, b) => a - b);
  const at = (share: number) => took[Math.min(took.length - 1, Math.floor(share * took.length))]!.toFixed(0);
  console.log(`| ledger, ${ASKED.length} ways to ask | ${runs} | ${at(0.5)} | ${at(0.95)} | |`);
  await sideAndTime(context, runs);
  const startedMs = performance.now();
  const file = await exportedRuns(context, {}, 'csv');
  const residentBefore = process.memoryUsage().rss;
  let [bytes, most] = [0, residentBefore];
  if (file.ok)
    for await (const part of file.value.parts) {
      bytes += Buffer.byteLength(part);
      most = Math.max(most, process.memoryUsage().rss);
    }
  const ms = (performance.now() - startedMs).toFixed(0);
  const megabytes = ((most - residentBefore) / 1e6).toFixed(0);
  console.log(
    `| all runs as CSV, with ${megabytes} MB more memory | ${runs} | ${ms} | | ${(bytes / 1000).toFixed(0)} |`,
  );
}

/** What a comparison of two trays of five thousand takes, and the course of a line over all its runs, ms. */
async function sideAndTime(context: ConsoleContext, runs: number): Promise<void> {
  const { store } = context;
  const [site] = await store.sites.all();
  const tray = async (query: string) => {
    const found = await matchingRuns(context, { query });
    return { name: query, query: '', runIds: found.slice(0, SIDE_RUNS) };
  };
  const trays = [await tray('link=wired reach=internet'), await tray('link=5 reach=internet')];
  const made = await makeComparison(context, 'Bench', { siteId: site!.id, name: '', trays });
  const took: number[] = [];
  let compared = '';
  for (let time = 0; time < Math.min(TIMES, MOST_SLOW); time += 1) {
    const startedMs = performance.now();
    const page = await sidePageOf(context, made.ok ? made.value.id : '');
    took.push(performance.now() - startedMs);
    compared = page.ok ? page.value.trays.map((each) => each.runs.length).join(' and ') : 'nothing';
  }
  console.log(`| side by side, ${compared} runs | ${runs} | ${median(took)!.toFixed(0)} | | |`);
  const [line] = await store.sites.linesOf(site!.id);
  const courses: number[] = [];
  let occasions = 0;
  for (let time = 0; time < Math.min(TIMES, MOST_SLOW); time += 1) {
    const startedMs = performance.now();
    const series = await timeSeriesOf(context, site!.id, `line ${line!.id}`);
    courses.push(performance.now() - startedMs);
    occasions = series.ok ? series.value.occasions.runId.length : 0;
  }
  console.log(`| a line over time, ${occasions} occasions | ${runs} | ${median(courses)!.toFixed(0)} | | |`);
}

/** Each store is served at a port of its own: a sign-in is kept by the address. */
async function pagesWith(port: number, runs: number, places: readonly string[], offices = 1): Promise<void> {
  const data = newDataFolder();
  const first = await startProgram({ mode: 'start', port, data, more: ['--office', 'Bench'] });
  await first.interrupt();
  await fillStore(data, runs, offices);
  if (offices === 1) await serviceTimes(data, runs);
  const program = await startProgram({ mode: 'start', port, data });
  const cookie = await signedIn({ ...program, output: () => first.output() + program.output() });
  // What all of them have to make up for after a start takes seconds.
  if (offices > 1) await settled(partsOf(program));
  for (const place of places) {
    const { medianMs, p95Ms, kB } = await timed(program.origin + place, cookie);
    console.log(`| ${place} | ${runs} | ${medianMs.toFixed(0)} | ${p95Ms.toFixed(0)} | ${kB} |`);
  }
  if (runs === BOARD_RUNS && offices === 1)
    await inBrowser({ ...program, output: () => first.output() + program.output() });
  await program.interrupt();
  rmSync(data, { recursive: true, force: true });
}

/** Processor time of a process and its threads so far, s. */
function cpuSeconds(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
  const ticks = Number(execFileSync('getconf', ['CLK_TCK'], { encoding: 'utf8' }));
  return (Number(fields[11]) + Number(fields[12])) / ticks;
}

const partsOf = (program: Program) => ['console-main', 'peer-main'].flatMap((word) => program.childrenWith(word));

/** The share of a core that some processes take over a while. */
async function shareOf(parts: readonly number[], ms: number): Promise<number> {
  const before = parts.map(cpuSeconds);
  await new Promise((resolve) => setTimeout(resolve, ms));
  const used = parts.map((pid, index) => cpuSeconds(pid) - before[index]!);
  return used.reduce((sum, each) => sum + each, 0) / (ms / 1000);
}

/** What a start has to make up for is over when a second passes with little to do. */
async function settled(parts: readonly number[]): Promise<void> {
  for (let seconds = 0; seconds < MOST_SETTLING_S && (await shareOf(parts, 1000)) > 0.05; seconds += 1);
}

async function presence(): Promise<void> {
  const data = newDataFolder();
  const first = await startProgram({ mode: 'start', port: PORT, data, more: ['--office', 'Bench'] });
  await first.interrupt();
  await fillStore(data, 1000);
  const program = await startProgram({ mode: 'start', port: PORT, data });
  const parts = partsOf(program);
  const signingKey = readSigningKey(readFileSync(join(data, 'console-key.pem'), 'utf8'));
  await settled(parts);
  const idle = await shareOf(parts, WATCH_MS);
  const sockets = Array.from({ length: STANDING }, (_, index) => {
    const cookie = `${DEVICE_COOKIE}=${deviceCookieValue({ signingKey }, `device-${index}`)}`;
    return new WebSocket(`${program.origin.replace('http', 'ws')}${STANDING_PATH}`, { headers: { Cookie: cookie } });
  });
  await Promise.all(sockets.map((socket) => new Promise((resolve) => socket.once('open', resolve))));
  await new Promise((resolve) => setTimeout(resolve, 2000));
  const standing = await shareOf(parts, WATCH_MS);
  console.log(
    `\n${STANDING} devices standing by: ${(standing * 100).toFixed(1)} % of one core, ${(idle * 100).toFixed(1)} % without them.`,
  );
  for (const socket of sockets) socket.terminate();
  await program.interrupt();
  rmSync(data, { recursive: true, force: true });
}

process.env['TMPDIR'] = mkdtempSync(join(tmpdir(), 'bent-straw-bench-'));
console.log('| page | runs in the store | median, ms | 95th, ms | kB |\n|---|---|---|---|---|');
endInOrder();
await pagesWith(PORT, BOARD_RUNS, ['/', '/?verdict=full&reach=internet', '/ledger']);
await pagesWith(PORT + 1, 5 * BOARD_RUNS, [
  '/ledger',
  '/ledger?q=%22device+17%22',
  '/ledger?q=reach%3Dinternet&sort=down',
  '/',
]);
await pagesWith(PORT + 2, 5 * BOARD_RUNS, ['/sites'], OFFICES);
await presence();
