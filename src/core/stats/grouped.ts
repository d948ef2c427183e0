/** The members of a list by a key of each, in the order in which they come. */
export function groupedBy<Key, Value>(values: Iterable<Value>, keyOf: (value: Value) => Key): Map<Key, Value[]> {
  const groups = new Map<Key, Value[]>();
  for (const value of values) {
    const key = keyOf(value);
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [value]);
    else group.push(value);
  }
  return groups;
}
