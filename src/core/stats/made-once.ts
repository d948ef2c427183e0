/** So many things are kept for one list; then the oldest go. */
const MOST_KEPT = 8;

/**
 * Keeps what was made of a list for as long as the list is there. `key`: what else it was made of. A list must not be
 * changed once something was made of it.
 */
export function madeOnce<List extends object, Made>(): (list: List, key: string | number, make: () => Made) => Made {
  const lists = new WeakMap<List, Map<string | number, Made>>();
  return (list, key, make) => {
    let known = lists.get(list);
    if (known === undefined) lists.set(list, (known = new Map<string | number, Made>()));
    if (known.has(key)) return known.get(key)!;
    const made = make();
    if (known.size >= MOST_KEPT) known.delete(known.keys().next().value!);
    known.set(key, made);
    return made;
  };
}
