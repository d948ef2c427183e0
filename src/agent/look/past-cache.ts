import { stat } from 'node:fs/promises';
import { printed } from '../machine/printed';

/** A file of which more than this share is still held in memory would be read from there. */
const MOST_HELD = 0.05;

/**
 * Lets the machine's own memory forget a file whose pages are on the disk, by the `nocache` of coreutils' dd (posix_fadvise(2));
 * true when util-linux' fincore finds none of it held any more. False: a read would tell of the memory.
 */
export async function forgetCached(file: string): Promise<boolean> {
  if ((await printed('dd', [`if=${file}`, 'iflag=nocache', 'count=0', 'status=none'])) === null) return false;
  const held = await printed('fincore', ['--bytes', '--noheadings', '--output', 'RES', file]);
  if (held === null) return false;
  const { size } = await stat(file);
  return Number(held.trim()) <= MOST_HELD * size;
}
