import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { Mark } from '@/ui/shell/mark';

export const metadata: Metadata = { title: 'Test this device' };

export default function DeviceLayout({ children }: { readonly children: ReactNode }) {
  return (
    <main className="mx-auto max-w-[34rem] px-5 pb-16 pt-5 text-[1.0625rem]">
      <p className="mb-5 flex items-center gap-2 font-semibold">
        <Mark /> Bent Straw
      </p>
      {children}
    </main>
  );
}
