import type { Metadata, Viewport } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import { readTheme, THEME_COOKIE } from '@/ui/shell/theme';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Bent Straw', template: '%s · Bent Straw' },
  description: 'Measure every link of an office against its plan and what it can carry, and find the kink.',
  robots: { index: false },
};

export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function RootLayout({ children }: { readonly children: ReactNode }) {
  const theme = readTheme((await cookies()).get(THEME_COOKIE)?.value);
  return (
    <html lang="en" {...(theme === 'auto' ? {} : { 'data-theme': theme })}>
      <body>{children}</body>
    </html>
  );
}
