/**
 * What standing by costs a console: two hundred agents of thirty offices, each with the lanes that it begins with and three runs an hour, played
 * by this process without any traffic: `node scripts/tool.mjs lab/agents-bench.ts [AGENTS [MINUTES]]`.
 */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { setMaxListeners } from 'node:events';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { DiskShelf } from '@/agent';
import { keepStandingLine } from '@/agent/standing-line';
import { median, percentile, seededRandom, type Lane, type MachineFacts, type RunSamples } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import { deviceCookieValue } from '@/services';
import { NEW_DEVICE, NEW_LINE, NEW_PEER, NEW_PLAN, NEW_SITE, openStore } from '@/store';
import { memoryOutbox, RunSession, type Post } from '@/session';
import { ConsoleClock, LaneKeeper } from '@/session/lanes';
import { AGENT_PROTOCOL, type AgentHello, type RunFacts } from '@/wire';
import { readSigningKey } from '@/wire/peer/ticket';
import { childOfTool } from './end-together';
import { ended, lineOf } from './net/command';

const AGENTS = Number(process.argv[2] ?? 200);
const MINUTES = Number(process.argv[3] ?? 20);
const OFFICES = 30;
const EVERY_MINUTES = 20;
/** Each agent draws its own moment between two times: their runs come one by one. */
const SPREAD_MINUTES = 20;
/** The first time comes when all stand by, minutes from now. */
const FIRST_MINUTES = 2;
const DAY_MINUTES = 24 * 60;
/** From a grant to the hand-in, as a quick run takes, ms. */
const RUN_MS = 9000;
const PORT = 4840;
/** Until all stand by and lanes run, ms. */
const SETTLE_MS = 60_000;
const TICKS_A_SECOND = 100;

const data = mkdtempSync(join(tmpdir(), 'bent-straw-agents-'));
const random = seededRandom(7);
const origin = `http://127.0.0.1:${PORT}`;

function startConsole() {
  // Here all of them come by one address, which in thirty offices they do not.
  const many = ['--strangers', String(4 * AGENTS)];
  const words = [
    'dist/launch.js',
    'start',
    '--no-agent',
    '--data',
    data,
    '--port',
    String(PORT),
    '--office',
    'First',
    ...many,
  ];
  return childOfTool(spawn(process.execPath, words, { stdio: ['pipe', 'pipe', 'inherit'] }));
}

// A first start makes the data folder with its keys.
/** Every so often through the day, beginning soon. */
function minutesFromNow(): number[] {
  const now = new Date();
  const first = now.getHours() * 60 + now.getMinutes() + FIRST_MINUTES;
  return Array.from(
    { length: DAY_MINUTES / EVERY_MINUTES },
    (_, index) => (first + index * EVERY_MINUTES) % DAY_MINUTES,
  );
}

const first = startConsole();
await lineOf(first, /Stop with/);
first.kill('SIGINT');
await ended(first);

const store = await openStore(join(data, 'bent-straw.sqlite'));
const agents: { readonly id: string; readonly siteId: string }[] = [];
const nowMs = Date.now();
for (let number = 0; number < OFFICES; number += 1) {
  const siteId = `office-${number}`;
  const joinCode = createHash('sha256').update(siteId).digest('hex').slice(0, 6).toUpperCase();
  await store.sites.saveSite({
    ...NEW_SITE,
    id: siteId,
    name: `Office ${number}`,
    joinCode,
    joinCodeUntilMs: nowMs + 1e9,
  });
  await store.sites.saveLine({ ...NEW_LINE, id: `line-${number}`, siteId, name: 'Line', provider: 'Tarnfell Fibre' });
  await store.sites.savePlan({
    ...{ ...NEW_PLAN, id: `plan-${number}`, lineId: `line-${number}`, name: '500/100', downBps: 500e6, upBps: 100e6 },
    ...{ leastDownBps: null, leastUpBps: null, basis: 'payload', fullFrom: 0.9, validFromMs: 0 },
  });
  await store.sites.saveLineSwitch({ id: `switch-${number}`, siteId, lineId: `line-${number}`, atMs: 0 });
  await store.sites.savePeer({
    ...NEW_PEER,
    id: `peer-${number}`,
    siteId,
    name: 'Outside',
    reach: 'internet',
    address: 'http://127.0.0.1:9',
  });
  await store.schedules.save({
    ...{ id: `schedule-${number}`, siteId, who: { kind: 'office' }, spreadMinutes: SPREAD_MINUTES, paused: false },
    ...{ byName: 'Bench', madeAtMs: nowMs, doneUntilMs: nowMs },
    schedule: {
      days: [0, 1, 2, 3, 4, 5, 6],
      times: { kind: 'at', minutes: minutesFromNow() },
      ...{ reaches: ['internet'], profile: 'quick' },
    },
  });
}
for (let number = 0; number < AGENTS; number += 1) {
  const siteId = `office-${number % OFFICES}`;
  const id = `agent-${number}`;
  const link = { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 } as const;
  await store.sites.saveDevice({
    ...{ ...NEW_DEVICE, id, siteId, name: `Box ${number}`, kind: 'box', spotId: null, link },
    // The undated cookie of such a device is enough.
    simulated: true,
  });
  agents.push({ id, siteId });
}
await store.close();

const signingKey = readSigningKey(readFileSync(join(data, 'console-key.pem'), 'utf8'));
const program = startConsole();
await lineOf(program, /Stop with/);
program.stdout!.resume();

const facts: MachineFacts = {
  ...{ system: 'Debian GNU/Linux 12, x64', gateway: { address: '192.0.2.1', link: 'eth0' }, gatewayMs: 0.4 },
  resolvers: ['198.51.100.53', '198.51.100.54'],
  links: [
    {
      ...{ name: 'eth0', medium: 'wired', up: true, speedMbps: 1000, duplex: 'full', mtuBytes: 1500, driver: 'r8169' },
      addresses: ['192.0.2.7'],
    },
  ],
};
const helloOf = (): AgentHello => ({
  ...{
    version: '0.1.0',
    protocol: AGENT_PROTOCOL,
    facts,
    clockMs: Date.now(),
    outbox: 0,
    neighbours: [],
    can: ['lanes'],
  },
});
const line = {
  ...{ idleMs: 15, jitterMs: 0.4 },
  down: { rateBps: 486e6, queueMs: 25, swing: 0.004, dips: 0 },
  up: { rateBps: 97e6, queueMs: 40, swing: 0.004, dips: 0 },
};
const SAMPLES: RunSamples = { ...simulateSamples(line, seededRandom(5)), profile: 'quick' };
const FACTS: RunFacts = {
  ...{ sameMachine: false, ipVersion: 4, pageHiddenMs: 0, peerLinkBps: null, userAgent: 'bench', receipt: null },
};
const stop = new AbortController();
setMaxListeners(2 * AGENTS, stop.signal);
const shelves = mkdtempSync(join(tmpdir(), 'bent-straw-agents-'));
let [recorded, refused] = [0, 0];
/** How many lanes each was told to keep. */
const lanesOf = new Map<string, number>();

function playAgent({ id }: { readonly id: string }): void {
  const cookie = deviceCookieValue({ signingKey }, id);
  const post: Post = async (path, body) => {
    const send = () =>
      fetch(new URL(path, origin), {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', Cookie: `bent-straw-device=${cookie}` },
        body: JSON.stringify(body),
      });
    // A connection that was kept may have been closed meanwhile; an agent tries again as well.
    return send().catch(send);
  };
  const clock = new ConsoleClock();
  const keeper = new LaneKeeper({
    ...{
      clock,
      post,
      shelf: new DiskShelf(join(shelves, id), origin),
      onBeats: () => undefined,
      onNews: () => undefined,
    },
    open: (lane: Lane, onEcho, timeMs) => {
      const timer = setInterval(() => onEcho({ atMs: timeMs(), ms: 8 + 4 * random() }), lane.everyMs);
      return { close: () => clearInterval(timer) };
    },
  });
  const measure = async (turnId: string) => {
    const session = new RunSession({
      ...{ post, outbox: memoryOutbox(), onState: () => undefined },
      // As long as a quick run takes, and with what one brings.
      measure: async () => {
        await sleep(RUN_MS);
        return { outcome: 'finished', samples: SAMPLES, facts: FACTS };
      },
    });
    const ended = await session.run({
      ...{ code: null, deviceId: id, deviceName: null, deviceKind: null, spotName: null, told: [], noticed: [] },
      ...{ link: { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 }, reach: 'internet', profile: 'quick', turnId },
      ...{ holdMs: 0, loadsWeb: true, pacedMbps: null },
    });
    if (ended?.status === 'done' && ended.answer.status === 'finished') recorded += 1;
    else refused += 1;
  };
  void keepStandingLine({
    ...{ origin, cookie: () => cookie, hello: () => Promise.resolve(helloOf()), signal: stop.signal },
    onHeard: () => undefined,
    onOrder: (order) => {
      if (order.kind === 'lanes') {
        clock.learn(order.nowMs);
        lanesOf.set(id, order.lanes.length);
        keeper.set(order.lanes, order.live);
      }
      if (order.kind === 'asked') void sleep(order.inMs).then(() => measure(order.turnId));
    },
  });
}

/** Processor time of every part of the program so far, s, by the file that it runs. */
function processorTime(): ReadonlyMap<string, number> {
  const found = new Map<string, number>();
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name)))
    try {
      const words = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
      const part = /dist\/([\w-]+)\.js/.exec(words)?.[1];
      if (part === undefined || !words.includes(data)) {
        if (part !== 'peer-main' || !words.includes(`"port":${PORT}`)) continue;
      }
      const [, rest] = readFileSync(`/proc/${pid}/stat`, 'utf8').split(/\) /);
      const fields = rest!.split(' ');
      found.set(part, (found.get(part) ?? 0) + (Number(fields[11]) + Number(fields[12])) / TICKS_A_SECOND);
    } catch {
      // It ended meanwhile.
    }
  return found;
}

for (const agent of agents) {
  playAgent(agent);
  await sleep(20);
}
await sleep(SETTLE_MS);
const [before, fromMs] = [processorTime(), Date.now()];
await sleep(MINUTES * 60_000);
const [after, untilMs] = [processorTime(), Date.now()];
const seconds = (untilMs - fromMs) / 1000;
console.log(
  `\n${AGENTS} agents of ${OFFICES} offices, ${[...lanesOf.values()].reduce((sum, lanes) => sum + lanes, 0)} lanes in all, a run every ${EVERY_MINUTES} minutes, ${MINUTES} minutes`,
);
console.log(`runs recorded: ${recorded}, refused: ${refused}`);
console.log('| part | share of a core |\n|---|---|');
for (const [part, total] of after)
  console.log(`| ${part} | ${((100 * (total - (before.get(part) ?? 0))) / seconds).toFixed(1)} % |`);

stop.abort();
program.kill('SIGINT');
await ended(program);
const kept = await openStore(join(data, 'bent-straw.sqlite'));
const times = (
  await Promise.all(
    Array.from({ length: OFFICES }, (_, number) =>
      kept.schedules.timesOf(`office-${number}`, fromMs, untilMs - 60_000),
    ),
  )
).flat();
const waits: number[] = [];
for (const { beginAtMs, runId } of times) {
  const run = runId === null ? null : await kept.runs.byId(runId);
  if (run !== null) waits.push((run.startedAtMs - beginAtMs) / 1000);
}
await kept.close();
const missed = times.filter(({ state }) => state === 'missed').length;
console.log(`times: ${times.length}, made ${waits.length}, missed ${missed}`);
console.log(
  `from the time drawn to the grant, with the 4 s of notice and whatever waited before it on the same line: median ${median(waits)?.toFixed(1)} s, p95 ${percentile(waits, 0.95)?.toFixed(1)} s, worst ${Math.max(...waits).toFixed(1)} s`,
);
rmSync(data, { recursive: true, force: true });
rmSync(shelves, { recursive: true, force: true });
process.exit(0);
