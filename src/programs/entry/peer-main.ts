import { readFileSync } from 'node:fs';
import { ChannelHost, createFrontDoor, Peer, StampReflector } from '@/peer';
import { stampKey } from '@/wire/peer/stamp';
import { readPublicKey } from '@/wire/peer/ticket';
import { linkToLauncher } from '../supervise/child-link';
import { DOOR_SECRET_VARIABLE } from '../supervise/door-secret';
import { ensureKeyFile } from '../folder/key-file';
import { monotonicMs, preciseWallMs, wallMs } from '../supervise/clocks';
import { listenFault, ProgramFault } from '../faults/program-faults';
import { openLog, type LogSettings } from '../log/part-log';
import { peerLog } from '../log/peer-log';
import { programVersion } from '../folder/version';

/** What a peer process is started with, as one JSON argument. */
export interface PeerSettings {
  readonly name: string;
  readonly host: string | null;
  readonly port: number;
  readonly trust: readonly string[];
  readonly consolePort: number | null;
  /** Names by which the console may be asked for besides its own, and addresses of proxies in front of it. */
  readonly hosts?: readonly string[];
  readonly proxies?: readonly string[];
  /** Most connections of one address that have shown no session; absent: the usual number. */
  readonly mostStrangers?: number;
  readonly mostSessions: number;
  readonly log: LogSettings;
  /** Whether pages are sent to https; see FrontDoorOptions. */
  readonly toHttps?: boolean;
  /** File with the key by which this peer shows that it is the same as before; made when missing. */
  readonly identityFile: string;
  /** UDP ports for data channels to browsers; null: none are opened. */
  readonly channelPorts: readonly [number, number] | null;
  /** Files with a certificate and its key, PEM; null: plain HTTP only. */
  readonly tls: { readonly certFile: string; readonly keyFile: string } | null;
  /** Where UDP probes are answered, and for whom besides ticketed clients; null: not at all. */
  readonly udp: {
    readonly port: number;
    readonly openTo: readonly string[];
    /** Holds the key with which others are answered without a ticket; null: there is none. */
    readonly keyFile?: string | null;
  } | null;
}

const settings = JSON.parse(process.argv[2]!) as PeerSettings;
const log = openLog(settings.log, settings.consolePort === null ? `peer ${settings.name}` : 'door');
const onEvent = peerLog(log, monotonicMs);

const launcher = linkToLauncher(() => stop());
let stop = () => {};

async function startReflector(): Promise<StampReflector | null> {
  if (settings.udp === null) return null;
  const { port, openTo, keyFile = null } = settings.udp;
  const sharedKey = keyFile === null ? null : stampKey(readFileSync(keyFile, 'utf8'));
  return StampReflector.start({ port, openTo, sharedKey, host: settings.host ?? undefined, wallMs: preciseWallMs });
}

const reflector = await startReflector().catch((error: NodeJS.ErrnoException) => {
  const fault = listenFault(error, settings.udp!.port);
  launcher.failed(fault.code, fault.message);
  return null;
});
const channels = settings.channelPorts === null ? null : await ChannelHost.start({ ports: settings.channelPorts });
const peer = new Peer({
  identity: ensureKeyFile(settings.identityFile),
  reflector,
  channels,
  name: settings.name,
  version: programVersion(),
  trusted: settings.trust.map((text) => {
    const key = readPublicKey(text);
    if (key === null) throw new ProgramFault('trust-invalid', { key: text });
    return key;
  }),
  mostSessions: settings.mostSessions,
  onEvent,
  wallMs,
  monotonicMs,
});
const { tls } = settings;
const door = createFrontDoor(peer, {
  consolePort: settings.consolePort,
  hosts: settings.hosts ?? [],
  proxies: settings.proxies ?? [],
  onEvent,
  toHttps: settings.toHttps ?? false,
  doorSecret: process.env[DOOR_SECRET_VARIABLE] ?? '',
  ...(settings.mostStrangers !== undefined && { strangers: { perAddress: settings.mostStrangers } }),
  tls: tls === null ? null : { cert: readFileSync(tls.certFile, 'utf8'), key: readFileSync(tls.keyFile, 'utf8') },
});
stop = () => {
  peer.close();
  door.closeAllConnections();
  void reflector?.close();
  channels?.close();
};
door.once('error', (error: NodeJS.ErrnoException) => {
  const fault = listenFault(error, settings.port);
  launcher.failed(fault.code, fault.message);
});
door.listen(settings.port, settings.host ?? undefined, () => {
  log.info({ port: settings.port, version: programVersion() }, 'listening');
  launcher.ready();
});
