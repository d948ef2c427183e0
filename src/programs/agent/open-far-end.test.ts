import { generateKeyPairSync, randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startRun, type RunNews } from '@/client';
import { openNodeTransport } from '@/client/node';
import { finalBytes, RUN_PROFILES, type RunProfile } from '@/core';
import type { RunGrant } from '@/wire';
import { publicKeyText, readReceipt, signTicket } from '@/wire/peer/ticket';
import { openFarEnd } from './open-far-end';

const CONSOLE = generateKeyPairSync('ed25519');
const SHORT: RunProfile = {
  ...RUN_PROFILES.standard,
  ...{ idleMs: 300, mostDirectionMs: 400, mostSettleMs: 200, openDeadlineMs: 3000, silenceMs: 400 },
  streams: { first: 2, most: 2 },
};

describe('an agent as the far end of a run', () => {
  let folder: string;
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'bent-straw-far-end-'))));
  afterEach(() => rmSync(folder, { recursive: true }));
  const open = () => openFarEnd('Shop box', folder, publicKeyText(CONSOLE.publicKey));
  const ticketFor = (peerKey: string, key = CONSOLE.privateKey) =>
    signTicket(
      {
        ...{ id: randomUUID(), runId: 'run', deviceId: 'device', peerKey, directions: ['down', 'up'] },
        ...{
          limits: { seconds: 30, bytes: 1e12, streams: 2 },
          issuedAtMs: Date.now(),
          expiresAtMs: Date.now() + 60_000,
        },
      },
      key,
    );
  const run = (port: number, ticket: string) =>
    new Promise<Exclude<RunNews, { kind: 'progress' }>>((resolve) => {
      const grant: RunGrant = {
        ...{ runId: 'run', runKey: 'k', ticket, peer: { name: 'far', baseUrl: `http://127.0.0.1:${port}` }, web: null },
        ...{ profile: 'standard', pacedBps: null, leastDirectionMs: 0, deviceId: 'd', deviceName: 'device' },
        yardstick: { downBps: null, upBps: null },
      };
      startRun(
        openNodeTransport(grant, { authenticated: true }),
        SHORT,
        (news) => news.kind !== 'progress' && resolve(news),
      );
    });

  it('measures both ways and over UDP, and signs for it with a key that it keeps', async () => {
    const farEnd = await open();
    const news = await run(farEnd.port, ticketFor(farEnd.publicKey));
    farEnd.close();
    if (news.kind !== 'finished') throw new Error(news.kind);
    expect(finalBytes(news.samples.download)).toBeGreaterThan(1e6);
    expect(finalBytes(news.samples.upload)).toBeGreaterThan(1e6);
    expect(news.samples.udp!.peerReceived).toBeGreaterThan(0);
    expect(readReceipt(news.receipt!, farEnd.publicKey)).toMatchObject({ runId: 'run' });
    const again = await open();
    expect(again.publicKey).toBe(farEnd.publicKey);
    again.close();
    expect(statSync(join(folder, 'far-end-key.pem')).mode & 0o777).toBe(0o600);
  });

  it('does nothing for whoever has no ticket of the console that asked', async () => {
    const farEnd = await open();
    const stranger = generateKeyPairSync('ed25519').privateKey;
    expect(await run(farEnd.port, ticketFor(farEnd.publicKey, stranger))).toMatchObject({ reason: 'peer-refused' });
    farEnd.close();
    expect(await run(farEnd.port, ticketFor(farEnd.publicKey))).toMatchObject({ reason: 'peer-unreachable' });
  });

  it('takes another port where its own is in use', async () => {
    const [one, other] = [await open(), await open()];
    expect(one.port).not.toBe(other.port);
    one.close();
    other.close();
  });

  it('opens nothing for a text that is no key', async () => {
    await expect(openFarEnd('Shop box', folder, 'nonsense')).rejects.toThrow('no key');
  });
});
