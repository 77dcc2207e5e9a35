'use client';

import { useSyncExternalStore, type ReactNode } from 'react';

const never = () => () => undefined;

/** Renders its children in the browser only: for parts that start from what the browser has kept. */
export function ClientOnly({ children, waiting = null }: { children: ReactNode; waiting?: ReactNode }) {
  const inBrowser = useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
  return inBrowser ? children : waiting;
}
