import type { ReactNode } from 'react';
import { Link } from '../parts/link';

interface RunLinkProps {
  readonly id: string;
  /** Whether the other runs can be opened from here. */
  readonly links: boolean;
  readonly children: ReactNode;
}

/** The way to another run; mere text for whoever may read only this one. */
export function RunLink({ id, links, children }: RunLinkProps) {
  if (!links) return children;
  return (
    <Link href={`/runs/${id}`} className="underline decoration-hairline">
      {children}
    </Link>
  );
}
