import { cookies } from 'next/headers';

export const SITE_COOKIE = 'bent-straw-site';

/** The office that the technician looks at; absent before one was chosen. A service takes the first then. */
export async function chosenSiteId(): Promise<string | undefined> {
  return (await cookies()).get(SITE_COOKIE)?.value;
}
