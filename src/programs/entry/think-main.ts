import { parentPort } from 'node:worker_threads';
import { diagnose, sideBySide, type Occasion, type SideRun } from '@/core';
import { unpacked } from '../supervise/packed-members';
import { KeptOccasions } from '../supervise/sent-occasions';
import type { Answer, Asked, Question } from '../supervise/thinking-thread';

const kept = new KeptOccasions<Occasion>();

function answerTo(asked: Question): Answer['answer'] {
  if (asked.kind === 'compare')
    return sideBySide(asked.trays.map(({ name, runs }) => ({ name, runs: unpacked<SideRun>(runs) })));
  return diagnose({ ...asked.rest, occasions: kept.whole(asked.list) });
}

/** Works out what stands out, and holds runs side by side, beside the console: with many runs it takes a part of a second. */
parentPort!.on('message', (asked: Asked) => {
  if (asked.kind === 'parcel') return kept.take(asked.parcel);
  parentPort!.postMessage({ id: asked.id, answer: answerTo(asked) } satisfies Answer);
});
