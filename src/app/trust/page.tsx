import type { Metadata } from 'next';
import { connection } from 'next/server';
import { headers } from 'next/headers';
import { theConsole } from '@/services';
import { TrustPage } from '@/ui/access/trust-page';

export const metadata: Metadata = { title: 'HTTPS' };

/** How to open this console by https though nobody vouches for its certificate. */
export default async function HowToTrustPage() {
  await connection();
  const head = await headers();
  const host = head.get('host') ?? 'localhost';
  return (
    <TrustPage
      httpsAddress={`https://${host}`}
      secured={head.get('x-forwarded-proto') === 'https'}
      fingerprint={theConsole().certificateFingerprint}
    />
  );
}
