import { percentile } from '../stats/percentile';
import type { NameAnswer, NamesFound } from './look';

/** Fewer answers than this tell no time. */
const ENOUGH = 3;

export interface ResolverStanding {
  readonly resolver: string;
  readonly role: NamesFound['resolvers'][number]['role'];
  /** Median and the middle half of the times of names nobody had asked for; null: too few answers. */
  readonly fresh: { readonly ms: number; readonly low: number; readonly high: number } | null;
  /** Of names that had just been asked for. */
  readonly againMs: number | null;
  readonly asked: number;
  readonly failed: number;
  /** Names that do not exist and were answered with an address all the same. */
  readonly lies: number;
  /** Whether at least one answer was said to be checked by signatures (RFC 4035). */
  readonly authentic: boolean;
}

const timesOf = (answers: readonly NameAnswer[], kind: NameAnswer['kind']) =>
  answers.flatMap((answer) => (answer.kind === kind && answer.ms !== null ? [answer.ms] : []));

/** Zones in which every name exists (a wildcard, RFC 4592): all that answered agree there. Those for examples have none (RFC 2606). */
function zonesOfAll(answers: readonly NameAnswer[]): ReadonlySet<string> {
  const fresh = answers.filter(({ kind, ms }) => kind === 'fresh' && ms !== null);
  const zones = new Set(fresh.map(({ name }) => name));
  return new Set(
    [...zones].filter(
      (zone) =>
        !/(^|\.)example\.(com|net|org)$/.test(zone) &&
        fresh.every(({ name, addresses }) => name !== zone || addresses.length > 0),
    ),
  );
}
/** Server failure and refusal are failures as well: no page opens by them. */
const hasFailed = ({ ms, code }: NameAnswer) => ms === null || code === 'SERVFAIL' || code === 'REFUSED';

function standingOf(
  { resolver, role }: NamesFound['resolvers'][number],
  all: readonly NameAnswer[],
  everyNameExists: ReadonlySet<string>,
): ResolverStanding {
  // A name that nobody can have asked for exists nowhere: whoever knows an address for it made it up.
  const isLie = ({ kind, name, addresses }: NameAnswer) =>
    kind === 'fresh' && addresses.length > 0 && !everyNameExists.has(name);
  const answers = all.filter((answer) => answer.resolver === resolver);
  const good = answers.filter((answer) => !hasFailed(answer));
  const [fresh, again] = [timesOf(good, 'fresh'), timesOf(good, 'again')];
  const enough = fresh.length >= ENOUGH;
  return {
    ...{ resolver, role },
    fresh: enough
      ? { ms: percentile(fresh, 0.5)!, low: percentile(fresh, 0.25)!, high: percentile(fresh, 0.75)! }
      : null,
    againMs: again.length >= ENOUGH ? percentile(again, 0.5) : null,
    asked: answers.length,
    failed: answers.length - good.length,
    lies: answers.filter(isLie).length,
    authentic: good.some(({ authentic }) => authentic),
  };
}

/** More failures than this share of the questions weigh more than any time. */
const MOST_FAILED = 0.1;
const isUnfit = ({ failed, asked, lies, fresh }: ResolverStanding) =>
  fresh === null || lies > 0 || failed > MOST_FAILED * asked;

/**
 * Resolvers in the order in which one would take them: those that answer truly and reliably first, by the median time of names
 * that were not in their memory.
 */
export function rankResolvers(found: NamesFound): ResolverStanding[] {
  const everyNameExists = zonesOfAll(found.answers);
  return found.resolvers
    .map((each) => standingOf(each, found.answers, everyNameExists))
    .sort(
      (a, b) =>
        Number(isUnfit(a)) - Number(isUnfit(b)) ||
        (a.fresh?.ms ?? Infinity) - (b.fresh?.ms ?? Infinity) ||
        a.failed - b.failed,
    );
}

/** The gain below which nobody notices that a page opens sooner, ms; and as a share of the time, for chance makes differences too. */
const WORTH_MS = 3;
const WORTH_SHARE = 0.25;

export type ResolverAdvice =
  | { readonly kind: 'stay'; readonly resolver: string }
  | { readonly kind: 'take'; readonly resolver: string; readonly soonerMs: number | null; readonly instead: string }
  | { readonly kind: 'none' };

/** Which resolver to take: another one only where the middle halves of the times lie apart, or the own one fails or lies. */
export function resolverAdvice(ranked: readonly ResolverStanding[]): ResolverAdvice {
  const own = ranked.find(({ role }) => role === 'own');
  const best = ranked.find((each) => !isUnfit(each));
  if (best === undefined) return { kind: 'none' };
  if (own === undefined || own.resolver === best.resolver) return { kind: 'stay', resolver: best.resolver };
  if (isUnfit(own))
    return {
      ...{ kind: 'take' as const, resolver: best.resolver, instead: own.resolver },
      soonerMs: own.fresh === null ? null : own.fresh.ms - best.fresh!.ms,
    };
  const apart =
    best.fresh!.high < own.fresh!.low &&
    own.fresh!.ms - best.fresh!.ms >= Math.max(WORTH_MS, WORTH_SHARE * own.fresh!.ms);
  return apart
    ? { kind: 'take', resolver: best.resolver, soonerMs: own.fresh!.ms - best.fresh!.ms, instead: own.resolver }
    : { kind: 'stay', resolver: own.resolver };
}
