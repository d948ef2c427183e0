/** How many differences of a value of `b` and one of `a` are at most so much. Both sorted. */
function countUpTo(a: Float64Array, b: Float64Array, limit: number): number {
  let count = 0;
  // The smaller the value of b, the more values of a are large enough: one pointer, walking one way.
  for (let j = b.length - 1, fitting = 0; j >= 0; j -= 1) {
    while (fitting < a.length && b[j]! - a[a.length - 1 - fitting]! <= limit) fitting += 1;
    count += fitting;
  }
  return count;
}

/** The largest difference that is at most so much. */
function largestUpTo(a: Float64Array, b: Float64Array, limit: number): number {
  let largest = -Infinity;
  for (let j = 0, i = 0; j < b.length; j += 1) {
    while (i < a.length && b[j]! - a[i]! > limit) i += 1;
    if (i < a.length) largest = Math.max(largest, b[j]! - a[i]!);
  }
  return largest;
}

/**
 * The difference at a place, from 0, among all differences of a value of `b` and one of `a` in rising order, without
 * writing them down: bisection on the value, counting by two pointers. Both sorted and not empty. Exact: the answer is one of
 * the differences. Example: [1, 2] and [10, 20]: at 0 8, at 1 9, at 2 18.
 */
export function differenceAt(a: Float64Array, b: Float64Array, place: number): number {
  let low = b[0]! - a.at(-1)!;
  let high = b.at(-1)! - a[0]!;
  if (countUpTo(a, b, low) > place) return low;
  // Up to low there are too few, up to high enough, until no number lies between them.
  for (let middle = low + (high - low) / 2; middle > low && middle < high; middle = low + (high - low) / 2)
    if (countUpTo(a, b, middle) > place) high = largestUpTo(a, b, middle);
    else low = middle;
  return high;
}
