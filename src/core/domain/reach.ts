/** How far a run goes. */
export const REACHES = ['local', 'internet', 'tunnel'] as const;
export type Reach = (typeof REACHES)[number];
