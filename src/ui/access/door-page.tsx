import type { ReactNode } from 'react';
import { Mark } from '../shell/mark';
import { Link } from '../parts/link';

interface DoorPageProps {
  readonly title: string;
  readonly text: string;
  readonly children?: ReactNode;
}

/** What stands before the console: a title, what it is about, and a form or none. */
export function DoorPage({ title, text, children }: DoorPageProps) {
  return (
    <main className="mx-auto max-w-[26rem] px-6 pb-16 pt-16">
      <p className="mb-8 flex items-center gap-2 font-semibold">
        <Mark /> Bent Straw
      </p>
      <h1 className="text-2xl font-semibold">{title}</h1>
      <p className="mb-6 mt-2 text-quiet">{text}</p>
      {children}
      <p className="mt-10 border-t border-hairline pt-4 text-sm text-quiet">
        To test this device instead,{' '}
        <Link href="/j" className="text-ink underline">
          type the code
        </Link>
        .
      </p>
    </main>
  );
}
