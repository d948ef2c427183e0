import type { ReactNode } from 'react';
import { ConsoleFrame } from '../console-frame';

export default function ConsoleLayout({ children }: { readonly children: ReactNode }) {
  return <ConsoleFrame>{children}</ConsoleFrame>;
}
