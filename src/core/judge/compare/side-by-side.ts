import { median } from '../../stats/percentile';
import { seededRandom } from '../../stats/seeded-random';
import type { Interval } from '../../stats/block-bootstrap';
import {
  comparePairs,
  USUAL_LIMITS,
  type ComparedRun,
  type ComparisonLimits,
  type GroupComparison,
} from './group-comparison';
import { medianInterval } from './median-interval';
import { SIDE_QUANTITIES, type SideQuantity, type SideRun, type Trait, type Tray } from './side-run';
import { fairnessOfDifferences, fairPart, whatDiffers, type Difference, type Fairness } from './what-differs';

/** What one tray has of a quantity. */
export interface TrayFigures {
  /** Runs in which it was measured. */
  readonly count: number;
  /** Null: there are none. */
  readonly least: number | null;
  readonly most: number | null;
  /** Each of them; of more than `MOST_DOTS` every second, third, …: the median and its interval are of all. */
  readonly dots: readonly { readonly id: string; readonly value: number }[];
  readonly median: number | null;
  /** 95 % interval of the median; null: too few. */
  readonly interval: Interval | null;
  readonly occasions: number;
}

/** A quantity of all trays, each after the first held against the first. */
export interface SideFigures {
  readonly quantity: SideQuantity;
  readonly trays: readonly TrayFigures[];
  /** One for each tray but the first; null where nothing of it was measured on either side. */
  readonly against: readonly (GroupComparison | null)[];
}

export interface SideBySide {
  readonly differences: readonly Difference[];
  readonly fairness: Fairness;
  /** How many runs of each tray would be left if it were made fair, by what may differ; those that cannot are not named. */
  readonly fairBy: readonly { readonly keep: Trait; readonly runs: readonly number[] }[];
  readonly figures: readonly SideFigures[];
}

/** From where on a difference matters: of loss half a percentage point, of the rest as everywhere. */
const LIMITS: Readonly<Record<SideQuantity, ComparisonLimits>> = {
  ...{ down: USUAL_LIMITS, up: USUAL_LIMITS, idle: USUAL_LIMITS, addedDown: USUAL_LIMITS, addedUp: USUAL_LIMITS },
  ...{ jitter: USUAL_LIMITS, loss: { share: 0.05, ms: 0.005 } },
};
const RATES: readonly SideQuantity[] = ['down', 'up'];
const SEED = 2211;
/** More of one tray say no more. */
const MOST_DOTS = 400;

function comparedOf(runs: readonly SideRun[], quantity: SideQuantity): ComparedRun[] {
  const isRate = RATES.includes(quantity);
  const found: ComparedRun[] = [];
  for (const { occasion, figures } of runs) {
    const value = figures[quantity];
    if (value !== null && !(isRate && value <= 0)) found.push({ value, occasion });
  }
  return found;
}

function trayFigures({ runs }: Tray, quantity: SideQuantity): TrayFigures {
  const ids: string[] = [];
  const values: number[] = [];
  const occasions = new Set<string>();
  let [least, most] = [Infinity, -Infinity];
  for (const { id, occasion, figures } of runs) {
    const value = figures[quantity];
    if (value === null) continue;
    ids.push(id);
    values.push(value);
    occasions.add(occasion);
    least = Math.min(least, value);
    most = Math.max(most, value);
  }
  const none = values.length === 0;
  return {
    ...{ count: values.length, least: none ? null : least, most: none ? null : most, dots: dotsOf(ids, values) },
    ...{ median: median(values), interval: medianInterval(values), occasions: occasions.size },
  };
}

function dotsOf(ids: readonly string[], values: readonly number[]): TrayFigures['dots'] {
  const step = Math.max(1, Math.ceil(values.length / MOST_DOTS));
  const dots: { readonly id: string; readonly value: number }[] = [];
  for (let place = 0; place < values.length; place += step) dots.push({ id: ids[place]!, value: values[place]! });
  return dots;
}

function figuresOf(trays: readonly Tray[], quantity: SideQuantity): SideFigures {
  const groups = trays.map(({ runs }) => comparedOf(runs, quantity));
  const pairs = groups.flatMap((group, place) =>
    place > 0 && group.length > 0 && groups[0]!.length > 0 ? [[0, place] as const] : [],
  );
  const kind = RATES.includes(quantity) ? 'rate' : 'delay';
  const compared = new Map(
    comparePairs(groups, pairs, kind, seededRandom(SEED), LIMITS[quantity]).map(({ b, comparison }) => [b, comparison]),
  );
  return {
    quantity,
    trays: trays.map((tray) => trayFigures(tray, quantity)),
    against: groups.slice(1).map((_, place) => compared.get(place + 1) ?? null),
  };
}

/** Trays of runs held side by side (comparing.md): what differs, whether that is fair, and how large each difference is. */
export function sideBySide(trays: readonly Tray[]): SideBySide {
  const differences = whatDiffers(trays);
  const filled = trays.filter(({ runs }) => runs.length > 0);
  const fairBy =
    differences.length < 2
      ? []
      : differences.flatMap(({ trait }) => {
          const part = fairPart(filled, differences, trait);
          return part === null ? [] : [{ keep: trait, runs: part.map(({ runs }) => runs.length) }];
        });
  return {
    ...{ differences, fairness: fairnessOfDifferences(differences), fairBy },
    figures: SIDE_QUANTITIES.map((quantity) => figuresOf(trays, quantity)),
  };
}
