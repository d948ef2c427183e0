import { generateKeyPairSync, randomUUID } from 'node:crypto';
import { delaysUnderLoad, seededRandom, type PathLoaded } from '@/core';
import type { FarLook } from '@/wire';
import { publicKeyText, signTicket } from '@/wire/peer/ticket';
import { ended, lineOf, startIn } from '../net/command';
import { LabLine, PLAIN_LINE } from '../net/lab-line';
import { tokenBucket } from '../net/token-bucket';
import { Table } from './table';

/** The word by which the lab starts itself anew in the client's namespace. */
export const PATH_CLIENT = 'path-client';

const CASES = 20;
const PORT = 4870;
const DAY_MS = 24 * 3600_000;
/** Where a queue is put so that hop 1, 2 or 3 is the first that is late: what leaves this device of that place. */
const PLACES = {
  down: [
    ['near', 'near0'],
    ['far', 'joint0'],
    ['peer', 'peer0'],
  ],
  up: [
    ['client', 'client0'],
    ['near', 'joint0'],
    ['far', 'far0'],
  ],
} as const;

async function looked(line: LabLine, far: FarLook): Promise<PathLoaded> {
  const child = startIn(
    line.netns('client'),
    ...[process.execPath, process.argv[1]!, PATH_CLIENT, line.peerAddress, JSON.stringify(far)],
  );
  let output = '';
  child.stdout!.on('data', (part: Buffer) => (output += part.toString()));
  await ended(child);
  return JSON.parse(output) as PathLoaded;
}

/** Where the delay of a full line comes in, held against where the kernel's queue was put: 20 lines, each way anywhere on the path. */
export async function pathsTable(): Promise<void> {
  const { privateKey, publicKey } = generateKeyPairSync('ed25519');
  const table = new Table(
    'A path while the line is full',
    'Queue behind: the hop that is the first to be late, by where the kernel’s token bucket stands. Told: the hop that the look names, and what it says was added.',
    ['line, Mb/s', 'queue, ms', 'queue behind, down', 'told', 'added, ms', 'queue behind, up', 'told', 'added, ms'],
  );
  const random = seededRandom(20);
  let right = 0;
  for (let number = 0; number < CASES; number += 1) {
    const line = new LabLine(PLAIN_LINE);
    await line.open();
    const [rateMbps, queueMs] = [Math.round(20 + 280 * random()), Math.round(30 + 270 * random())];
    const truth = { down: Math.floor(3 * random()), up: Math.floor(3 * random()) };
    for (const way of ['down', 'up'] as const) {
      const [place, device] = PLACES[way][truth[way]]!;
      tokenBucket(line.netns(place), device, { rateMbps, queueMs });
    }
    const peer = startIn(
      line.netns('peer'),
      ...[process.execPath, 'dist/peer-cli.js', '--port', `${PORT}`, '--trust', publicKeyText(publicKey)],
    );
    try {
      await lineOf(peer, new RegExp(`${PORT}`));
      peer.stdout!.resume();
      const nowMs = Date.now();
      const ticket = signTicket(
        {
          ...{ id: randomUUID(), peerKey: null, runId: 'a look', deviceId: 'lab', directions: ['down', 'up'] },
          ...{ limits: { seconds: 90, bytes: 40e9, streams: 4 }, issuedAtMs: nowMs, expiresAtMs: nowMs + DAY_MS },
        },
        privateKey,
      );
      const address = `http://${line.peerAddress}:${PORT}`;
      const delays = delaysUnderLoad(await looked(line, { name: 'lab peer', address, ticket }));
      const cells = (['down', 'up'] as const).map((way) => {
        const told = delays.find((each) => each.way === way);
        const fits = told?.place === truth[way] + 1;
        return { fits, cells: [`hop ${truth[way] + 1}`, `hop ${told?.place ?? '–'}`, told?.addedMs.toFixed(1) ?? '–'] };
      });
      if (cells.every(({ fits }) => fits)) right += 1;
      table.row(rateMbps, queueMs, ...cells.flatMap((each) => each.cells));
    } finally {
      peer.kill('SIGINT');
      await ended(peer);
      await line.close();
    }
  }
  console.log(`\nThe right hop both ways: ${right} of ${CASES}.`);
}
