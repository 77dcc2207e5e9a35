import '@fontsource/ibm-plex-mono/400.css';
import '@fontsource/ibm-plex-mono/600.css';
import '@fontsource/ibm-plex-sans/400.css';
import '@fontsource/ibm-plex-sans/500.css';
import '@fontsource/ibm-plex-sans/600.css';
import '@fontsource/ibm-plex-sans-condensed/500.css';
import '@fontsource/ibm-plex-sans-condensed/600.css';
import './globals.css';
import type { Metadata, Viewport } from 'next';
import type { ReactNode } from 'react';
import { preferencesCookie } from '@/server/preferences';
import { readPreferences } from '@/formats/preferences';
import { machineZone } from '@/formats/shop-time';
import { rebuildData } from '@/server/actions/kept';
import { damage } from '@/server/kept';
import { whoIsHere } from '@/server/people/actor';
import { people } from '@/server/views';
import { DamagedData } from '@/ui/kept/damaged-data';
import { AskPersonProvider } from '@/ui/shell/ask-person';
import { Offline } from '@/ui/shell/offline';
import { PreferencesProvider } from '@/ui/shell/preferences-context';

export const metadata: Metadata = {
  title: 'Vinkel',
  description: 'Measure, judge and record a car body',
  icons: { apple: '/apple-icon.png' },
  appleWebApp: { capable: true, title: 'Vinkel', statusBarStyle: 'black' },
};
export const viewport: Viewport = { themeColor: '#1b2530' };
export const dynamic = 'force-dynamic';

export default async function RootLayout({ children }: { children: ReactNode }) {
  const preferences = readPreferences(await preferencesCookie());
  const damaged = await damage();
  const who = damaged ? undefined : await whoIsHere();
  return (
    <html lang={preferences.words === 'us' ? 'en-US' : 'en-GB'} data-sheet={preferences.sheet}>
      <body>
        <PreferencesProvider initial={preferences} zone={machineZone()} proved={who?.name}>
          {damaged ? (
            <DamagedData damage={damaged} rebuild={rebuildData} />
          ) : (
            <AskPersonProvider people={await people()} who={who}>
              {children} <Offline />
            </AskPersonProvider>
          )}
        </PreferencesProvider>
      </body>
    </html>
  );
}
