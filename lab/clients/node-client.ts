import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { RunSamples } from '@/core';
import type { LabClient, LabRun } from './lab-client';

/** The agent as it ships, run in the client's namespace. */
export function nodeClient(netns: string, options: readonly string[] = []): LabClient {
  const state = mkdtempSync(join(tmpdir(), 'bent-straw-lab-'));
  return {
    name: 'Node',
    run: (joinAddress, profile, deviceName = 'lab agent') =>
      new Promise<LabRun>((resolve) => {
        const startedMs = performance.now();
        const child = spawn(
          'ip',
          [
            ...['netns', 'exec', netns, process.execPath, 'dist/agent-cli.js', 'run', joinAddress],
            ...['--reach', 'local', '--profile', profile, '--name', deviceName, '--json', '--samples', ...options],
          ],
          { env: { ...process.env, XDG_STATE_HOME: state }, stdio: ['ignore', 'pipe', 'pipe'] },
        );
        let [output, errors] = ['', ''];
        child.stdout.on('data', (part: Buffer) => (output += part.toString()));
        child.stderr.on('data', (part: Buffer) => (errors += part.toString()));
        child.once('exit', () => {
          const tookMs = performance.now() - startedMs;
          try {
            const { samples } = JSON.parse(output) as { samples: RunSamples };
            resolve({ status: 'finished', samples, tookMs });
          } catch {
            resolve({ status: 'unfinished', sentence: errors.trim(), tookMs });
          }
        });
      }),
    close: () => Promise.resolve(),
  };
}
