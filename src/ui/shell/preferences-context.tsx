'use client';

import { useRouter } from 'next/navigation';
import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import { formatterFor, type Formatter } from '@/formats/formatter';
import { PREFERENCES_COOKIE, type Preferences } from '@/formats/preferences';

interface PreferencesValue {
  readonly preferences: Preferences;
  readonly format: Formatter;
  readonly change: (some: Partial<Preferences>) => void;
}

const Context = createContext<PreferencesValue | undefined>(undefined);

const YEAR = 365 * 24 * 3600;

/** Makes the user's units, words, sheet and name known to every part of the page. */
export function PreferencesProvider({
  initial,
  zone,
  proved,
  children,
}: {
  initial: Preferences;
  /** The name of whoever works here, where people prove who they are. */
  proved: string | undefined;
  /** The shop's time zone. */
  zone: string;
  children: ReactNode;
}) {
  const [chosen, setPreferences] = useState(initial);
  const preferences = useMemo(() => (proved === undefined ? chosen : { ...chosen, person: proved }), [chosen, proved]);
  const router = useRouter();
  const value = useMemo(
    (): PreferencesValue => ({
      preferences,
      format: formatterFor(preferences, zone),
      change: (some) => {
        const next = { ...preferences, ...some };
        setPreferences(next);
        document.cookie = `${PREFERENCES_COOKIE}=${encodeURIComponent(JSON.stringify(next))}; path=/; max-age=${YEAR}; samesite=lax`;
        document.documentElement.dataset.sheet = next.sheet;
        router.refresh();
      },
    }),
    [preferences, zone, router],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function usePreferences(): PreferencesValue {
  const value = useContext(Context);
  if (!value) throw new Error('usePreferences outside PreferencesProvider');
  return value;
}

export const useFormat = (): Formatter => usePreferences().format;
