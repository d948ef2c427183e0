import type { BoardFilter } from '@/services';

const NAMES: Readonly<Record<keyof BoardFilter, string>> = {
  text: 'text',
  spot: 'spot',
  linkKind: 'link',
  reach: 'reach',
  segment: 'segment',
  verdict: 'verdict',
  rating: 'delay',
  age: 'age',
};

/** The address of the board, narrowed. */
export function boardHref(filter: BoardFilter): string {
  const query = new URLSearchParams();
  for (const [key, name] of Object.entries(NAMES) as [keyof BoardFilter, string][]) {
    const value = filter[key];
    if (value !== undefined && value !== '') query.set(name, value);
  }
  const text = query.toString();
  return text === '' ? '/' : `/?${text}`;
}
