import { finalBytes } from '../measure/rate/counter-series';
import type { RunSamples } from './run-samples';

/** What a run moved over its path in both directions together, payload bytes; null: it moved nothing in bulk. */
export function movedBytes({
  download,
  upload,
  bothDown,
  bothUp,
}: Pick<RunSamples, 'download' | 'upload' | 'bothDown' | 'bothUp'>): number | null {
  const counted = [download, upload, bothDown, bothUp].flatMap((series) => finalBytes(series) ?? []);
  return counted.length === 0 ? null : counted.reduce((sum, bytes) => sum + bytes, 0);
}
