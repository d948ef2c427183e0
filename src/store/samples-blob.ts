import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import type { RunSamples } from '@/core';

const compress = promisify(gzip);
const decompress = promisify(gunzip);

/** Raw samples as they lie in the database: gzipped JSON. */
export async function packSamples(samples: RunSamples): Promise<Buffer> {
  return compress(JSON.stringify(samples));
}

export async function unpackSamples(blob: Buffer): Promise<RunSamples> {
  return JSON.parse((await decompress(blob)).toString()) as RunSamples;
}
