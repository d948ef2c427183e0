import { generateKeyPairSync } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  finalBytes,
  seededRandom,
  type CounterSeries,
  type DirectionReceipt,
  type Receipt,
  type RunSamples,
} from '@/core';
import { simulateSamples, type SimulatedLine } from '@/programs/demo/samples';
import { NEW_PEER, openStore } from '@/store';
import { layDownDatabase } from '@/store/store-for-tests';
import {
  deviceFormSchema,
  type ConsoleFaultCode,
  type DeviceForm,
  type HandIn,
  type LineForm,
  type Outcome,
  type RunFacts,
  type RunGrant,
  type StartRun,
} from '@/wire';
import { publicKeyText, signReceipt, type TicketClaims } from '@/wire/peer/ticket';
import type { Role } from '../access';
import { openPresence, type ConsoleContext } from './console-context';
import { cookieOfDevice } from '../access/device-cookie';
import { handInRun } from '../runs/hand-in-run';
import { NO_LOG } from './log';
import { saveLine } from '../office/lines';
import { saveOffice } from '../office/offices';
import { askForRun } from '../turns';
import type { Visitor } from '../access/visitor';

const START_MS = Date.UTC(2026, 10, 24, 9, 0, 0);
const { privateKey, publicKey } = generateKeyPairSync('ed25519');
/** Of all peers of a test. */
export const PEER_KEYS = generateKeyPairSync('ed25519');

/** A console over a real database in a folder of its own, with a clock that tests move. `onSql`: hears of each statement. */
export async function openTestConsole(onSql?: (sql: string) => void) {
  const folder = mkdtempSync(join(tmpdir(), 'bent-straw-'));
  const file = join(folder, 'test.sqlite');
  let nowMs = START_MS;
  let ids = 0;
  let presence = openPresence();
  await layDownDatabase(file);
  let store = await openStore(file, onSql);
  const context = (): ConsoleContext => ({
    store,
    log: NO_LOG,
    wallMs: () => nowMs,
    newId: () => `test-id-${(ids += 1)}`,
    signingKey: privateKey,
    publicKey: publicKeyText(publicKey),
    port: 4870,
    certificateFingerprint: 'AB:CD',
    agentFile: 'dist/agent.mjs',
    version: '0.1.0',
    printFonts: 'node_modules/@fontsource/atkinson-hyperlegible-next/files',
    makersFile: 'node_modules/oui-data/index.json',
    uploads: join(folder, 'uploads'),
    backups: {
      make: () => Promise.reject(new Error('a test keeps no copies')),
      list: () => [],
      isNightDue: () => false,
    },
    ...presence,
  });
  return {
    file,
    publicKey,
    get context() {
      return context();
    },
    advanceMs: (ms: number) => (nowMs += ms),
    async reopen() {
      await store.close();
      store = await openStore(file, onSql);
      presence = openPresence(nowMs);
    },
    async close() {
      await store.close();
      rmSync(folder, { recursive: true });
    },
  };
}

export type TestConsole = Awaited<ReturnType<typeof openTestConsole>>;

export const LINE_FORM: LineForm = {
  lineName: 'Tarnfell Fibre 500/100',
  provider: 'Tarnfell Fibre',
  downMbps: 500,
  upMbps: 100,
  leastDownMbps: 300,
  leastUpMbps: null,
  basis: 'payload',
  fullFromPercent: 90,
  validFrom: null,
  shown: '',
};

/** An office with a line, this machine as its inside peer and one outside; gives its join code. */
export async function furnish(console: TestConsole): Promise<{ siteId: string; code: string }> {
  const made = await saveOffice(console.context, null, 'Larkspur Bindery');
  if (!made.ok) throw new Error(made.fault.code);
  const site = made.value;
  await saveLine(console.context, site.id, null, LINE_FORM);
  await console.context.store.sites.savePeer({
    id: 'outside',
    siteId: site.id,
    name: 'Hilltop exchange',
    reach: 'internet',
    address: ':4871',
    ...NEW_PEER,
    practice: true,
  });
  for (const { id } of await console.context.store.sites.peersOf(site.id))
    await console.context.store.sites.saveKeys(id, { publicKey: publicKeyText(PEER_KEYS.publicKey), otherKey: null });
  return { siteId: site.id, code: site.joinCode };
}

/** What an honest peer would have seen of these samples. */
export function honestReceipt(samples: RunSamples, { ticket }: Pick<RunGrant, 'ticket'>): Receipt {
  const claims = JSON.parse(Buffer.from(ticket.split('.')[0]!, 'base64url').toString()) as TicketClaims;
  const moved = (...series: readonly (CounterSeries | null)[]): DirectionReceipt => ({
    bytes: series.reduce((sum, each) => sum + (finalBytes(each) ?? 0), 0),
    activeMs: series.reduce((sum, each) => sum + (each === null ? 0 : each.atMs.at(-1)! - each.atMs[0]!), 0),
    streams: [],
  });
  return {
    ...{ session: 'session', runId: claims.runId, ticketId: claims.id, openedMs: 0, endedMs: 20_000 },
    ...{ down: moved(samples.download, samples.bothDown), up: moved(samples.upload, samples.bothUp) },
    ...{ echoes: samples.probes.sentMs.length, sameMachine: false, ipVersion: 4, minRttMs: null, otherSessions: 0 },
  };
}

/** A finished run as it is handed in, with what the peer signed. */
export function handedIn(
  samples: RunSamples,
  grant: Pick<RunGrant, 'ticket'>,
  facts: Partial<RunFacts> = {},
  receipt: Partial<Receipt> = {},
): HandIn {
  const signed = { ...honestReceipt(samples, grant), sameMachine: facts.sameMachine ?? false, ...receipt };
  const text = signReceipt(signed, PEER_KEYS.privateKey);
  return { outcome: 'finished', samples, facts: { ...FACTS, sameMachine: false, ...facts, receipt: text } };
}

/** Asks for a run that nothing stands in the way of. */
export async function startRun(
  context: ConsoleContext,
  visitor: Visitor,
  order: StartRun,
  origin: string,
): Promise<Outcome<RunGrant, ConsoleFaultCode>> {
  const asked = await askForRun(context, visitor, order, origin);
  if (asked.ok && asked.value.status === 'waiting') throw new Error(`waiting: ${asked.value.why}`);
  return asked as Outcome<RunGrant, ConsoleFaultCode>;
}

/** A device as a form sends it. */
export function deviceForm(typed: Readonly<Record<string, string>> = {}): DeviceForm {
  const form = { name: 'Press desk', spotName: 'Workshop', linkChoice: 'wired', negotiatedMbps: '1000', ...typed };
  return deviceFormSchema.parse(form);
}

/** How a line behaves, for runs that nothing has to be known of but their figures. */
export const GOOD_LINE: SimulatedLine = {
  ...{ idleMs: 15, jitterMs: 0.4 },
  down: { rateBps: 486e6, queueMs: 25, swing: 0.004, dips: 0 },
  up: { rateBps: 97e6, queueMs: 212, swing: 0.004, dips: 0 },
};

/** Whoever sends this order: by its code, and with the cookie of the device that it says it is. */
export async function visitorOf(console: TestConsole, { code, deviceId }: StartRun): Promise<Visitor> {
  return { ...STRANGER, code, cookie: deviceId === null ? null : await cookieFor(console, deviceId) };
}

/** The cookie of a device; one that has not asked for a run yet is given one, as if it had. */
export async function cookieFor({ context }: TestConsole, deviceId: string): Promise<string> {
  const device = await context.store.sites.device(deviceId);
  if (device?.cookieAtMs === null) await context.store.sites.saveDevice({ ...device, cookieAtMs: context.wallMs() });
  return cookieOfDevice(context, deviceId);
}

/** A whole run of a device that comes by the code, from asking to the record. */
export async function measured(
  console: TestConsole,
  order: StartRun,
  line: SimulatedLine = GOOD_LINE,
  facts: Partial<RunFacts> = { sameMachine: false },
): Promise<RunGrant> {
  const run = await startRun(console.context, await visitorOf(console, order), order, 'http://192.0.2.20:4870');
  if (!run.ok) throw new Error(run.fault.code);
  const { runId, runKey } = run.value;
  const samples = simulateSamples(line, seededRandom(5));
  await handInRun(console.context, runId, runKey, handedIn(samples, run.value, facts));
  return run.value;
}

export const TECHNICIAN: Role = { kind: 'technician', scope: 'everything', person: null, name: 'Ines' };
export const STRANGER = { code: null, cookie: null, address: '198.51.100.23' } as const;

export function orderFor(code: string | null, changes: Partial<StartRun> = {}): StartRun {
  return {
    code,
    deviceId: null,
    deviceName: 'Press desk',
    deviceKind: null,
    spotName: 'Workshop',
    link: { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 },
    reach: 'internet',
    profile: 'standard',
    told: [],
    noticed: [],
    turnId: null,
    pacedMbps: null,
    loadsWeb: false,
    holdMs: 0,
    ...changes,
  };
}

export const FACTS = {
  sameMachine: true,
  ipVersion: 4,
  pageHiddenMs: 0,
  peerLinkBps: null,
  userAgent: 'test',
  receipt: null,
} as const;

export function finished(samples: RunSamples): HandIn {
  return { outcome: 'finished', samples, facts: FACTS };
}
