import { fairnessWords, nextStep, sideSentences, type GroupComparison } from '@/core';
import { sidePageOf, type ConsoleContext } from '@/services';
import { done, failed, type Outcome, type SideDocument } from '@/wire';

function againstDocument(of: GroupComparison | null): SideDocument['figures'][number]['against'][number] {
  if (of === null) return null;
  if (of.status === 'too-few')
    return {
      ...{ told: false, shift: null, interval: null, p: null, real: null, matters: null },
      moreWanted: of.moreWanted,
    };
  const { shift, interval, p, real, matters, moreWanted } = of;
  return { told: true, shift, interval, p, real, matters, moreWanted };
}

export async function sideDocument(
  context: ConsoleContext,
  id: string,
): Promise<Outcome<SideDocument, 'comparison-unknown'>> {
  const page = await sidePageOf(context, id);
  if (!page.ok) return page;
  const { name, madeAtMs, trays, compared, side } = page.value;
  return done({
    ...{ id, name, madeAt: new Date(madeAtMs).toISOString() },
    trays: trays.map((tray) => ({
      name: tray.name,
      query: tray.query,
      runs: tray.runs.map((run) => run.id),
      aside: tray.aside,
    })),
    sentences: sideSentences(side, compared),
    fairness: {
      ...{ word: side.fairness, sentence: fairnessWords(side) },
      differs: side.differences.map(({ trait }) => trait),
    },
    figures: side.figures.map(({ quantity, trays: of, against }) => ({
      quantity,
      trays: of.map(({ median, interval, count, occasions }) => ({ median, interval, runs: count, occasions })),
      against: against.map(againstDocument),
    })),
  });
}

export async function alternationDocument({ store }: ConsoleContext, id: string) {
  const stored = await store.alternations.byId(id);
  if (stored === null) return failed('alternation-over');
  const { sides, runs, times, state, why, turnId, comparisonId } = stored;
  const step = nextStep(stored);
  const waits = state === 'going' && turnId === null && step.kind === 'hands';
  return done({
    ...{ id, sides: sides.map(({ name }) => name), runs, times, state, why, comparisonId },
    waitsForHands: waits ? sides[step.side].name : null,
  });
}
