/** Where an entry's page lies: narrowed as it is, or older. */
export function happenedHref(query: Readonly<Record<'who' | 'kind' | 'before', string | null>>): string {
  const known = Object.entries(query).filter((entry): entry is [string, string] => entry[1] !== null);
  const search = new URLSearchParams(known).toString();
  return search === '' ? '/happened' : `/happened?${search}`;
}
