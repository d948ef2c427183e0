import { createFrontDoor, Peer } from '@/peer';
import { readPublicKey } from '@/wire/ticket';
import { linkToLauncher } from './child-link';
import { monotonicMs, wallMs } from './clocks';
import { listenFault, ProgramFault } from './program-faults';
import { programVersion } from './version';

/** What a peer process is started with, as one JSON argument. */
export interface PeerSettings {
  readonly name: string;
  readonly host: string | null;
  readonly port: number;
  readonly trust: readonly string[];
  readonly consolePort: number | null;
  readonly mostSessions: number;
}

const settings = JSON.parse(process.argv[2]!) as PeerSettings;

const peer = new Peer({
  name: settings.name,
  version: programVersion(),
  trusted: settings.trust.map((text) => {
    const key = readPublicKey(text);
    if (key === null) throw new ProgramFault('trust-invalid', { key: text });
    return key;
  }),
  mostSessions: settings.mostSessions,
  wallMs,
  monotonicMs,
});
const door = createFrontDoor(peer, { consolePort: settings.consolePort });
const launcher = linkToLauncher(() => {
  peer.close();
  door.closeAllConnections();
});
door.once('error', (error: NodeJS.ErrnoException) => {
  const fault = listenFault(error, settings.port);
  launcher.failed(fault.code, fault.message);
});
door.listen(settings.port, settings.host ?? undefined, () => launcher.ready());
