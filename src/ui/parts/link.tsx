import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/**
 * A link to another page, which is fetched when it is followed: fetched beforehand, the row of places alone would ask the
 * console twenty times with each page.
 */
export function Link(props: Omit<ComponentProps<typeof NextLink>, 'prefetch'>) {
  return <NextLink {...props} prefetch={false} />;
}
