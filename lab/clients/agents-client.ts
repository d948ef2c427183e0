import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { openStore } from '@/store';
import { makeApiToken, type ConsoleContext } from '@/services';
import { childOfTool } from '../end-together';
import type { LabLine } from '../net/lab-line';
import type { LabProgram } from '../net/lab-program';
import type { LabClient, LabRun } from './lab-client';

const NEAR = 'Near box';
const FAR = 'Far box';
/** Of the UDP of a paced run. */
export const PACED_MBPS = 5;
const LOOK_MS = 500;
const JOINED_MS = 60_000;
/** From the asking to the result: the notice, a thorough run, the hand-in. */
const RUN_MS = 180_000;

/** An agent as it ships, that joins and stands by. */
function startAgent(netns: string, joinAddress: string, name: string, home: string): ChildProcess {
  const words = ['netns', 'exec', netns, process.execPath, 'dist/agent.mjs', 'join', joinAddress, '--name', name];
  const env = { ...process.env, HOME: home, XDG_STATE_HOME: home };
  return childOfTool(spawn('ip', words, { env, stdio: 'ignore' }));
}

/** Two agents at the two ends of a line, of which the near one measures to the far one when the console's API is asked for that. */
export async function agentsClient(line: LabLine, { origin, joinAddress, data }: LabProgram): Promise<LabClient> {
  const homes = [0, 1].map(() => mkdtempSync(join(tmpdir(), 'bent-straw-lab-')));
  const agents = [
    startAgent(line.netns('client'), joinAddress, NEAR, homes[0]!),
    startAgent(line.netns('peer'), joinAddress, FAR, homes[1]!),
  ];
  const store = await openStore(join(data, 'bent-straw.sqlite'));
  const close = async () => {
    for (const agent of agents) agent.kill('SIGINT');
    await store.close();
    for (const home of homes) rmSync(home, { recursive: true, force: true });
  };
  const context = { store, wallMs: () => Date.now() } as unknown as ConsoleContext;
  const token = await makeApiToken(context, { name: 'Lab', scope: 'measure', days: 1 }, 'Lab');
  if (!token.ok) throw new Error(token.fault.code);
  const [site] = await store.sites.all();
  const deviceId = async (name: string) => {
    for (const giveUpMs = Date.now() + JOINED_MS; Date.now() < giveUpMs; await sleep(LOOK_MS)) {
      const found = (await store.sites.devicesOf(site!.id)).find((device) => device.name === name);
      if (found !== undefined && (await store.agents.byDevice(found.id)) !== null) return found.id;
    }
    throw new Error(`${name} did not join`);
  };
  const [near, far] = [await deviceId(NEAR), await deviceId(FAR)];

  /** Asked through the network of the peer: the console answers to the names and addresses of its own machine alone. */
  const ask = (body: object): Promise<{ readonly turnId?: string; readonly detail?: string }> =>
    new Promise((resolve, reject) => {
      const script = `fetch(process.argv[1], { method: 'POST', body: process.argv[2],
        headers: { Authorization: process.argv[3], 'Content-Type': 'application/json' } })
        .then(async (answer) => console.log(await answer.text()))`;
      const words = ['netns', 'exec', line.netns('peer'), process.execPath, '--input-type=module', '-e', script];
      const child = childOfTool(
        spawn('ip', [...words, `${origin}/api/v1/between`, JSON.stringify(body), `Bearer ${token.value}`], {
          stdio: ['ignore', 'pipe', 'inherit'],
        }),
      );
      let said = '';
      child.stdout!.on('data', (part: Buffer) => (said += part.toString()));
      child.once('error', reject);
      child.once('exit', () => resolve(JSON.parse(said) as { turnId?: string; detail?: string }));
    });

  const resultOf = async (turnId: string, startedMs: number): Promise<LabRun> => {
    for (const giveUpMs = startedMs + RUN_MS; performance.now() < giveUpMs; await sleep(LOOK_MS)) {
      const tookMs = performance.now() - startedMs;
      const turn = await store.turns.byId(turnId);
      const runId = turn?.runId ?? null;
      const run = runId === null ? null : await store.runs.byId(runId);
      if (run === null || run.status === 'running') continue;
      const samples = await store.runs.samples(run.id);
      if (run.status === 'finished' && samples !== null) return { status: 'finished', samples, tookMs };
      return { status: 'unfinished', sentence: run.reason ?? run.status, tookMs };
    }
    return { status: 'unfinished', sentence: 'nothing was handed in', tookMs: performance.now() - startedMs };
  };
  return {
    name: 'Agents',
    run: async (_, profile) => {
      const startedMs = performance.now();
      const pacedMbps = profile === 'paced' ? PACED_MBPS : null;
      const asked = await ask({ deviceId: near, farDeviceId: far, profile, pacedMbps });
      if (asked.turnId !== undefined) return resultOf(asked.turnId, startedMs);
      return { status: 'unfinished', sentence: asked.detail ?? 'no turn', tookMs: performance.now() - startedMs };
    },
    close,
  };
}
