import { TRAITS, type SideRun, type Trait, type Tray } from './side-run';

/** A condition that is not the same in all trays: its values by tray, the commonest first. */
export interface Difference {
  readonly trait: Trait;
  readonly values: readonly (readonly string[])[];
}

/**
 * *repeat*: nothing differs. *fair*: one thing does. *unfair*: more do, so that nobody knows which of them made the
 * difference.
 */
export type Fairness = 'repeat' | 'fair' | 'unfair';

/** When runs were made is told as differing only where they share no such time: a week has all of them. */
const OF_TIME: readonly Trait[] = ['hours', 'weekdays'];

function valuesOf(runs: readonly SideRun[], trait: Trait): string[] {
  const counts = new Map<string, number>();
  // Neighbours are mostly alike: those are counted in one.
  let [value, alike] = ['', 0];
  const count = () => {
    if (alike > 0) counts.set(value, (counts.get(value) ?? 0) + alike);
  };
  for (const { traits } of runs) {
    const own = traits[trait];
    if (own === value) alike += 1;
    else {
      count();
      [value, alike] = [own, 1];
    }
  }
  count();
  return [...counts].sort((a, b) => b[1] - a[1]).map(([of]) => of);
}

function isSame(values: readonly (readonly string[])[], trait: Trait): boolean {
  const [first = [], ...others] = values;
  if (OF_TIME.includes(trait)) return others.every((other) => other.some((value) => first.includes(value)));
  return others.every((other) => other.length === first.length && other.every((value) => first.includes(value)));
}

/** What differs between trays, that which moves figures most first. Trays without runs say nothing. */
export function whatDiffers(trays: readonly Tray[]): Difference[] {
  const filled = trays.filter(({ runs }) => runs.length > 0);
  if (filled.length < 2) return [];
  return TRAITS.flatMap((trait) => {
    const values = filled.map(({ runs }) => valuesOf(runs, trait));
    return isSame(values, trait) ? [] : [{ trait, values }];
  });
}

export function fairnessOfDifferences(differences: readonly Difference[]): Fairness {
  if (differences.length === 0) return 'repeat';
  return differences.length === 1 ? 'fair' : 'unfair';
}

/** The trays with only those runs that are alike but in one thing; null where a tray has none of them. */
export function fairPart(trays: readonly Tray[], differences: readonly Difference[], keep: Trait): Tray[] | null {
  const others = differences.filter(({ trait }) => trait !== keep);
  const shared = new Map(
    others.map(({ trait, values }) => {
      const [first = [], ...rest] = values;
      return [trait, new Set(first.filter((value) => rest.every((of) => of.includes(value))))] as const;
    }),
  );
  const part = trays.map(({ name, runs }) => ({
    name,
    runs: runs.filter(({ traits }) => [...shared].every(([trait, values]) => values.has(traits[trait]))),
  }));
  return part.every(({ runs }) => runs.length > 0) ? part : null;
}
