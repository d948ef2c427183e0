import { generateKeyPairSync } from 'node:crypto';
import fc from 'fast-check';
import type { Receipt } from '@/core';
import { encodeProbe, PEER_PATHS } from '@/wire';
import { publicKeyText, readReceipt, signReceipt } from '@/wire/peer/ticket';
import { controlMessage, startTestPeer } from '../peer-for-tests';

const { privateKey, publicKey } = generateKeyPairSync('ed25519');
const KEY = publicKeyText(publicKey);

type TestPeer = Awaited<ReturnType<typeof startTestPeer>>;

describe('what a peer signs for', () => {
  let peer: TestPeer;
  beforeEach(async () => {
    peer = await startTestPeer({ identity: privateKey });
  });
  afterEach(() => peer.close());

  const upload = (session: string, stream: number, bytes: number) =>
    fetch(peer.url(PEER_PATHS.up, session, stream), { method: 'POST', body: Buffer.alloc(bytes) });

  it('is what it sent, received and echoed, and how it saw the client', async () => {
    const ticket = peer.ticket({ id: 'ticket-of-this-run', runId: 'run-1' });
    const { session } = (await (await peer.postTicket(ticket)).json()) as { session: string };
    const control = await peer.socket(PEER_PATHS.control, session);
    const probe = await peer.socket(PEER_PATHS.probe, session);
    for (const sequence of [0, 1, 2]) {
      const echoed = new Promise((resolve) => probe.once('message', resolve));
      probe.send(encodeProbe(sequence));
      await echoed;
    }
    await upload(session, 0, 70_000);
    await upload(session, 0, 30_000);
    await upload(session, 1, 5_000);
    const down = await fetch(`${peer.url(PEER_PATHS.down, session, 0)}&bytes=200000`);
    expect((await down.arrayBuffer()).byteLength).toBe(200_000);

    const told = controlMessage(control, ({ kind }) => kind === 'receipt');
    control.send(JSON.stringify({ kind: 'receipt' }));
    const { receipt: text } = (await told) as { receipt: string };
    const receipt = readReceipt(text, KEY)!;
    expect(receipt).toMatchObject({
      session,
      runId: 'run-1',
      ticketId: 'ticket-of-this-run',
      echoes: 3,
      sameMachine: true,
    });
    expect(receipt.down.bytes).toBe(200_000);
    expect(receipt.up.bytes).toBe(105_000);
    expect(receipt.up.streams.map(({ stream, bytes }) => [stream, bytes])).toEqual([
      [0, 100_000],
      [1, 5_000],
    ]);
    for (const socket of [control, probe]) socket.close();
  });

  it('is kept for whoever knows the ticket, when the client took it away unasked', async () => {
    const ticket = peer.ticket({ id: 'ticket-of-this-run' });
    const { session } = (await (await peer.postTicket(ticket)).json()) as { session: string };
    const control = await peer.socket(PEER_PATHS.control, session);
    await upload(session, 0, 1000);
    const askFor = (id: string) => fetch(`${peer.origin}${PEER_PATHS.receipt}?ticket=${id}`);
    expect((await askFor('ticket-of-this-run')).status).toBe(404);
    const closed = new Promise((resolve) => control.once('close', resolve));
    control.close();
    await closed;
    const { receipt } = (await (await askFor('ticket-of-this-run')).json()) as { receipt: string };
    expect(readReceipt(receipt, KEY)!.up.bytes).toBe(1000);
    expect(((await (await askFor('another')).json()) as { code: string }).code).toBe('receipt-unknown');
  });

  it('sends as many bytes as were asked for, and refuses a number that is none', async () => {
    const { session } = await peer.open();
    const asked = (bytes: string) => fetch(`${peer.url(PEER_PATHS.down, session, 0)}&bytes=${bytes}`);
    const whole = await asked('1234567');
    expect(whole.headers.get('content-length')).toBe('1234567');
    expect((await whole.arrayBuffer()).byteLength).toBe(1_234_567);
    for (const wrong of ['0', '-4', 'many', '1e9'])
      expect(((await (await asked(wrong)).json()) as { code: string }).code).toBe('bytes-malformed');
  });
});

describe('a ticket', () => {
  it('that names another peer opens nothing here', async () => {
    const peer = await startTestPeer({ identity: privateKey });
    const other = publicKeyText(generateKeyPairSync('ed25519').publicKey);
    const refused = await peer.postTicket(peer.ticket({ peerKey: other }));
    expect([refused.status, ((await refused.json()) as { code: string }).code]).toEqual([401, 'ticket-elsewhere']);
    expect((await peer.postTicket(peer.ticket({ peerKey: KEY }))).status).toBe(201);
    peer.close();
  });

  it('of a device ends what that device still holds open: nobody takes all places by starting over', async () => {
    const peer = await startTestPeer({ mostSessions: 2 });
    const open = async () => (await peer.postTicket(peer.ticket({ deviceId: 'one' }))).status;
    for (let again = 0; again < 10; again += 1) expect(await open()).toBe(201);
    expect((await peer.postTicket(peer.ticket({ deviceId: 'two' }))).status).toBe(201);
    peer.close();
  });
});

describe('a session', () => {
  let peer: TestPeer;
  beforeEach(async () => {
    peer = await startTestPeer();
  });
  afterEach(() => peer.close());

  it('has one control socket and two probe sockets, and no more', async () => {
    const { session } = await peer.open();
    const first = await peer.socket(PEER_PATHS.control, session);
    const probes = [await peer.socket(PEER_PATHS.probe, session), await peer.socket(PEER_PATHS.probe, session)];
    for (const path of [PEER_PATHS.control, PEER_PATHS.probe]) {
      const { status, body } = await peer.refusal(`${path}?session=${session}`);
      expect([status, (JSON.parse(body) as { code: string }).code]).toEqual([429, 'limit-sockets']);
    }
    probes[0]!.close();
    await new Promise((resolve) => probes[0]!.once('close', resolve));
    const third = await peer.socket(PEER_PATHS.probe, session);
    for (const socket of [first, ...probes, third]) socket.close();
  });

  it('that floods its probe socket loses it, and is charged for what it sent', async () => {
    const { session } = await peer.open({ limits: { seconds: 30, bytes: 50_000, streams: 2 } });
    const control = await peer.socket(PEER_PATHS.control, session);
    const limited = controlMessage(control, ({ kind }) => kind === 'limit-reached');
    const flooding = await peer.socket(PEER_PATHS.probe, session);
    const closed = new Promise<number>((resolve) => flooding.once('close', resolve));
    for (let sequence = 0; sequence < 600; sequence += 1) flooding.send(encodeProbe(sequence));
    expect(await closed).toBe(1008);
    await limited;
    control.close();
  });
});

describe('a receipt as text', () => {
  const receipt: Receipt = {
    ...{ session: 's', runId: 'r', ticketId: 't', openedMs: 1, endedMs: 2, echoes: 3, sameMachine: false },
    ...{ ipVersion: 6, minRttMs: 0.4, otherSessions: 0 },
    down: { bytes: 5, activeMs: 1.5, streams: [{ stream: 0, bytes: 5, firstMs: 1, lastMs: 2 }] },
    up: { bytes: 0, activeMs: 0, streams: [] },
  };
  const text = signReceipt(receipt, privateKey);

  it('is read back by the key that signed it, and by no other', () => {
    expect(readReceipt(text, KEY)).toEqual(receipt);
    expect(readReceipt(text, publicKeyText(generateKeyPairSync('ed25519').publicKey))).toBeNull();
  });

  it('does not survive any change, and never makes the reader throw', () => {
    fc.assert(
      fc.property(fc.nat(text.length - 2), fc.constantFrom(...'ABCabc019_-.'), (at, character) => {
        fc.pre(text[at] !== character);
        expect(readReceipt(text.slice(0, at) + character + text.slice(at + 1), KEY)).toBeNull();
      }),
    );
    fc.assert(fc.property(fc.string(), (nonsense) => expect(readReceipt(nonsense, KEY)).toBeNull()));
  });
});
