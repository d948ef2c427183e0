import { once } from 'node:events';
import { WebSocket } from 'ws';
import { PEER_PATHS, STREAM_FRAME_BYTES } from '@/wire';
import { controlMessage, startTestPeer } from '../peer-for-tests';

type TestPeer = Awaited<ReturnType<typeof startTestPeer>>;

describe('a stream over a WebSocket', () => {
  let peer: TestPeer;
  beforeEach(async () => {
    peer = await startTestPeer();
  });
  afterEach(() => peer.close());

  const path = (session: string, way: 'down' | 'up', stream = 0) =>
    `${PEER_PATHS.stream}?session=${session}&stream=${stream}&way=${way}`;
  async function open(session: string, way: 'down' | 'up', stream = 0): Promise<WebSocket> {
    const socket = new WebSocket(`${peer.origin.replace('http', 'ws')}${path(session, way, stream)}`);
    await once(socket, 'open');
    return socket;
  }

  it('sends frames until the client has had enough', async () => {
    const { session } = await peer.open();
    const socket = await open(session, 'down');
    let bytes = 0;
    await new Promise<void>((resolve) =>
      socket.on('message', (data: Buffer) => {
        bytes += data.length;
        if (bytes > 20e6) resolve();
      }),
    );
    socket.terminate();
    await once(socket, 'close');
    // Its place is free again.
    for (const stream of [0, 1]) (await open(session, 'down', stream)).terminate();
  });

  it('counts what comes up on the stream that it names', async () => {
    const { session } = await peer.open();
    const control = await peer.socket(PEER_PATHS.control, session);
    const counted = controlMessage(
      control,
      (message) => message.kind === 'upload-counters' && message.bytes[1] === 5 * STREAM_FRAME_BYTES,
    );
    const socket = await open(session, 'up', 1);
    for (let frames = 0; frames < 5; frames += 1) socket.send(Buffer.alloc(STREAM_FRAME_BYTES));
    expect(await counted).toMatchObject({ bytes: [0, 5 * STREAM_FRAME_BYTES] });
    socket.terminate();
  });

  it('is ended by the limit of bytes, which is told, in either direction', async () => {
    for (const way of ['down', 'up'] as const) {
      const { session } = await peer.open({ limits: { seconds: 30, bytes: 200_000, streams: 2 } });
      const control = await peer.socket(PEER_PATHS.control, session);
      const told = controlMessage(control, ({ kind }) => kind === 'limit-reached');
      const socket = await open(session, way);
      let received = 0;
      socket.on('message', (data: Buffer) => (received += data.length));
      const closed = once(socket, 'close');
      if (way === 'up') for (let frames = 0; frames < 20; frames += 1) socket.send(Buffer.alloc(STREAM_FRAME_BYTES));
      await told;
      await closed;
      expect(received).toBeLessThanOrEqual(200_000);
    }
  });

  it('is ended with its session', async () => {
    const { session } = await peer.open();
    const control = await peer.socket(PEER_PATHS.control, session);
    const socket = await open(session, 'down');
    control.close();
    await once(socket, 'close');
  });

  it('is refused to strangers, beyond the limit of streams, and for a direction that is not granted', async () => {
    const code = async (at: string) => JSON.parse((await peer.refusal(at)).body) as { code: string };
    expect(await code(path('made-up', 'down'))).toMatchObject({ code: 'session-unknown' });
    const { session } = await peer.open();
    const held = [await open(session, 'up', 0), await open(session, 'up', 1)];
    expect(await code(path(session, 'up', 2))).toMatchObject({ code: 'limit-streams' });
    expect(await code(path(session, 'down', 99))).toMatchObject({ code: 'stream-malformed' });
    held.forEach((socket) => socket.terminate());
    const onlyDown = await peer.open({ directions: ['down'] });
    expect(await code(path(onlyDown.session, 'up'))).toMatchObject({ code: 'direction-not-allowed' });
  });

  it('is closed on text, and on a frame that is too large', async () => {
    const { session } = await peer.open();
    for (const odd of ['text', Buffer.alloc(STREAM_FRAME_BYTES + 1)]) {
      const socket = await open(session, 'up');
      socket.send(odd);
      await once(socket, 'close');
    }
  });
});
