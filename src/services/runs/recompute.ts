import { METHOD_VERSION, reportOf, sketchOf, stripDataOf } from '@/core';
import type { StoredRun } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { conditionsOf, figureColumns } from './judged-run';

/** What a run's figures were and are. Rates in bits per second, delays in ms. */
export interface RecomputedRun {
  readonly run: Pick<StoredRun, 'id' | 'deviceName' | 'startedAtMs' | 'methodVersion'>;
  readonly status: 'same' | 'changed' | 'no-samples';
  readonly changes: readonly { readonly what: string; readonly before: unknown; readonly after: unknown }[];
}

const COMPARED = ['verdict', 'downBps', 'upBps', 'idleMs', 'addedMs'] as const;

export interface RecomputeOptions {
  /** Also runs that were made by the current method. */
  readonly all: boolean;
  /** Say what would change and change nothing. */
  readonly dry: boolean;
}

/**
 * Brings stored runs to the current version of the method, from their raw samples and the conditions of their day.
 * A run without samples keeps what it has. Yields each run as it is done.
 */
export async function* recompute(
  { store }: Pick<ConsoleContext, 'store'>,
  { all, dry }: RecomputeOptions,
): AsyncGenerator<RecomputedRun> {
  for (const stored of await store.runs.finishedByOtherMethod(METHOD_VERSION, all)) {
    const { id, deviceName, startedAtMs, methodVersion } = stored;
    const run = { id, deviceName, startedAtMs, methodVersion };
    const samples = await store.runs.samples(id);
    if (samples === null) {
      yield { run, status: 'no-samples', changes: [] };
      continue;
    }
    const figures = figureColumns(reportOf(samples, conditionsOf(stored)), stored);
    const changes = COMPARED.flatMap((what) =>
      stored[what] === figures[what] ? [] : [{ what, before: stored[what], after: figures[what] }],
    );
    if (!dry) await store.runs.replaceFigures(id, { ...figures, sketch: sketchOf(stripDataOf(samples)) });
    yield { run, status: changes.length === 0 ? 'same' : 'changed', changes };
  }
}
