import type { SideRun, Trait, Tray } from './side-run';
import { whatDiffers } from './what-differs';

const LETTERS = ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H'];
/** What one may call a tray by, where it is what differs. */
const TELLING: readonly Trait[] = [
  ...(['link', 'device', 'spot', 'reach', 'peer', 'line', 'hours', 'weekdays', 'profile', 'practice'] as const),
];
const AS_NAMED: Partial<Record<Trait, (value: string) => string>> = {
  link: (value) => (value === 'wired' ? 'the cable' : value),
  practice: (value) => (value === 'yes' ? 'the practice line' : 'the real line'),
};

function only(runs: readonly SideRun[], trait: Trait): string | null {
  const values = new Set(runs.map(({ traits }) => traits[trait]));
  return values.size === 1 ? [...values][0]! : null;
}

/** Names of trays: those that were given, else what tells one from the others, else a letter. Example: "the cable", "5 GHz". */
export function trayNames(trays: readonly Tray[]): string[] {
  const differing = whatDiffers(trays).map(({ trait }) => trait);
  const trait = TELLING.find((each) => {
    if (!differing.includes(each)) return false;
    const values = trays.map(({ runs }) => only(runs, each));
    return values.every((value) => value !== null) && new Set(values).size === values.length;
  });
  return trays.map(({ name, runs }, place) => {
    if (name !== '') return name;
    const value = trait === undefined ? null : only(runs, trait);
    return value === null ? (LETTERS[place] ?? `${place + 1}`) : (AS_NAMED[trait!]?.(value) ?? value);
  });
}
