import { hostname } from 'node:os';
import { join } from 'node:path';
import { Option, type Command } from 'commander';
import {
  AgentFault,
  diskOutbox,
  KnownDevices,
  linkTowards,
  oneRun,
  postTo,
  readConsoleAddress,
  stateFolder,
} from '@/agent';
import {
  delayFigure,
  PROFILE_NAMES,
  rateFigure,
  PEER_REACHES,
  type Link,
  type ProfileName,
  type Reach,
  type StripData,
  sentenceText,
} from '@/core';
import { deliverLeft } from '@/session';
import type { HandInAnswer, RunWaiting } from '@/wire';
import { programVersion } from '../folder/version';

/** How a finished run ends the command: what a script goes by. */
const EXIT_BY_VERDICT = { full: 0, capped: 9, thin: 10, starved: 11, 'no verdict': 12 } as const;
const CANCELLED_EXIT = 130;

interface RunOptions {
  readonly name: string;
  readonly spot: string;
  readonly reach: Reach;
  readonly profile: ProfileName;
  readonly cableMbps?: string;
  readonly pacedMbps?: string;
  readonly json?: boolean;
  readonly samples?: boolean;
  readonly plainUdp?: boolean;
}

/** A rate in Mb/s as typed. Throws AgentFault. */
function readRate(option: string, value: string): number {
  const mbps = Number(value);
  if (mbps > 0 && mbps <= 100_000) return mbps;
  throw new AgentFault('option-malformed', { option, value, wanted: 'Give a rate in Mb/s, such as 1000.' });
}

/** As it was said, or else as the system tells. */
async function linkOf(cableMbps: string | undefined, origin: string): Promise<Link> {
  if (cableMbps === undefined) return (await linkTowards(new URL(origin).hostname)) ?? { medium: 'unknown' };
  return { medium: 'wired', negotiatedBps: readRate('--cable-mbps', cableMbps) * 1e6, mtuBytes: 1500 };
}

/** One line that is written over as the run goes on; nothing where there is no terminal. */
function showProgress(strip: StripData): void {
  if (!process.stderr.isTTY) return;
  const phase = strip.phases.at(-1)?.phase ?? 'idle';
  const [down, up] = [strip.down?.bps.at(-1) ?? null, strip.up?.bps.at(-1) ?? null];
  const delay = strip.probes.rttMs.at(-1) ?? null;
  process.stderr.write(
    `\r\x1b[2K${phase.padEnd(9)} down ${rateFigure(down)} up ${rateFigure(up)} Mb/s, delay ${delayFigure(delay)} ms`,
  );
}

/** Why nothing is measured yet. */
function showWaiting({ why, aboutMs }: RunWaiting): void {
  if (!process.stderr.isTTY) return;
  process.stderr.write(`\r\x1b[2Kwaiting: ${why}, about ${Math.ceil(aboutMs / 1000)} s`);
}

function printAnswer(answer: HandInAnswer, origin: string): void {
  if (process.stderr.isTTY) process.stderr.write('\r\x1b[2K');
  console.log(sentenceText(answer));
  console.log(`${origin}/runs/${answer.runId}`);
}

async function run(address: string, options: RunOptions): Promise<void> {
  const { origin, code } = readConsoleAddress(address);
  const cancel = new AbortController();
  process.once('SIGINT', () => cancel.abort());
  const devices = new KnownDevices();
  const post = postTo(origin, options.name, devices);
  const outbox = diskOutbox(join(stateFolder(), 'outbox'), origin);
  const { taken } = await deliverLeft(post, outbox);
  if (taken > 0) console.error(`Handed in what an earlier run had left: ${taken}.`);
  const deviceId = devices.of(origin, options.name)?.id ?? null;
  const { answer, handIn } = await oneRun({
    ...{ origin, post, outbox },
    order: {
      ...{ code, deviceId, holdMs: 0 },
      deviceName: options.name,
      spotName: options.spot === '' ? null : options.spot,
      deviceKind: null,
      link: await linkOf(options.cableMbps, origin),
      reach: options.reach,
      profile: options.pacedMbps === undefined ? options.profile : 'paced',
      told: [],
      noticed: [],
      turnId: null,
      loadsWeb: true,
      pacedMbps: options.pacedMbps === undefined ? null : readRate('--paced-mbps', options.pacedMbps),
    },
    authenticated: options.plainUdp !== true,
    agentVersion: programVersion(),
    onProgress: showProgress,
    onWaiting: showWaiting,
    signal: cancel.signal,
  });
  if (options.json === true) {
    const document = options.samples === true ? { ...answer, samples: handIn.samples } : answer;
    console.log(JSON.stringify(document));
  } else printAnswer(answer, origin);
  process.exit(cancel.signal.aborted ? CANCELLED_EXIT : EXIT_BY_VERDICT[answer.result?.verdict ?? 'no verdict']);
}

/** One measurement now. */
export function addRunCommand(program: Command): void {
  program
    .command('run')
    .description('measure once from this machine and hand the result in')
    .argument('<address>', 'address of the console as the board shows it: http://HOST:4870/j/CODE')
    .option('--name <text>', 'name of this device', hostname())
    .option('--spot <text>', 'where it stands', '')
    .addOption(new Option('--reach <reach>', 'how far to measure').choices(PEER_REACHES).default('internet'))
    .addOption(new Option('--profile <profile>', 'how thoroughly').choices(PROFILE_NAMES).default('standard'))
    .option(
      '--cable-mbps <rate>',
      'rate at which the cable of this machine came up, in Mb/s, where the system is wrong',
    )
    .option('--paced-mbps <rate>', 'instead of a full load: send UDP at this rate for ten seconds, for jitter and loss')
    .option('--plain-udp', 'send UDP probes without authentication')
    .option('--json', 'print the result as JSON')
    .option('--samples', 'with --json: the raw samples too')
    .addHelpText(
      'after',
      '\nExit code: 0 full, 9 capped by its own link, 10 thin, 11 starved, 12 no verdict, 130 cancelled; above 60 there is no result (docs/errors.md).',
    )
    .action(run);
}
