import { createSocket } from 'node:dgram';
import { PEER_PATHS, udpAdmissionSchema } from '@/wire';
import { decodeReflectorPacket, encodeSenderPacket } from '@/wire/peer/stamp';
import { httpRequest } from './http-request';
import { waitForLastAnswers } from '../run/last-answers';
import { peerUrl, type PeerAddress } from '../run/peer-address';
import type { UdpPace, UdpProbing } from '../run/transport';
import type { TroubleReports } from '../run/trouble-reports';

/** Probes a second outside a paced load. */
const PROBES_PER_SECOND = 50;
const LAST_REPLIES_MS = 1500;
const QUIET_MS = 300;
const CLOCK_ERROR = { synchronised: false, errorMs: 1000 } as const;
/** Packets that are due at once after a late timer are sent in one go, at most so many. */
const MOST_AT_ONCE = 200;
const BUFFER_BYTES = 4 * 1024 * 1024;

export interface StampSenderOptions {
  /** The run's origin on the monotonic clock, ms. */
  readonly nowMs: () => number;
  readonly wallMs: () => number;
  readonly authenticated: boolean;
  readonly troubles: TroubleReports;
}

/** The clocks tell no more, and a record of many packets stays small. */
const toMicroseconds = (ms: number) => Math.round(ms * 1000) / 1000;

async function askForAdmission(peer: PeerAddress, authenticated: boolean) {
  const url = new URL(`${peerUrl(peer, PEER_PATHS.udp)}${authenticated ? '&authenticated=1' : ''}`);
  const response = await httpRequest(url, { method: 'POST' });
  if (!response.ok) throw new Error(`status ${response.status}`);
  return udpAdmissionSchema.parse(await response.json());
}

/**
 * A STAMP session-sender (RFC 8762). Rejects when the peer lets no UDP in. Round trips are the client's monotonic time less
 * the time for which the reflector held the packet by its own stamps.
 */
export async function startStampSender(
  peer: PeerAddress,
  { nowMs, wallMs, authenticated, troubles }: StampSenderOptions,
): Promise<UdpProbing> {
  const admission = await askForAdmission(peer, authenticated);
  const host = new URL(peer.baseUrl).hostname.replace(/^\[|\]$/g, '');
  const key = admission.key === null ? null : Buffer.from(admission.key, 'base64url');
  const socket = createSocket(host.includes(':') ? 'udp6' : 'udp4');
  await new Promise<void>((resolve, reject) => {
    socket.once('error', reject);
    socket.connect(admission.port, host, resolve);
  });
  socket.on('error', () => undefined);
  try {
    socket.setRecvBufferSize(BUFFER_BYTES);
    socket.setSendBufferSize(BUFFER_BYTES);
  } catch {
    // The smaller buffers of the system serve too.
  }

  const sentMs: number[] = [];
  const stamps: number[] = [];
  const rttMs: (number | null)[] = [];
  const reflected: (number | null)[] = [];
  const upMs: (number | null)[] = [];
  const seen = new Set<number>();
  let duplicates = 0;
  socket.on('message', (bytes) => {
    const atMs = nowMs();
    const decoded = decodeReflectorPacket(bytes, key);
    if (!decoded.ok) return;
    const { sequence, sender, receivedMs, sentMs: reflectedMs } = decoded.packet;
    const sent = sentMs[sender.sequence];
    // Not an answer to anything that was sent: forged, or of another time.
    if (sent === undefined || Math.abs(sender.sentMs - stamps[sender.sequence]!) > 0.01) return;
    if (seen.has(sequence)) return;
    seen.add(sequence);
    if (reflected[sender.sequence] !== null) {
      duplicates += 1;
      return;
    }
    reflected[sender.sequence] = sequence;
    upMs[sender.sequence] = receivedMs - sender.sentMs;
    const heldMs = Math.max(0, reflectedMs - receivedMs);
    rttMs[sender.sequence] = Math.max(0, atMs - sent - heldMs);
  });

  const send = (sizeBytes: number) => {
    const sequence = sentMs.length;
    const stampMs = wallMs();
    const packet = { sequence, sentMs: stampMs, error: CLOCK_ERROR, sessionId: admission.sessionId };
    const bytes = encodeSenderPacket(packet, key, sizeBytes);
    sentMs.push(nowMs());
    stamps.push(stampMs);
    rttMs.push(null);
    reflected.push(null);
    upMs.push(null);
    socket.send(bytes, () => undefined);
  };

  let timer: NodeJS.Timeout | undefined;
  let perSecond = PROBES_PER_SECOND;
  const pace = (load: UdpPace | null) => {
    clearInterval(timer);
    const packetsPerMs = (load?.packetsPerSecond ?? perSecond) / 1000;
    const startedMs = nowMs();
    let sent = 0;
    timer = setInterval(
      () => {
        const due = Math.floor((nowMs() - startedMs) * packetsPerMs) + 1;
        // After a stall the rest is left out: a burst would be another load than the one asked for.
        if (due - sent > MOST_AT_ONCE) sent = due - MOST_AT_ONCE;
        for (; sent < due; sent += 1) send(load?.sizeBytes ?? 0);
      },
      load === null ? 1000 / perSecond : 1,
    );
  };
  pace(null);

  const stop = () => {
    clearInterval(timer);
    try {
      socket.close();
    } catch {
      // It is closed already.
    }
  };
  const probe = (wanted: number | null) => {
    const before = perSecond;
    perSecond = Math.min(PROBES_PER_SECOND, wanted ?? PROBES_PER_SECOND);
    if (perSecond !== before) pace(null);
  };
  return {
    pace,
    probe,
    stop,
    finish: async (received, originMs) => {
      clearInterval(timer);
      const slowestMs = rttMs.slice(-PROBES_PER_SECOND).reduce<number>((most, rtt) => Math.max(most, rtt ?? 0), 0);
      await waitForLastAnswers({
        ...{ nowMs, mostMs: LAST_REPLIES_MS, quietMs: QUIET_MS + 2 * slowestMs },
        missing: () => rttMs.includes(null),
        heard: () => seen.size,
      });
      const peerReceived = await received();
      if (sentMs.length === 0) return null;
      // Nothing at all came back: something stops UDP, and a share that was lost cannot be told from that.
      if (seen.size === 0) {
        troubles.report(
          'udp-unreachable',
          `${sentMs.length} sent, ${peerReceived ?? 'unknown'} of them reached the peer`,
        );
        return null;
      }
      return {
        ...{ kind: authenticated ? 'stamp-authenticated' : 'stamp', reflected, duplicates, peerReceived },
        sentMs: sentMs.map((atMs) => toMicroseconds(atMs - originMs)),
        rttMs: rttMs.map((rtt) => (rtt === null ? null : toMicroseconds(rtt))),
        upMs: upMs.map((up) => (up === null ? null : toMicroseconds(up))),
      };
    },
  };
}
