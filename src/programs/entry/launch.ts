import { readFileSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { Command } from 'commander';
import { DEFAULT_PORT } from '@/wire';
import { lanAddresses } from '@/wire/address';
import { publicKeyText, readSigningKey } from '@/wire/peer/ticket';
import { ensureCertificate, readCertificate, type CertificateFiles } from '../folder/certificate';
import { wallMs } from '../supervise/clocks';
import { dataFiles, openDataFolder } from '../folder/data-folder';
import { demoDeviceParts, practiceLines } from '../demo/demo-parts';
import { DEMO_PORTS } from '../demo/demo-ports';
import { DOOR_SECRET_VARIABLE, newDoorSecret } from '../supervise/door-secret';
import { freeLoopbackPort, mustBeFree, readPort, readPortRange } from '../supervise/free-port';
import { showAddresses } from '../supervise/console-addresses';
import type { PartFacts } from '../supervise/child-link';
import { Part } from '../supervise/part';
import { LOG_LEVELS, type LogSettings } from '../log/part-log';
import type { PeerSettings } from './peer-main';
import { ProgramFault } from '../faults/program-faults';
import { programVersion } from '../folder/version';

const MOST_SESSIONS = 16;

interface LaunchOptions {
  readonly port: string;
  readonly data: string;
  readonly fresh?: boolean;
  readonly udp?: string;
  readonly office?: string;
  readonly channelPorts?: string;
  readonly tlsCert?: string;
  readonly tlsKey?: string;
  readonly host?: string[];
  readonly behindProxy?: string | true;
  readonly strangers?: string;
  readonly plainHttp?: boolean;
  readonly agent?: boolean;
  readonly logLevel: string;
}

/** The addresses of the proxy that was named; this machine's own where it was only said that there is one. */
function proxiesOf(named: string | true | undefined): string[] {
  if (named === undefined) return [];
  return named === true ? ['127.0.0.1', '::1'] : named.split(',').map((address) => address.trim());
}

const NO_UDP: Pick<PeerSettings, 'udp' | 'channelPorts'> = { udp: null, channelPorts: null };

const say = (line = ''): void => console.log(line);

function removeDemoData(folder: string): void {
  const { database } = dataFiles(folder);
  for (const ending of ['', '-wal', '-shm']) rmSync(database + ending, { force: true });
}

interface Ports {
  readonly port: number;
  readonly consolePort: number;
}

/** How much is written down, and where. Throws ProgramFault. */
function logSettings(dataFolder: string, level: string): LogSettings {
  const known = LOG_LEVELS.find((each) => each === level);
  if (known === undefined) throw new ProgramFault('log-level-invalid', { level, levels: LOG_LEVELS.join(', ') });
  return { folder: dataFiles(dataFolder).log, level: known };
}

function partsOf(
  demo: boolean,
  { port, consolePort }: Ports,
  dataFolder: string,
  tls: CertificateFiles,
  options: LaunchOptions,
): Part[] {
  const files = dataFiles(dataFolder);
  const log = logSettings(dataFolder, options.logLevel);
  const trust = [publicKeyText(readSigningKey(readFileSync(files.signingKey, 'utf8')))];
  const peer = (
    settings: Omit<PeerSettings, 'trust' | 'mostSessions' | 'udp' | 'channelPorts' | 'tls' | 'log'>,
    own = NO_UDP,
  ): string[] => [
    JSON.stringify({ ...settings, ...own, tls, trust, log, mostSessions: MOST_SESSIONS } satisfies PeerSettings),
  ];
  const own = {
    udp: options.udp === undefined ? null : { port: readPort(options.udp), openTo: [] },
    channelPorts: options.channelPorts === undefined ? null : readPortRange(options.channelPorts),
  };
  const onTrouble = (sentence: string) => console.error(sentence);
  const secrets = { [DOOR_SECRET_VARIABLE]: newDoorSecret() };
  const front = {
    hosts: options.host ?? [],
    proxies: proxiesOf(options.behindProxy),
    // A certificate that was made here is one that browsers ask about: nobody is sent to it.
    toHttps: options.tlsCert !== undefined && options.plainHttp !== true,
    ...(options.strangers !== undefined && { mostStrangers: Math.max(1, Number.parseInt(options.strangers, 10) || 1) }),
  };
  const parts = [
    new Part(
      'console',
      'console-main.js',
      [
        dataFolder,
        String(consolePort),
        String(port),
        demo ? 'demo' : options.agent === false ? 'use' : 'use-with-agent',
        options.office ?? '',
        tls.certFile,
        log.level,
      ],
      onTrouble,
      secrets,
    ),
    new Part(
      'front door',
      'peer-main.js',
      peer({ name: 'this machine', host: null, port, consolePort, identityFile: files.peerKey, ...front }, own),
      onTrouble,
      secrets,
    ),
  ];
  if (!demo && options.agent !== false)
    parts.push(new Part('agent of this machine', 'own-agent-main.js', [files.ownAgent], onTrouble));
  if (demo) {
    parts.push(
      new Part(
        'outside peer',
        'peer-main.js',
        peer({
          ...{ name: 'Hilltop exchange', host: '127.0.0.1', port: port + DEMO_PORTS.outsidePeer },
          ...{ consolePort: null, identityFile: files.demoPeerKey },
        }),
        onTrouble,
      ),
    );
  }
  return parts;
}

async function launch(demo: boolean, options: LaunchOptions): Promise<void> {
  const port = readPort(options.port);
  const dataFolder = resolve(options.data);
  for (const wanted of demo ? Object.values(DEMO_PORTS).map((offset) => port + offset) : [port])
    await mustBeFree(wanted);
  const releaseFolder = await openDataFolder(dataFolder);
  if (options.fresh) removeDemoData(dataFolder);
  const consolePort = await freeLoopbackPort();
  const given = readCertificate(options.tlsCert, options.tlsKey);
  const tls = given ?? dataFiles(dataFolder).certificate;
  if (given === null) await ensureCertificate(tls, lanAddresses(), wallMs());
  const parts = partsOf(demo, { port, consolePort }, dataFolder, tls, options);

  let stopping = false;
  const stopAll = async (exitCode: number) => {
    if (stopping) return;
    stopping = true;
    await Promise.all(parts.map((part) => part.stop()));
    releaseFolder();
    process.exit(exitCode);
  };
  process.on('SIGINT', () => void stopAll(0));
  process.on('SIGTERM', () => void stopAll(0));
  process.on('SIGHUP', () => void stopAll(0));

  say(`Bent Straw ${programVersion()} is starting …`);
  let facts: PartFacts = {};
  try {
    const started = parts.map((part) => part.start());
    // Whatever comes on top is read while these start; one that fails meanwhile is heard of below.
    for (const each of started) each.catch(() => undefined);
    if (demo) {
      const lines = practiceLines(port, dataFolder);
      parts.push(lines);
      started.push(lines.start());
    }
    // The console's are what is shown; it is the first of them.
    [facts = {}] = await Promise.all(started);
  } catch (error) {
    const { code = 'part-stopped', message } = error as { code?: string; message: string };
    console.error(`${message} [${code}]`);
    await stopAll(1);
    return;
  }
  say(`Ready.\n`);
  await showAddresses(demo, port, dataFolder, facts);
  if (!demo || stopping) return;
  // They come a moment later: a console is of use without them.
  const played = demoDeviceParts(port, dataFolder);
  parts.push(...played);
  await Promise.all(played.map((part) => part.start())).catch((error: Error) => console.error(error.message));
}

// Whatever this program and its parts write is for its user alone.
process.umask(0o077);
const program = new Command('bent-straw').showHelpAfterError();
for (const [name, demo, data] of [
  ['start', false, 'data'],
  ['demo', true, 'demo-data'],
] as const) {
  const command = program
    .command(name)
    .description(demo ? 'start with a made-up office and a practice line' : 'start for real use')
    .option('--port <number>', 'port of the front door', String(DEFAULT_PORT))
    .option('--data <folder>', 'folder for the database and the key', data)
    .option('--udp <port>', 'answer UDP probes (STAMP, RFC 8762) of ticketed clients on this port')
    .option('--tls-cert <file>', 'certificate, PEM; without one, a certificate is made at the first start')
    .option('--tls-key <file>', 'its key, PEM')
    .option(
      '--plain-http',
      'with a certificate of your own: answer pages in plain too, instead of leading them to https',
    )
    .option('--log-level <level>', `how much is written into the log: ${LOG_LEVELS.join(', ')}`, 'info')
    .option('--host <name...>', 'a further name by which the console may be opened')
    .option(
      '--behind-proxy [addresses]',
      'a reverse proxy stands in front, at these addresses (this machine when none is given)',
    )
    .option('--strangers <number>', 'most connections of one address that have not shown what they are for', '64')
    .option('--channel-ports <from-to>', 'open data channels to browsers on these UDP ports, to measure loss');
  if (!demo)
    command
      .option('--office <name>', 'name of the office, where there is none yet')
      .option('--no-agent', 'let this machine itself not be an agent of the first office');
  if (demo) command.option('--fresh', 'throw the demo data away and make it anew');
  command.action((options: LaunchOptions) => launch(demo, options));
}

program.parseAsync().catch((error: unknown) => {
  if (!(error instanceof ProgramFault)) throw error;
  console.error(`${error.message} [${error.code}]`);
  process.exit(1);
});
