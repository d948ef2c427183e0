import type { RTCDataChannel, RTCPeerConnection } from 'werift';
import { encodeChannelEcho } from '@/wire';
import type { UdpCount } from '../session/session';
import { startStunAnswerer } from './stun-answerer';

export interface ChannelHostOptions {
  /** UDP ports of the data channels, both ends included. */
  readonly ports: readonly [number, number];
}

/** What a browser gets back for its offer, and the count of what then comes. */
export interface OpenedChannel {
  readonly answer: string;
  readonly count: UdpCount;
}

/** Bytes of a message with its headers on the wire, there and back; what a session is charged with. */
const WIRE_BYTES = 2 * 120;

/**
 * The stack takes "no retransmission" (0) for "not limited" and would send lost echoes again, which hides their loss
 * (seen in the lab: nothing was ever lost on the way down). Anything between 0 and 1 has it give a lost echo up at once.
 */
function giveUpAtOnce(channel: RTCDataChannel): void {
  Object.assign(channel['parameters'], { maxRetransmits: 0.5 });
}

/**
 * Answers browsers over unordered data channels without retransmission: the only UDP that a page may send. Each message
 * is echoed with a number of the peer's own, so that loss is told apart by direction.
 */
export class ChannelHost {
  readonly #open = new Set<RTCPeerConnection>();

  private constructor(
    private readonly Connection: typeof RTCPeerConnection,
    private readonly options: ChannelHostOptions,
    private readonly stun: Awaited<ReturnType<typeof startStunAnswerer>>,
  ) {}

  static async start(options: ChannelHostOptions): Promise<ChannelHost> {
    // Only who opens channels needs it, and it takes long to load.
    const { RTCPeerConnection: Connection } = await import('werift');
    return new ChannelHost(Connection, options, await startStunAnswerer());
  }

  /** Whether a further channel finds a port. */
  get hasRoom(): boolean {
    return this.#open.size < this.options.ports[1] - this.options.ports[0];
  }

  /** Rejects when the offer is not one. `spend`: whether so many bytes may still be moved. */
  async open(offer: string, spend: (bytes: number) => boolean): Promise<OpenedChannel> {
    const [from, to] = this.options.ports;
    const connection = new this.Connection({
      iceServers: [{ urls: `stun:127.0.0.1:${this.stun.port}` }],
      icePortRange: [from, to],
    });
    this.#open.add(connection);
    const close = () => {
      if (!this.#open.delete(connection)) return;
      void connection.close().catch(() => undefined);
    };
    let received = 0;
    const distinct = new Set<number>();
    connection.onDataChannel.subscribe((channel) => {
      giveUpAtOnce(channel);
      channel.onMessage.subscribe((data) => {
        const echo = typeof data === 'string' ? null : encodeChannelEcho(data, received);
        if (echo === null || !spend(WIRE_BYTES)) return close();
        received += 1;
        distinct.add((data as Buffer).readUInt32BE(0));
        channel.send(Buffer.from(echo));
      });
    });
    try {
      await connection.setRemoteDescription({ type: 'offer', sdp: offer });
      await connection.setLocalDescription(await connection.createAnswer());
    } catch (error) {
      close();
      throw error;
    }
    return { answer: connection.localDescription!.sdp, count: { received: () => distinct.size, close } };
  }

  close(): void {
    for (const connection of this.#open) void connection.close().catch(() => undefined);
    this.stun.close();
  }
}
