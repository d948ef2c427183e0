import type { Reach } from '../domain/reach';

/** How far a run goes, as it is said to whoever starts one. */
export const REACH_PHRASES: Readonly<Record<Reach, string>> = {
  internet: 'out to the internet',
  local: 'inside the office only',
  tunnel: 'through the tunnel',
  between: 'to another of our machines',
};
