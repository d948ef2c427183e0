import type { KeptInStore } from '@/store';
import { done, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

const DAY_MS = 24 * 3600_000;
const YEAR_DAYS = 365;
/** Unless somebody says otherwise. Figures stay for ever. */
export const USUAL_SAMPLE_DAYS = 400;
/** So many runs at a time: nobody waits for the database meanwhile. */
const AT_ONCE = 200;
/** What a year will bring is told from the last days, when there are so many at least. */
const RECENT_DAYS = 30;

async function sampleDays({ store }: Pick<ConsoleContext, 'store'>): Promise<number | null> {
  const said = await store.keeping.sampleDays();
  return said === undefined ? USUAL_SAMPLE_DAYS : said;
}

/** Lets samples go that are older than they are to be kept, a part of them at a time. */
export async function thinSamples(context: ConsoleContext): Promise<number> {
  const days = await sampleDays(context);
  if (days === null) return 0;
  const nowMs = context.wallMs();
  return context.store.keeping.thin(nowMs - days * DAY_MS, nowMs, AT_ONCE);
}

/** How long samples stay. Null: for ever. */
export async function keepSamples(
  context: ConsoleContext,
  { days }: { readonly days: number | null },
): Promise<Outcome<null, never>> {
  await context.store.keeping.setSampleDays(days);
  return done(null);
}

/** How long samples stay, what everything takes on disk, and will take when a year more has been kept like the last month. */
export interface KeepingShown extends KeptInStore {
  readonly sampleDays: number | null;
  /** Samples that are on disk a year from now, bytes; null: too little was measured to tell. */
  readonly inAYearBytes: number | null;
}

export async function keepingShown(context: ConsoleContext): Promise<KeepingShown> {
  const nowMs = context.wallMs();
  const [days, kept] = await Promise.all([
    sampleDays(context),
    context.store.keeping.kept(nowMs - RECENT_DAYS * DAY_MS),
  ]);
  const spanDays = kept.oldestSampledMs === null ? 0 : Math.min(RECENT_DAYS, (nowMs - kept.oldestSampledMs) / DAY_MS);
  const perDay = spanDays < 1 ? null : kept.recentSampleBytes / spanDays;
  const grown = perDay === null ? null : kept.sampleBytes + YEAR_DAYS * perDay;
  const inAYearBytes = grown === null ? null : days === null ? grown : Math.min(grown, perDay! * days);
  return { ...kept, sampleDays: days, inAYearBytes };
}
