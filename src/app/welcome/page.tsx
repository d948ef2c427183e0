import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { hasTechnicians, theConsole } from '@/services';
import { DoorPage } from '@/ui/access/door-page';

export const metadata: Metadata = { title: 'First start' };

/** Seen by whoever comes before the passphrase is set without holding the link. */
export default async function FirstStartPage() {
  if (await hasTechnicians(theConsole())) redirect('/sign-in');
  return (
    <DoorPage
      title="No passphrase yet"
      text="Open the one-time link that the program printed in its terminal when it started, and set the technician’s passphrase there."
    />
  );
}
