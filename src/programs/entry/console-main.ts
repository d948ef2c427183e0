import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import next from 'next';
import { demoPassphrase, practiceHands, seedDemo, writeDemoDevices } from '@/programs/demo';
import {
  consoleTasks,
  openPresence,
  renewEndedCodes,
  clearImports,
  resumeQueue,
  sendMail,
  sendWebhook,
  saveOffice,
  setConsole,
  startUpkeep,
  type ConsoleContext,
} from '@/services';
import { openStore } from '@/store';
import { publicKeyText, readSigningKey } from '@/wire/peer/ticket';
import { beginDemo } from '../folder/begin-demo';
import { backupsIn, keepBackup, nightIsDue } from '../folder/backup-folder';
import { fingerprintOf } from '../folder/certificate';
import { linkToLauncher } from '../supervise/child-link';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { wallMs } from '../supervise/clocks';
import { dataFiles } from '../folder/data-folder';
import { welcomeFacts } from '../supervise/welcome-facts';
import { ThinkingThread } from '../supervise/thinking-thread';
import { keepOwnAgent } from '../supervise/own-agent-files';
import { cameThroughDoor, DOOR_SECRET_VARIABLE } from '../supervise/door-secret';
import { distinctLoopbackPorts } from '../supervise/free-port';
import { ProgramFault } from '../faults/program-faults';
import { openLog, type LogLevel } from '../log/part-log';
import { openStandingSocket } from '../supervise/standing-socket';
import { storeFault } from '../faults/store-fault';
import { PROGRAM_FOLDER, programVersion } from '../folder/version';

/** The console: database, use cases and pages, on a loopback port. Started by the launcher. */
const [dataFolder, consolePortText, frontPortText, mode, officeName, certFile, logLevel] = process.argv.slice(2) as [
  ...[string, string, string, string, string, string, LogLevel],
];

const stops: (() => unknown)[] = [];
const launcher = linkToLauncher(async () => {
  for (const stop of stops.reverse()) await stop();
});

async function openContext(log: Logger): Promise<ConsoleContext> {
  const files = dataFiles(dataFolder);
  const signingKey = readSigningKey(readFileSync(files.signingKey, 'utf8'));
  // To write a statement down without its values takes a while: only where somebody asked for it.
  const onSql = log.isLevelEnabled('debug')
    ? (sql: string, tookMs: number) => log.debug({ sql, tookMs }, 'sql')
    : undefined;
  const store = await openStore(files.database, onSql);
  stops.push(() => store.close());
  const thread = new ThinkingThread(join(PROGRAM_FOLDER, 'dist', 'think-main.js'));
  stops.push(() => thread.close());
  return {
    store,
    log,
    wallMs,
    newId: randomUUID,
    signingKey,
    publicKey: publicKeyText(signingKey),
    port: Number(frontPortText),
    certificateFingerprint: fingerprintOf(certFile),
    senders: { mail: sendMail, webhook: sendWebhook },
    agentFile: join(PROGRAM_FOLDER, 'dist', 'agent.mjs'),
    version: programVersion(),
    printFonts: join(PROGRAM_FOLDER, 'node_modules/@fontsource/atkinson-hyperlegible-next/files'),
    makersFile: join(PROGRAM_FOLDER, 'node_modules/oui-data/index.json'),
    uploads: files.uploads,
    backups: {
      make: (kind) => keepBackup(dataFolder, kind, wallMs()),
      list: () => backupsIn(files.backups),
      isNightDue: () => nightIsDue(dataFolder, wallMs()),
    },
    ...openPresence(wallMs()),
    think: (siteId, input) => thread.diagnose(siteId, input),
    compare: (trays) => thread.compare(trays),
    ...(mode === 'demo' && { practiceHands: practiceHands(dataFolder, store) }),
  };
}

async function main(): Promise<void> {
  const files = dataFiles(dataFolder);
  const log = openLog({ folder: files.log, level: logLevel }, 'console');
  const demoIsWhole = mode === 'demo' ? beginDemo(files) : () => undefined;
  const context = await openContext(log).catch((error: unknown) => {
    throw storeFault(error, dataFolder);
  });
  setConsole(context);
  if (mode === 'demo') {
    await seedDemo(context);
    const passphrase = await demoPassphrase(context);
    if (passphrase !== null) writeFileSync(files.demoPassphrase, passphrase, { mode: 0o600, flush: true });
    demoIsWhole();
  }
  if (officeName !== '' && (await context.store.sites.all()).length === 0) await saveOffice(context, null, officeName);
  await renewEndedCodes(context);
  await resumeQueue(context);
  await clearImports(context);
  const upkeep = startUpkeep(consoleTasks(context), (task, error) => log.error({ task, err: error }, 'upkeep failed'));
  stops.push(() => upkeep.stop());

  const port = Number(consolePortText);
  // Next ends every upgrade of its server whose path fits a route. The upgrades here are those of standing devices, so
  // it is given a server that nobody uses.
  const httpServer = createServer();
  const app = next({ dev: mode === 'dev', dir: PROGRAM_FOLDER, hostname: '127.0.0.1', port, httpServer });
  await app.prepare();
  const handle = app.getRequestHandler();
  // The console believes what is said of the client's address: only the door may say it.
  const secret = process.env[DOOR_SECRET_VARIABLE] ?? '';
  const server = createServer((request, response) => {
    if (cameThroughDoor(request, secret)) return void handle(request, response);
    response.writeHead(403).end();
  });
  const standing = openStandingSocket(context);
  stops.push(() => standing.close());
  server.on('upgrade', (request, socket, head) => {
    if (cameThroughDoor(request, secret)) standing.upgrade(request, socket, head);
    else socket.destroy();
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  stops.push(() => server.closeAllConnections());
  // In the demo the network is made up: this machine's own would only confuse.
  if (mode === 'use-with-agent') stops.push(keepOwnAgent(context, files.ownAgent, `http://127.0.0.1:${frontPortText}`));
  if (mode === 'demo') await writeDemoDevices(context, files, distinctLoopbackPorts());
  log.info({ mode, version: programVersion() }, 'open');
  launcher.ready(await welcomeFacts(context));
}

main().catch((error: unknown) => {
  // What was closed under it while it was still starting is no failure.
  if (launcher.isStopping()) return;
  if (error instanceof ProgramFault) launcher.failed(error.code, error.message);
  else {
    console.error(error);
    launcher.failed('part-stopped', 'The console could not start.');
  }
});
