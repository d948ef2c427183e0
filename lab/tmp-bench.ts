import { mkdtempSync } from 'node:fs';
import { join } from 'node:path';
import { openStore } from '@/store';
import { Sequelize, QueryTypes } from 'sequelize';
import {
  timeSeriesOf,
  sidePageOf,
  makeComparison,
  matchingRuns,
  refreshDiagnosis,
  openPresence,
  type ConsoleContext,
} from '@/services';
import { ThinkingThread } from '@/programs/supervise/thinking-thread';
import { PROGRAM_FOLDER } from '@/programs/folder/version';
import { median } from '@/core';
const data = process.argv[2]!;
const store = await openStore(join(data, 'bent-straw.sqlite'));
const alive = setInterval(() => undefined, 1000);
const thread = new ThinkingThread(join(PROGRAM_FOLDER, 'dist', 'think-main.js'));
let ids = 0;
const newId = () => `bench-${Date.now()}-${(ids += 1)}`;
const context = {
  store,
  wallMs: () => Date.now(),
  newId,
  ...openPresence(),
  think: (s: string, i: never) => thread.diagnose(s, i),
  compare: (t: never) => thread.compare(t),
} as unknown as ConsoleContext;
const [site] = await store.sites.all();
const time = async (name: string, act: () => Promise<unknown>, times = 7) => {
  const took: number[] = [];
  for (let i = 0; i < times; i += 1) {
    const t = performance.now();
    await act();
    took.push(performance.now() - t);
  }
  console.log(name, 'first', took[0]!.toFixed(0), 'median', median(took)!.toFixed(0));
};
const what = process.argv[3] ?? 'all';
const [line] = await store.sites.linesOf(site!.id);
if (what === 'all' || what === 'time') {
  await time('time rows', () => store.time.runs(site!.id, { lineId: line!.id }));
  await time('time series', () => timeSeriesOf(context, site!.id, `line ${line!.id}`));
}
if (what === 'all' || what === 'side') {
  const tray = async (query: string) => ({
    name: query,
    query: '',
    runIds: (await matchingRuns(context, { query })).slice(0, 5000),
  });
  const made = await makeComparison(context, 'Bench', {
    siteId: site!.id,
    name: '',
    trays: [await tray('link=wired reach=internet'), await tray('link=5 reach=internet')],
  });
  await time('side', () => sidePageOf(context, made.ok ? made.value.id : ''));
}
if (what === 'all' || what === 'diag') {
  await time('diag first', () => refreshDiagnosis(context, site!.id), 1);
  const newest = (await store.ledger.ids(site!.id, [], 1, new Map()))[0]!;
  const base = (await store.runs.byId(newest))!;
  const took: number[] = [];
  for (let i = 0; i < 12; i += 1) {
    await store.runs.insert({ ...base, id: newId(), setId: newId(), startedAtMs: Date.now() });
    const t = performance.now();
    await refreshDiagnosis(context, site!.id);
    took.push(performance.now() - t);
  }
  console.log('diag one more', took.map((x) => x.toFixed(0)).join(' '));
}
clearInterval(alive);
await thread.close();
await store.close();
