import type { RunSamples } from '@/core';
import { startIn } from '../net/command';
import type { LabClient, LabRun } from './lab-client';

/** The word by which the lab starts itself anew in the client's namespace. */
export const WEB_CLIENT = 'web-client';

/** An agent's run against a page instead of a peer: the "join address" is that of the page. */
export function webClient(netns: string, caFile: string): LabClient {
  return {
    name: 'Node, web',
    run: (page, profile) =>
      new Promise<LabRun>((resolve) => {
        const startedMs = performance.now();
        const env = `NODE_EXTRA_CA_CERTS=${caFile}`;
        const child = startIn(netns, 'env', env, process.execPath, process.argv[1]!, WEB_CLIENT, page, profile);
        let output = '';
        child.stdout!.on('data', (part: Buffer) => (output += part.toString()));
        child.once('close', () => {
          const tookMs = performance.now() - startedMs;
          try {
            resolve({ status: 'finished', samples: JSON.parse(output) as RunSamples, tookMs });
          } catch {
            resolve({ status: 'unfinished', sentence: 'its output says why', tookMs });
          }
        });
      }),
    close: () => Promise.resolve(),
  };
}
