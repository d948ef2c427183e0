'use client';

import { useState, useTransition } from 'react';

export type Act = () => Promise<string | null>;

/** Actions of a place, one after the other: whether one is under way, and what stood in the way of the last; null: nothing did. */
export function useActs() {
  const [working, start] = useTransition();
  const [refused, setRefused] = useState<string | null>(null);
  const does = (act: Act) => () => start(async () => setRefused(await act()));
  return { working, refused, does };
}
