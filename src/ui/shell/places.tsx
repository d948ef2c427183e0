'use client';

import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect } from 'react';

/** The places of the console; each has a letter that leads there when no field has the focus. */
const PLACES = [
  { letter: 'b', before: '', after: 'oard', href: '/' },
  { letter: 'l', before: '', after: 'edger', href: '/ledger' },
  { letter: 't', before: 'Se', after: '-up', href: '/set-up' },
] as const;

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName))
  );
}

export function Places() {
  const path = usePathname();
  const router = useRouter();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      const place = PLACES.find(({ letter }) => letter === event.key.toLowerCase());
      if (place !== undefined) router.push(place.href);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [router]);
  return (
    <nav aria-label="Places" className="flex gap-1">
      {PLACES.map(({ letter, before, after, href }) => {
        const here = href === '/' ? path === '/' : path.startsWith(href);
        const word = before === '' ? letter.toUpperCase() : letter;
        return (
          <Link
            key={href}
            href={href}
            aria-current={here ? 'page' : undefined}
            aria-keyshortcuts={letter}
            className={`border-b-2 px-2.5 py-2.5 ${here ? 'border-ink' : 'border-transparent text-quiet hover:text-ink'}`}
          >
            {before}
            <span className="underline decoration-[1.5px] underline-offset-[3px]">{word}</span>
            {after}
          </Link>
        );
      })}
    </nav>
  );
}
