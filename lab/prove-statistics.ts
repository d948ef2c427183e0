import { execFileSync } from 'node:child_process';
import { randomInt } from 'node:crypto';
import {
  canTell,
  drawGroup,
  drawNoise,
  levelShiftsOf,
  NOISE_SHAPES,
  seededRandom,
  shiftOf,
  summarizeSet,
  unusualAfter,
  type NoiseShape,
  type TimedValue,
} from '@/core';
import { Table } from './tables/table';

/**
 * How often the program's statistics are wrong, by simulation with fresh seeds: what the unit tests hold with fixed ones.
 * Where R is installed (Debian's r-base-core), its exact test is asked for the same. PROVE_DRAWS=200 for a short run.
 */
const DRAWS = Number(process.env['PROVE_DRAWS'] ?? 2000);
const seed = Number(process.env['PROVE_SEED'] ?? randomInt(1, 2 ** 31));
const SIZES: readonly (readonly [number, number])[] = [2, 3, 4, 5, 7, 10, 15].flatMap((n) =>
  [2, 3, 4, 5, 7, 10, 15].filter((m) => m >= n && canTell(n, m)).map((m) => [n, m] as const),
);
const SHIFT = 1.7;
const percent = (share: number) => `${(share * 100).toFixed(1)} %`;

function identicalAndShifted(shape: NoiseShape, n: number, m: number, random: () => number) {
  let [real, covered] = [0, 0];
  for (let draw = 0; draw < DRAWS; draw += 1) {
    if (shiftOf(drawGroup(shape, n, random), drawGroup(shape, m, random), random)!.p <= 0.05) real += 1;
    const moved = drawGroup(shape, m, random).map((value) => value + SHIFT);
    const { low, high } = shiftOf(drawGroup(shape, n, random), moved, random)!.interval;
    if (low <= SHIFT && high >= SHIFT) covered += 1;
  }
  return { real: real / DRAWS, covered: covered / DRAWS };
}

function comparisons(random: () => number): boolean {
  const note = `Identical groups called different (wanted: at most 5.5 %) and the true shift inside the interval (at least 94 %); ${DRAWS} draws a cell.`;
  const table = new Table('Two groups', note, [
    'sizes',
    ...NOISE_SHAPES.flatMap((shape) => [`${shape}: different`, 'covered']),
  ]);
  let holds = true;
  for (const [n, m] of SIZES) {
    const cells = NOISE_SHAPES.map((shape) => identicalAndShifted(shape, n, m, random));
    // Four standard errors of a simulated share are left to chance: each cell here is drawn anew.
    const chance = 4 * Math.sqrt((0.05 * 0.95) / DRAWS);
    holds &&= cells.every(({ real, covered }) => real <= 0.05 + chance && covered >= 0.95 - chance);
    table.row(`${n} and ${m}`, ...cells.flatMap(({ real, covered }) => [percent(real), percent(covered)]));
  }
  return holds;
}

function oddRuns(random: () => number): boolean {
  const table = new Table(
    'Odd runs',
    `Sets of plain noise that show one; ${DRAWS} draws a cell. Wanted: at most 5 %, of normal noise.`,
    [...['runs', 'noise 2 %', 'noise 6 %', 'noise 20 %', '20 %, skewed', '20 %, two-humped']],
  );
  let holds = true;
  for (const size of [3, 4, 5, 6, 8, 12]) {
    const share = (noise: number, shape: NoiseShape) => {
      const draw = () => drawGroup(shape, size, random).map((value) => 100 * (1 + noise * value));
      let odd = 0;
      for (let index = 0; index < DRAWS; index += 1) {
        const usual = Array.from({ length: 6 }, draw).map((set) => Math.max(...set) - Math.min(...set));
        if (summarizeSet(draw(), 'rate', usual)!.odd.length > 0) odd += 1;
      }
      return odd / DRAWS;
    };
    const shares = [0.02, 0.06, 0.2].map((noise) => share(noise, 'normal'));
    const chance = 4 * Math.sqrt((0.05 * 0.95) / DRAWS);
    holds &&= shares.every((share) => share <= 0.05 + chance);
    table.row(size, ...[...shares, share(0.2, 'skewed'), share(0.2, 'two-humped')].map(percent));
  }
  return holds;
}

/** Occasions of a delay, the later ones so much higher. */
function seriesOf(shape: NoiseShape, before: number, after: number, step: number, random: () => number): TimedValue[] {
  return Array.from({ length: before + after }, (_, index) => ({
    startedAtMs: index,
    value: 1000 + (index < before ? 0 : step) + 100 * drawNoise(shape, random),
  }));
}

function overTime(random: () => number): boolean {
  const note = `Outside what is usual after so many occasions (wanted: at most 5 %), and level shifts in series without one (5 %) and with one of twice the spread in the middle (found); ${DRAWS} draws a cell.`;
  const table = new Table('Over time', note, ['', ...NOISE_SHAPES]);
  const shares = (name: string, happens: (shape: NoiseShape) => boolean, most: number) => {
    const cells = NOISE_SHAPES.map(
      (shape) => Array.from({ length: DRAWS }, () => happens(shape)).filter(Boolean).length / DRAWS,
    );
    table.row(name, ...cells.map(percent));
    const chance = 4 * Math.sqrt((0.05 * 0.95) / DRAWS);
    return cells.every((share) => share <= most + chance);
  };
  const held = [8, 12, 20, 30].map((count) =>
    shares(
      `unusual after ${count}`,
      (shape) =>
        unusualAfter(
          seriesOf(shape, count, 0, 0, random).map(({ value }) => value),
          1000 + 100 * drawNoise(shape, random),
          'delay',
        ) !== null,
      0.05,
    ),
  );
  const level = [20, 100, 300].map((count) =>
    shares(
      `a shift in ${count} level ones`,
      (shape) => levelShiftsOf(seriesOf(shape, count, 0, 0, random), 'delay').length > 0,
      0.05,
    ),
  );
  // Of the shapes of noise, by simulation.
  const spread = { normal: 1, skewed: 1.08, 'two-humped': 1.53 };
  for (const side of [10, 20])
    shares(
      `found in ${side} and ${side}`,
      (shape) => levelShiftsOf(seriesOf(shape, side, side, 200 * spread[shape], random), 'delay').length > 0,
      1,
    );
  return [...held, ...level].every(Boolean);
}

/** The same cases by R's exact Wilcoxon test; null where R is not installed. */
function agreementWithR(random: () => number): number | null {
  const cases = Array.from({ length: 200 }, () => {
    const [n, m] = SIZES[Math.floor(random() * SIZES.length)]!;
    const shape = NOISE_SHAPES[Math.floor(random() * NOISE_SHAPES.length)]!;
    return { a: drawGroup(shape, n, random), b: drawGroup(shape, m, random).map((value) => value + random()) };
  });
  const script = cases
    .map(
      ({ a, b }) => `w <- wilcox.test(c(${b.join(',')}), c(${a.join(',')}), conf.int = TRUE, exact = TRUE)
cat(sprintf("%.10g %.10g %.10g %.10g\\n", w$estimate, w$p.value, w$conf.int[1], w$conf.int[2]))`,
    )
    .join('\n');
  let printed: string;
  try {
    printed = execFileSync('Rscript', ['--vanilla', '-'], {
      input: script,
      encoding: 'utf8',
      stdio: ['pipe', 'pipe', 'ignore'],
    });
  } catch {
    return null;
  }
  const rows = printed
    .trim()
    .split('\n')
    .map((line) => line.split(' ').map(Number));
  return cases.filter(({ a, b }, index) => {
    const { estimate, p, interval } = shiftOf(a, b, random)!;
    return [estimate, p, interval.low, interval.high].every(
      (value, at) => Math.abs(value - rows[index]![at]!) <= 1e-6 * Math.max(1, Math.abs(value)),
    );
  }).length;
}

console.log(`Seed ${seed}. The same tables again: PROVE_SEED=${seed} npm run prove-statistics`);
const random = seededRandom(seed);
const held = [comparisons(random), oddRuns(random), overTime(random)].every(Boolean);
const agree = agreementWithR(random);
console.log(
  agree === null
    ? '\nR is not installed: nothing is held against it.'
    : `\nAs R's wilcox.test, to six digits: ${agree} of 200.`,
);
const all = held && (agree ?? 200) === 200;
console.log(all ? 'All of it holds.' : 'Some of it does not hold.');
process.exit(all ? 0 : 1);
