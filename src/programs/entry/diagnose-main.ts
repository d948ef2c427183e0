import { parentPort } from 'node:worker_threads';
import { diagnose, type DiagnosisInput } from '@/core';

/** Works out what stands out, beside the console: an office with many runs takes a part of a second. */
parentPort!.on('message', ({ id, input }: { readonly id: number; readonly input: DiagnosisInput }) => {
  parentPort!.postMessage({ id, diagnosis: diagnose(input) });
});
