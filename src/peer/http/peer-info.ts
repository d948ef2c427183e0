import { readFileSync } from 'node:fs';
import { availableParallelism, loadavg, platform } from 'node:os';
import type { PeerInfo } from '@/wire';
import type { SessionRegistry } from '../session/session-registry';

const CONGESTION_CONTROL_FILE = '/proc/sys/net/ipv4/tcp_congestion_control';

/** The congestion control that Linux uses for new connections; null elsewhere. */
function congestionControl(): string | null {
  try {
    return readFileSync(CONGESTION_CONTROL_FILE, 'utf8').trim() || null;
  } catch {
    return null;
  }
}

export interface PeerIdentity {
  readonly name: string;
  readonly version: string;
}

/** What a peer is, to everybody. */
export function describePeer(
  { name }: Pick<PeerIdentity, 'name'>,
  can: { readonly udp: boolean; readonly dataChannel: boolean },
  clock: { readonly wallMs: () => number; readonly monotonicMs: () => number },
): PeerInfo {
  return {
    product: 'bent-straw-peer',
    protocol: 1,
    name,
    clock: { wallMs: clock.wallMs(), monotonicMs: clock.monotonicMs() },
    can: { download: true, upload: true, probe: true, udp: can.udp, dataChannel: can.dataChannel, knock: true },
  };
}

/** What it tells besides to whoever has a ticket: a stranger could use it to choose his moment, or his weakness. */
export function describeToKnown(
  { version }: Pick<PeerIdentity, 'version'>,
  sessions: SessionRegistry,
): Pick<PeerInfo, 'version' | 'load' | 'congestionControl'> {
  return {
    version,
    load: {
      activeSessions: sessions.active,
      mostSessions: sessions.most,
      loadAverage1m: platform() === 'win32' ? null : loadavg()[0]!,
      cores: availableParallelism(),
    },
    congestionControl: congestionControl(),
  };
}
