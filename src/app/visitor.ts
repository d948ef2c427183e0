import { cookies, headers } from 'next/headers';
import { DEVICE_COOKIE, HERE_COOKIE, type Visitor } from '@/services';

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

/** The address by which the visitor opened the console. */
export async function visitedOrigin(): Promise<string> {
  const head = await headers();
  return `${head.get('x-forwarded-proto') ?? 'http'}://${head.get('host') ?? 'localhost'}`;
}
