import type { ReactNode } from 'react';
import { ConsoleFrame } from '../console-frame';

/** The page of a run is for the technician, and for the device that made it. */
export default function RunLayout({ children }: { readonly children: ReactNode }) {
  return <ConsoleFrame>{children}</ConsoleFrame>;
}
