import { redirect } from 'next/navigation';
import { cookies, headers } from 'next/headers';
import { HERE_COOKIE, HERE_COOKIE_SECONDS, openHere, theConsole } from '@/services';

/** The link that the terminal of this machine shows: opens the device page without a code, once. */
export async function GET(_: Request, { params }: { params: Promise<{ token: string }> }): Promise<never> {
  const opened = openHere(theConsole(), (await params).token);
  if (opened !== null)
    (await cookies()).set(HERE_COOKIE, opened, {
      httpOnly: true,
      sameSite: 'lax',
      secure: (await headers()).get('x-forwarded-proto') === 'https',
      path: '/',
      maxAge: HERE_COOKIE_SECONDS,
    });
  redirect('/j');
}
