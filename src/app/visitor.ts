import { cookies, headers } from 'next/headers';
import { DEVICE_COOKIE, HERE_COOKIE, reachableOrigin, theConsole, type SignInPlace, type Visitor } from '@/services';

/** Who asks, as far as the request tells. The front door fills in the address; it lets nobody else do so. */
export async function visitorWith(code: string | null): Promise<Visitor> {
  const [jar, head] = await Promise.all([cookies(), headers()]);
  return {
    code,
    cookie: jar.get(DEVICE_COOKIE)?.value ?? null,
    here: jar.get(HERE_COOKIE)?.value ?? null,
    address: head.get('x-forwarded-for')?.split(',')[0]?.trim() ?? null,
  };
}

/** Where somebody signs in: his address, and what his browser says it is. */
export async function signInPlace(): Promise<SignInPlace> {
  const { address } = await visitorWith(null);
  return { address, browser: (await headers()).get('user-agent') };
}

const isOwnMachine = (hostname: string) => hostname === 'localhost' || /^127\.|^\[::1\]$/.test(hostname);

/** An origin to be handed to others: the one that this visitor uses, but never "localhost", which is another machine for them. */
export async function handedOrigin(): Promise<string> {
  const visited = await visitedOrigin();
  return isOwnMachine(new URL(visited).hostname) ? reachableOrigin(theConsole().port) : visited;
}

/**
 * The same page by https, where whoever listens on the way could read this one; null where it came by https, or does not
 * leave the machine.
 */
export async function saferAddress(): Promise<string | null> {
  const url = new URL(await visitedOrigin());
  return url.protocol === 'https:' || isOwnMachine(url.hostname) ? null : `https://${url.host}`;
}

/** The address by which the visitor opened the console. */
export async function visitedOrigin(): Promise<string> {
  const head = await headers();
  return `${head.get('x-forwarded-proto') ?? 'http'}://${head.get('host') ?? 'localhost'}`;
}
