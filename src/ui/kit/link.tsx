import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/**
 * A link of the program. Nothing is fetched before it is pressed: an open page is fetched anew at every change, and would have all
 * pages it points to made anew with it.
 */
export function Link(props: Omit<ComponentProps<typeof NextLink>, 'prefetch'>) {
  return <NextLink {...props} prefetch={false} />;
}
