'use client';

import { useRouter } from 'next/navigation';
import { useEffect } from 'react';

const BUSY_MS = 3000;
const IDLE_MS = 15_000;

/** Asks the server for the page again, often while runs are under way and now and then otherwise. */
export function RefreshWhile({ busy }: { readonly busy: boolean }) {
  const router = useRouter();
  useEffect(() => {
    const timer = setInterval(
      () => {
        if (document.visibilityState === 'visible') router.refresh();
      },
      busy ? BUSY_MS : IDLE_MS,
    );
    return () => clearInterval(timer);
  }, [busy, router]);
  return null;
}
