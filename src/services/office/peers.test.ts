import { generateKeyPairSync } from 'node:crypto';
import { startTestPeer } from '@/peer/peer-for-tests';
import { furnish, openTestConsole, orderFor, startRun, STRANGER, type TestConsole } from '../console/console-for-tests';
import { checkPeer } from './peer-check';
import { peerFor } from './peer-choice';
import { acceptPeerKey, pinPeer, savePeer } from './peers';

const ORIGIN = 'http://192.0.2.20:4870';

describe('peers', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
  });
  afterEach(() => console.close());

  const add = async (name: string, address: string) => {
    const saved = await savePeer(console.context, siteId, null, { name, reach: 'internet', address, farSiteId: null });
    if (!saved.ok) throw new Error(saved.fault.code);
    return saved.value;
  };
  const stored = async (id: string) => (await console.context.store.sites.peer(id))!;

  it('of one reach: the one that most runs went to is kept to, until another one is pinned', async () => {
    const other = await add('A nearer one', 'http://198.51.100.7:4870');
    const { runs } = console.context.store;
    const run = await startRun(console.context, { ...STRANGER, code }, orderFor(code, { reach: 'local' }), ORIGIN);
    if (!run.ok) throw new Error(run.fault.code);
    const row = (await runs.byId(run.value.runId))!;
    await runs.insert({ ...row, id: 'earlier', reach: 'internet', peerId: 'outside', status: 'running' });
    await runs.end('earlier', { status: 'finished', reason: null, endedAtMs: 1, report: {} as never }, null);
    expect((await peerFor(console.context, siteId, 'internet', false))!.id).toBe('outside');
    await pinPeer(console.context, other.id);
    expect((await peerFor(console.context, siteId, 'internet', false))!.id).toBe(other.id);
    await pinPeer(console.context, 'outside');
    expect((await stored(other.id)).pinned).toBe(false);
    expect(await peerFor(console.context, siteId, 'tunnel', false)).toBeNull();
  });

  it('are known again by their key; another key stops all runs until it is accepted', async () => {
    const [before, after] = [generateKeyPairSync('ed25519').privateKey, generateKeyPairSync('ed25519').privateKey];
    const first = await startTestPeer({ identity: before });
    const peer = await add('Under test', first.origin);
    await pinPeer(console.context, peer.id);
    expect(await checkPeer(console.context, peer)).toMatchObject({ status: 'answering', keyChanged: false });
    first.close();
    const known = await stored(peer.id);
    expect(known.publicKey).toMatch(/^[\w-]{43}$/);

    const second = await startTestPeer({ identity: after });
    await console.context.store.sites.savePeer({ ...known, address: second.origin });
    expect(await checkPeer(console.context, await stored(peer.id))).toMatchObject({ keyChanged: true });
    const refused = await startRun(console.context, { ...STRANGER, code }, orderFor(code), ORIGIN);
    expect(refused).toMatchObject({ ok: false, fault: { code: 'peer-key-changed', facts: { peer: 'Under test' } } });

    await acceptPeerKey(console.context, peer.id);
    expect(await checkPeer(console.context, await stored(peer.id))).toMatchObject({ keyChanged: false });
    expect((await startRun(console.context, { ...STRANGER, code }, orderFor(code), ORIGIN)).ok).toBe(true);
    second.close();
  });

  it('at another address are other peers: their key is learned anew', async () => {
    const peer = await add('Moved', 'http://198.51.100.7:4870');
    await console.context.store.sites.saveKeys(peer.id, { publicKey: 'x'.repeat(43), otherKey: 'y'.repeat(43) });
    await savePeer(console.context, siteId, peer.id, {
      ...{ name: 'Moved', reach: 'internet', address: 'http://198.51.100.8:4870', farSiteId: null },
    });
    expect(await stored(peer.id)).toMatchObject({ publicKey: null, otherKey: null });
  });
});
