import { mkdtempSync, readdirSync, watch } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Page } from '@playwright/test';
import sqlite3 from 'sqlite3';
import { checkStore } from '@/store';
import { startBrowser } from '../../e2e/browser';
import { answer } from '../../e2e/device';
import { newDataFolder, startProgram, type Program } from '../../e2e/program';
import { runAgent } from './agent-beside';

const PORT = 4850;
/** Between two kills, ms: long enough that runs come to their end in between, and that every phase is hit. */
const PAUSE_MS = { least: 300, most: 6000 } as const;
const PARTS = ['console-main', 'peer-main', 'Hilltop', 'practice-main', 'everything'] as const;
type Victim = (typeof PARTS)[number];

/** What came of the kills. Times in ms. */
export interface KillTable {
  readonly kills: Readonly<Record<Victim, number>>;
  /** Results that a device had ready to be handed in. */
  readonly ready: { readonly agent: number; readonly page: number };
  /** Of these, not in the database at the end; recorded once and gone or changed later; without their samples. */
  readonly lost: readonly string[];
  readonly changed: readonly string[];
  readonly halfWritten: number;
  /** Looks into the database after a kill, and those that found something. */
  readonly checks: number;
  readonly complaints: readonly string[];
  /** From a kill until the console answers again, and until a run has begun again where none was under way. */
  readonly answersAgainMs: readonly number[];
  readonly grantedAgainMs: readonly number[];
}

const chosen = <Value>(values: readonly Value[]) => values[Math.floor(Math.random() * values.length)]!;

/** Every id that was ever put into a folder of results that are still to be handed in. */
function watchOutbox(folder: string, seen: Set<string>): void {
  watch(folder, { recursive: true }, (_, name) => {
    const id = /outbox\/\w+\/([\w-]+)\.json$/.exec(name ?? '')?.[1];
    if (id !== undefined) seen.add(id);
  });
}

/** A page that measures again and again, whatever happens around it. */
async function measureOnAndOn(page: Page, address: () => string, until: AbortSignal): Promise<void> {
  while (!until.aborted) {
    try {
      await page.goto(address(), { timeout: 5000 });
      await answer(page, { name: 'Page beside' });
      await page.getByRole('button', { name: /^Measure/ }).click({ timeout: 5000 });
      await page.getByRole('button', { name: /again/i }).waitFor({ timeout: 60_000 });
    } catch {
      // The console was away, or the run was refused: it is opened anew, as a person would.
      await sleep(500);
    }
  }
}

async function answersAgain(origin: string): Promise<number> {
  const startedMs = performance.now();
  for (;;) {
    const answered = await fetch(`${origin}/sign-in`, { signal: AbortSignal.timeout(2000) }).then(
      (response) => response.ok,
      () => false,
    );
    if (answered) return performance.now() - startedMs;
    await sleep(50);
  }
}

/** How each run that is in the database ended: "finished ", "unfinished REASON", "running ". */
export function storedRuns(data: string): Promise<Map<string, string>> {
  return new Promise((resolve, reject) => {
    const database = new sqlite3.Database(join(data, 'bent-straw.sqlite'), sqlite3.OPEN_READONLY);
    database.configure('busyTimeout', 5000);
    database.all<{ id: string; status: string; reason: string | null }>(
      'SELECT id, status, reason FROM runs',
      (error, rows) => {
        database.close();
        if (error === null) resolve(new Map(rows.map(({ id, status, reason }) => [id, `${status} ${reason ?? ''}`])));
        else reject(error);
      },
    );
  });
}

/** Kills parts, or all of it, `count` times at random moments while an agent and a page measure. */
export async function killAgainAndAgain(count: number): Promise<KillTable> {
  const data = newDataFolder();
  const state = mkdtempSync(join(tmpdir(), 'bent-straw-reliability-'));
  const start = () => startProgram({ mode: 'demo', port: PORT, data });
  let program: Program = await start();
  const address = () => `${program.origin}/j/${program.code}?profile=quick`;
  const [agentIds, pageIds] = [new Set<string>(), new Set<string>()];
  watchOutbox(state, agentIds);
  const kills = Object.fromEntries(PARTS.map((part) => [part, 0])) as Record<Victim, number>;
  const [lost, changed, complaints]: [string[], string[], string[]] = [[], [], []];
  const [answersAgainMs, grantedAgainMs]: [number[], number[]] = [[], []];
  let [halfWritten, checks] = [0, 0];
  const recorded = new Map<string, string>();
  const browser = await startBrowser();
  const page = await browser.newPage();
  page.on('request', (request) => {
    const id = /\/runs\/([\w-]+)\/hand-in$/.exec(request.url())?.[1];
    if (id !== undefined) pageIds.add(id);
  });
  const end = new AbortController();
  const agentOnAndOn = (async () => {
    while (!end.signal.aborted) {
      await runAgent(address().split('?')[0]!, 'Agent beside', state);
      await sleep(200);
    }
  })();
  const pageOnAndOn = measureOnAndOn(page, address, end.signal);

  /** Everything that was once over must be so still, in the same way. */
  const look = async () => {
    checks += 1;
    const found = await checkStore(join(data, 'bent-straw.sqlite')).catch((error: unknown) => String(error));
    if (typeof found === 'string') {
      complaints.push(found);
      return;
    }
    halfWritten += found.runsWithoutSamples + found.samplesWithoutRun;
    if (found.dangling.length > 0) complaints.push(JSON.stringify(found.dangling));
    const now = await storedRuns(data);
    for (const [id, ending] of recorded) if (now.get(id) !== ending) changed.push(`${id}: ${ending} → ${now.get(id)}`);
    for (const [id, ending] of now) if (ending.startsWith('finished')) recorded.set(id, ending);
  };

  for (let kill = 0; kill < count; kill += 1) {
    await sleep(PAUSE_MS.least + Math.random() * (PAUSE_MS.most - PAUSE_MS.least));
    const victim = chosen(PARTS);
    kills[victim] += 1;
    const killedAtMs = Date.now();
    if (victim === 'everything') {
      await program.killAll();
      await look();
      program = await start();
    } else for (const pid of program.childrenWith(victim)) process.kill(pid, 'SIGKILL');
    answersAgainMs.push(await answersAgain(program.origin));
    // One run is under way nearly always; a new one begins when that is over.
    const before = new Set(
      [...(await storedRuns(data))].filter(([, ending]) => ending.startsWith('running')).map(([id]) => id),
    );
    if (before.size === 0) {
      for (;;) {
        const now = await storedRuns(data);
        if ([...now.keys()].some((id) => !recorded.has(id) && now.get(id)!.startsWith('running'))) break;
        if (Date.now() - killedAtMs > 60_000) break;
        await sleep(250);
      }
      grantedAgainMs.push(Date.now() - killedAtMs);
    }
    await look();
    process.stderr.write(`\r${kill + 1} of ${count}`);
  }
  process.stderr.write('\n');
  end.abort();
  await Promise.all([agentOnAndOn, pageOnAndOn]);
  // What is left is handed in by the next start of each.
  await runAgent(address().split('?')[0]!, 'Agent beside', state);
  await page.goto(address());
  await page.getByRole('button', { name: /^Measure/ }).waitFor();
  await page.waitForFunction(leftInBrowser, null, { timeout: 30_000 });
  await browser.close();
  await program.interrupt();
  await look();
  const final = await storedRuns(data);
  for (const id of [...agentIds, ...pageIds]) {
    const ending = final.get(id) ?? 'not there';
    if (ending === 'not there' || /running|device-vanished/.test(ending)) lost.push(`${id}: ${ending}`);
  }
  const left = readdirSync(state, { recursive: true }).filter(
    (name) => String(name).endsWith('.json') && String(name).includes('outbox'),
  );
  lost.push(...left.map((name) => `still to be handed in: ${String(name)}`));
  return {
    ...{ kills, lost, changed, halfWritten, checks, complaints, answersAgainMs, grantedAgainMs },
    ready: { agent: agentIds.size, page: pageIds.size },
  };
}

/** Runs in the page: whether its own database of results is empty. */
async function leftInBrowser(): Promise<boolean> {
  const database = await new Promise<IDBDatabase>((resolve, reject) => {
    const request = indexedDB.open('bent-straw');
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error!);
  });
  const count = await new Promise<number>((resolve, reject) => {
    const request = database.transaction('outbox').objectStore('outbox').count();
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error!);
  });
  database.close();
  return count === 0;
}
