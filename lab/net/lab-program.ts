import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ended, lineOf, startIn } from './command';
import type { LabLine } from './lab-line';

const PORT = 4870;
export const UDP_PORT = 4890;

/** The real program, console and peer, at the far end of a lab line. */
export interface LabProgram {
  readonly origin: string;
  /** Address that an agent or a device page is given. */
  readonly joinAddress: string;
  stop(): Promise<void>;
  /** Kills the peer process; the launcher starts it again. */
  readonly launcherPid: number;
  /** Its data folder. */
  readonly data: string;
}

/** Starts `npm start`'s program in the peer's namespace, and names an office so that devices may join. */
export async function startLabProgram(line: LabLine): Promise<LabProgram> {
  const data = mkdtempSync(join(tmpdir(), 'bent-straw-lab-'));
  const netns = line.netns('peer');
  const child = startIn(
    netns,
    process.execPath,
    ...[
      'dist/launch.js',
      'start',
      '--no-agent',
      '--data',
      data,
      '--port',
      String(PORT),
      '--udp',
      String(UDP_PORT),
      '--channel-ports',
      '4900-4931',
    ],
    ...['--office', 'Lab'],
  );
  const origin = `http://${line.peerAddress}:${PORT}`;
  const printed = await lineOf(child, /\(code \w+\)/);
  child.stdout!.resume();
  const code = /\(code (\w+)\)/.exec(printed)![1]!;
  return {
    origin,
    joinAddress: `${origin}/j/${code}`,
    launcherPid: child.pid!,
    data,
    stop: async () => {
      child.kill('SIGINT');
      await ended(child);
      rmSync(data, { recursive: true, force: true });
    },
  };
}
