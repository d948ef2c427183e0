'use client';

import { usePathname, useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { isTyping, PLACES } from './console-keys';
import { Link } from '../parts/link';

/** The places of the console, and the letters that lead to them; / leads to the field that narrows what is shown. */
export function Places() {
  const path = usePathname();
  const router = useRouter();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      if (document.querySelector('[role="dialog"]') !== null) return;
      if (event.key === '/') {
        const field = document.querySelector<HTMLInputElement>('[data-narrow]');
        if (field === null) return;
        event.preventDefault();
        field.focus();
        // In what may be long, one goes on behind what is typed.
        if (field.dataset['narrow'] === 'end') field.setSelectionRange(field.value.length, field.value.length);
        else field.select();
        return;
      }
      if (event.key.toLowerCase() === 'x') return router.push('/swaps');
      const place = PLACES.find(({ letter }) => letter === event.key.toLowerCase());
      if (place !== undefined) router.push(place.href);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [router]);
  return (
    <nav aria-label="Places" className="flex max-lg:-mx-2 max-lg:overflow-x-auto">
      {PLACES.map(({ letter, before, after, href }) => {
        const here = href === '/' ? path === '/' : path.startsWith(href);
        const word = before === '' ? letter.toUpperCase() : letter;
        return (
          <Link
            key={href}
            href={href}
            aria-current={here ? 'page' : undefined}
            aria-keyshortcuts={letter}
            className={`whitespace-nowrap border-b-2 px-[0.42rem] py-2.5 ${here ? 'border-ink' : 'border-transparent text-quiet hover:text-ink'}`}
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
