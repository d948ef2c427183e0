import type { ReactNode } from 'react';

interface SectionProps {
  readonly title: string;
  readonly hint: string;
  readonly children: ReactNode;
}

/** One part of the set-up: what it is for at the left, its fields at the right. */
export function Section({ title, hint, children }: SectionProps) {
  return (
    <section className="grid gap-x-10 gap-y-3 border-t-[1.5px] border-ink py-5 md:grid-cols-[15rem_1fr]">
      <div>
        <h2 className="font-semibold">{title}</h2>
        <p className="mt-1 text-sm text-quiet">{hint}</p>
      </div>
      <div className="min-w-0">{children}</div>
    </section>
  );
}
