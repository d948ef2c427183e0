'use client';

import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import type { ChangedThing } from '@/services';

/** What comes at once is drawn once. */
const GATHER_MS = 150;
/** Ages and waiting times move on by themselves. */
const IDLE_MS = 15_000;

/** What a board shows; who may sign in and what copies there are it does not. */
const SHOWN: readonly ChangedThing[] = ['office', 'runs', 'queue', 'presence', 'findings'];

/** Asks the server for the page again whenever the console says that something has changed. */
export function FollowChanges({ shown = SHOWN }: { readonly shown?: readonly ChangedThing[] }) {
  const router = useRouter();
  useEffect(() => {
    let gathering: ReturnType<typeof setTimeout> | undefined;
    const refresh = () => {
      gathering ??= setTimeout(() => {
        gathering = undefined;
        if (document.visibilityState === 'visible') router.refresh();
      }, GATHER_MS);
    };
    const source = new EventSource('/api/v1/changes');
    source.addEventListener('changed', ({ data }: MessageEvent<string>) => {
      const { what } = JSON.parse(data) as { readonly what: readonly ChangedThing[] };
      if (what.some((each) => shown.includes(each))) refresh();
    });
    // The sign-in was ended elsewhere: what is shown here is no longer for whoever looks.
    source.addEventListener('signed-out', () => window.location.reload());
    // After a break something may have been missed.
    source.addEventListener('open', refresh);
    const timer = setInterval(refresh, IDLE_MS);
    document.addEventListener('visibilitychange', refresh);
    return () => {
      source.close();
      clearTimeout(gathering);
      clearInterval(timer);
      document.removeEventListener('visibilitychange', refresh);
    };
  }, [router, shown]);
  return null;
}
