import { channelAnswerSchema, decodeChannelEcho, encodeChannelMessage, PEER_PATHS } from '@/wire';
import { waitForLastAnswers } from '../run/last-answers';
import { peerUrl, type PeerAddress } from '../run/peer-address';
import { errorWords, type TroubleReport } from '../run/trouble-reports';
import type { ChannelOrder, ChannelReport, ChannelSeries } from './channel-messages';

/** Fewer than an agent's: each costs about 130 bytes on the line, there and back. */
const MESSAGES_PER_SECOND = 20;
const OPEN_PATIENCE_MS = 3000;
const LAST_ECHOES_MS = 1500;
const QUIET_MS = 400;

/** What kept a channel from opening, where that is more than an error of the browser. */
class ChannelTrouble extends Error {
  constructor(
    readonly code: TroubleReport['code'],
    readonly detail: string,
  ) {
    super(detail);
  }
}

function troubleOf(error: unknown): TroubleReport {
  if (error instanceof ChannelTrouble) return { code: error.code, detail: error.detail };
  return { code: 'channel-broke', detail: errorWords(error) };
}

/** How far a connection came, for the record: "ICE checking, connecting". */
const stateOf = (connection: RTCPeerConnection) =>
  `ICE ${connection.iceConnectionState}, ${connection.connectionState}`;

/** Opens an unordered channel without retransmission; rejects with what failed. */
async function openChannel(peer: PeerAddress, connection: RTCPeerConnection): Promise<RTCDataChannel> {
  const channel = connection.createDataChannel('probes', { ordered: false, maxRetransmits: 0 });
  channel.binaryType = 'arraybuffer';
  const opened = new Promise<void>((resolve) => (channel.onopen = () => resolve()));
  await connection.setLocalDescription(await connection.createOffer());
  const response = await fetch(peerUrl(peer, PEER_PATHS.channel), {
    method: 'POST',
    body: connection.localDescription!.sdp,
  });
  if (!response.ok) throw new ChannelTrouble('channel-refused', `status ${response.status}`);
  const { answer } = channelAnswerSchema.parse(await response.json());
  await connection.setRemoteDescription({ type: 'answer', sdp: answer });
  await opened;
  return channel;
}

/** The same, not for ever: each step of it may hang in an engine. */
async function openInTime(peer: PeerAddress, connection: RTCPeerConnection): Promise<RTCDataChannel> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    const say = () => reject(new ChannelTrouble('channel-not-open', stateOf(connection)));
    timer = setTimeout(say, OPEN_PATIENCE_MS);
  });
  const opening = openChannel(peer, connection);
  opening.catch(() => undefined);
  return Promise.race([opening, late]).finally(() => clearTimeout(timer));
}

function startSending(channel: RTCDataChannel) {
  const sentMs: number[] = [];
  const rttMs: (number | null)[] = [];
  const reflected: (number | null)[] = [];
  let [duplicates, heard] = [0, 0];
  channel.onmessage = ({ data }: MessageEvent<ArrayBuffer>) => {
    const atMs = performance.now();
    const echo = decodeChannelEcho(data);
    const sent = echo === null ? undefined : sentMs[echo.sequence];
    if (echo === null || sent === undefined) return;
    heard += 1;
    if (reflected[echo.sequence] !== null) duplicates += 1;
    else {
      reflected[echo.sequence] = echo.peerSequence;
      rttMs[echo.sequence] = atMs - sent;
    }
  };
  const send = () => {
    if (channel.readyState !== 'open') return;
    sentMs.push(performance.now());
    rttMs.push(null);
    reflected.push(null);
    channel.send(encodeChannelMessage(sentMs.length - 1));
  };
  let timer = setInterval(send, 1000 / MESSAGES_PER_SECOND);
  const probe = (perSecond: number | null) => {
    clearInterval(timer);
    timer = setInterval(send, 1000 / Math.min(MESSAGES_PER_SECOND, perSecond ?? MESSAGES_PER_SECOND));
  };
  const stop = () => clearInterval(timer);
  const finish = async (): Promise<ChannelSeries | null> => {
    stop();
    await waitForLastAnswers({
      ...{ nowMs: () => performance.now(), mostMs: LAST_ECHOES_MS, quietMs: QUIET_MS },
      missing: () => rttMs.includes(null),
      heard: () => heard,
    });
    if (sentMs.length === 0) return null;
    return { timeOriginMs: performance.timeOrigin, sentMs, rttMs, reflected, duplicates };
  };
  return { probe, stop, finish };
}

/**
 * Serves a worker's orders about the data channel on the page, where alone a browser allows one. Returns what takes an
 * order; it ends with `channel-stop`.
 */
export function serveChannel(report: (message: ChannelReport) => void): (order: ChannelOrder) => void {
  let connection: RTCPeerConnection | null = null;
  let sending: ReturnType<typeof startSending> | null = null;
  const stop = () => {
    sending?.stop();
    connection?.close();
    connection = null;
  };
  const open = async (address: PeerAddress) => {
    if (typeof RTCPeerConnection === 'undefined')
      return report({ kind: 'channel-opened', trouble: { code: 'channel-unsupported', detail: '' } });
    try {
      // No servers: with none named, nobody outside is asked; the peer's own address is all that is needed.
      connection = new RTCPeerConnection({ iceServers: [] });
      sending = startSending(await openInTime(address, connection));
      report({ kind: 'channel-opened', trouble: null });
    } catch (error) {
      stop();
      report({ kind: 'channel-opened', trouble: troubleOf(error) });
    }
  };
  return (order) => {
    switch (order.kind) {
      case 'channel-open':
        void open(order.address);
        return;
      case 'channel-probe':
        sending?.probe(order.perSecond);
        return;
      case 'channel-finish':
        void (sending?.finish() ?? Promise.resolve(null)).then((series) => report({ kind: 'channel-series', series }));
        return;
      case 'channel-stop':
        stop();
    }
  };
}
