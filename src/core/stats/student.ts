/** Quantiles at 0.975 of Student's t distribution with 1, 2, 3, … degrees of freedom (any table of it). */
const AT_975: readonly number[] = [
  ...[12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228],
  ...[2.201, 2.179, 2.16, 2.145, 2.131, 2.12, 2.11, 2.101, 2.093, 2.086],
  ...[2.08, 2.074, 2.069, 2.064, 2.06, 2.056, 2.052, 2.048, 2.045, 2.042],
];
const NORMAL_975 = 1.96;

/** The quantile at 0.975 for so many degrees of freedom, 1 or more; between two of them that of the fewer. */
export function studentQuantile(freedom: number): number {
  // Beyond the table the first term of its expansion is right to a thousandth.
  return AT_975[Math.floor(freedom) - 1] ?? NORMAL_975 + 2.4 / freedom;
}

/** Of fewer parts than this hardly anything is known: then it is as with so many. */
const LEAST_PARTS = 3;

/**
 * How much wider a 95 % interval must be than one of a normal distribution with the spread of `parts` independent parts
 * taken for known: Student's quantile, and n / (n − 1) of the variance.
 */
export function fewPartsFactor(parts: number): number {
  const known = Math.max(LEAST_PARTS, parts);
  return (studentQuantile(known - 1) / NORMAL_975) * Math.sqrt(known / (known - 1));
}
