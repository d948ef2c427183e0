import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { Command } from 'commander';
import { stateFolder } from '@/agent';
import { DEFAULT_PORT } from '@/wire';
import { lanAddresses } from '@/wire/address';
import { stampKey } from '@/wire/peer/stamp';
import { readPublicKey } from '@/wire/peer/ticket';
import { mustBeFree, readPort, readPortRange } from '../supervise/free-port';
import { readCertificate } from '../folder/certificate';
import { Part } from '../supervise/part';
import type { PeerSettings } from './peer-main';
import { ProgramFault } from '../faults/program-faults';

interface PeerCliOptions {
  readonly port: string;
  readonly name: string;
  readonly trust?: string[];
  readonly runs: string;
  readonly udp?: string;
  readonly udpFrom?: string[];
  readonly udpKey?: string;
  readonly channelPorts?: string;
  readonly tlsCert?: string;
  readonly tlsKey?: string;
  readonly key?: string;
  readonly log?: string;
}

/** A key that cannot be read, or is none, is told before anything is started. */
function udpSettings({ udp, udpFrom = [], udpKey }: PeerCliOptions): PeerSettings['udp'] {
  if (udp === undefined) {
    if (udpKey !== undefined || udpFrom.length > 0) throw new ProgramFault('udp-port-missing');
    return null;
  }
  const keyFile = udpKey === undefined ? null : resolve(udpKey);
  if (keyFile !== null && keyIn(keyFile) === null) throw new ProgramFault('udp-key-unusable', { file: keyFile });
  return { port: readPort(udp), openTo: udpFrom, keyFile };
}

function keyIn(file: string): Uint8Array | null {
  try {
    return stampKey(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
}

/** A peer of its own, without a console: for the internet, a branch, or the far end of a tunnel. */
async function runPeer(options: PeerCliOptions): Promise<void> {
  const port = readPort(options.port);
  const trust = options.trust ?? [];
  if (trust.length === 0) throw new ProgramFault('trust-missing');
  for (const key of trust) if (readPublicKey(key) === null) throw new ProgramFault('trust-invalid', { key });
  await mustBeFree(port);
  const settings: PeerSettings = {
    name: options.name,
    host: null,
    port,
    trust,
    consolePort: null,
    identityFile: options.key ?? join(stateFolder(), `peer-key-${port}.pem`),
    mostSessions: Math.max(1, Number.parseInt(options.runs, 10) || 1),
    log: { folder: options.log === undefined ? null : resolve(options.log), level: 'info' },
    tls: readCertificate(options.tlsCert, options.tlsKey),
    channelPorts: options.channelPorts === undefined ? null : readPortRange(options.channelPorts),
    udp: udpSettings(options),
  };
  const part = new Part('peer', 'peer-main.js', [JSON.stringify(settings)], (sentence) => console.error(sentence));
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
    process.on(signal, () => void part.stop().then(() => process.exit(0)));
  await part.start();
  console.log(`The peer ${options.name} is ready. Enter one of these addresses in the set-up of the console:`);
  for (const host of [...lanAddresses(), 'localhost']) console.log(`  http://${host}:${port}`);
  console.log('Stop with Ctrl-C.');
}

new Command('bent-straw peer')
  .description('measure for a console elsewhere')
  .option('--port <number>', 'port to listen on', String(DEFAULT_PORT))
  .option('--name <text>', 'name shown to people', 'outside peer')
  .option('--trust <key...>', 'public key of each console that may send devices here')
  .option('--runs <number>', 'most runs at once', '8')
  .option('--udp <port>', 'answer UDP probes (STAMP, RFC 8762) of ticketed clients on this port')
  .option('--channel-ports <from-to>', 'open data channels to browsers on these UDP ports')
  .option('--tls-cert <file>', 'certificate, PEM: then HTTPS is spoken on the same port too')
  .option('--tls-key <file>', 'its key, PEM')
  .option('--key <file>', 'key by which consoles know this peer again; made when missing')
  .option('--log <folder>', 'write down there what happens: sessions, and what was refused')
  .option('--udp-key <file>', 'answer whoever proves the key in this file by STAMP, without a ticket')
  .option('--udp-from <address...>', 'answer plain STAMP packets from these addresses without a ticket')
  .showHelpAfterError()
  .action(runPeer)
  .parseAsync()
  .catch((error: unknown) => {
    const { code, message } = error as { code?: string; message: string };
    console.error(code === undefined ? message : `${message} [${code}]`);
    process.exit(1);
  });
