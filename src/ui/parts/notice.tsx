import type { ReactNode } from 'react';

interface NoticeProps {
  readonly title: string;
  readonly children: ReactNode;
  /** Whether a screen reader should speak it at once. */
  readonly urgent?: boolean;
}

/** A note pinned to the page: what happened, to what, and what to do next. */
export function Notice({ title, children, urgent = false }: NoticeProps) {
  return (
    <section
      role={urgent ? 'alert' : 'status'}
      className="max-w-[40rem] border-l-[3px] border-starved bg-sheet px-4 py-3"
    >
      <h2 className="font-semibold">{title}</h2>
      <div className="mt-1 text-quiet [&_a]:text-ink [&_a]:underline">{children}</div>
    </section>
  );
}
