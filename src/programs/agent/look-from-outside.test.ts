import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { doLook } from '@/agent';
import { lookFromOutside } from '@/agent/look/outside';
import { lookSentence } from '@/core';
import { startTestPeer } from '@/peer/peer-for-tests';

type TestPeer = Awaited<ReturnType<typeof startTestPeer>>;
const never = new AbortController().signal;

describe('this office from outside', () => {
  let peer: TestPeer;
  beforeEach(async () => {
    peer = await startTestPeer();
  });
  afterEach(() => peer.close());

  const farOf = (address = peer.origin, ticket = peer.ticket()) => ({ name: 'outside peer', address, ticket });
  const look = (far: ReturnType<typeof farOf> | null, ports: number[] = [], origin = 'http://console.example') =>
    lookFromOutside({ what: 'outside', ports }, far, {
      ...{ signal: never, origin, askRouter: () => Promise.resolve('203.0.113.9') },
    });
  const codeOf = (looked: Promise<unknown>) => looked.then(String, (error: { code?: string }) => error.code);

  it('is looked at by a peer: the address that it sees, and which ports answer there', async () => {
    const listening = createServer();
    await once(listening.listen(0, '127.0.0.1'), 'listening');
    const open = (listening.address() as AddressInfo).port;
    const shut = createServer();
    await once(shut.listen(0, '127.0.0.1'), 'listening');
    const closed = (shut.address() as AddressInfo).port;
    shut.close();
    const found = await look(farOf(), [open, closed]);
    listening.close();
    expect(found).toMatchObject({
      ...{ what: 'outside', peer: 'outside peer', ownAddress: '127.0.0.1', seenAddress: '127.0.0.1' },
      ...{ routerAddress: '203.0.113.9', ownIpv6: expect.any(Boolean) },
      ports: [
        { port: open, state: 'open' },
        { port: closed, state: 'refused' },
      ],
    });
    // One that sees loopback looks from nowhere outside, and it is said.
    expect(lookSentence(found, null)).toContain('is inside, or behind the tunnel, and says nothing of outside');
  });

  it('finds the console itself where that is the far end', async () => {
    expect(await look(farOf('/'), [], `${peer.origin}/any`)).toMatchObject({ seenAddress: '127.0.0.1', ports: [] });
  });

  it('says what is in the way', async () => {
    expect(await codeOf(look(null))).toBe('no-outside');
    expect(await codeOf(look(farOf('http://127.0.0.1:1')))).toBe('outside-away');
    expect(await codeOf(look(farOf('no address')))).toBe('outside-away');
    expect(await codeOf(look(farOf(peer.origin, 'forged')))).toBe('outside-busy');
    const used = farOf();
    await look(used);
    expect(await codeOf(look(used))).toBe('outside-busy');
    await expect(doLook({ what: 'outside', ports: [] }, never)).rejects.toThrow('Set one up');
  });

  it('tells a peer of an earlier version, which cannot look, from one that is away', async () => {
    const opened = {
      ...{ session: 'x'.repeat(24), sameMachine: false, ipVersion: 4, interfaceBps: null },
      limits: { seconds: 30, bytes: 1e5, streams: 1 },
      info: {
        ...{ product: 'bent-straw-peer', protocol: 1, name: 'old', clock: { wallMs: 1, monotonicMs: 1 } },
        can: { download: true, upload: true, probe: true, udp: false, dataChannel: false },
      },
    };
    const old = createServer((_, response) => response.writeHead(201).end(JSON.stringify(opened)));
    await once(old.listen(0, '127.0.0.1'), 'listening');
    const at = `http://127.0.0.1:${(old.address() as AddressInfo).port}`;
    expect(await codeOf(look(farOf(at), [443]))).toBe('outside-old');
    old.close();
  });
});
