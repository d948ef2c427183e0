import { parentPort } from 'node:worker_threads';
import { diagnose, type Occasion } from '@/core';
import type { Asked } from '../supervise/diagnosing-thread';
import { KeptOccasions } from '../supervise/sent-occasions';

const kept = new KeptOccasions<Occasion>();

/** Works out what stands out, beside the console: an office with many runs takes a part of a second. */
parentPort!.on('message', ({ id, rest, errand }: Asked) => {
  parentPort!.postMessage({ id, diagnosis: diagnose({ ...rest, occasions: kept.whole(errand) }) });
});
