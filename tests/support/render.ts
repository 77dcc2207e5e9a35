import { createElement, type ReactElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { PreferencesProvider } from '@/ui/shell/preferences-context';
import { readPreferences, type Preferences } from '@/formats/preferences';

/** A part of the screen as its first HTML, with a user's choices made. */
export function rendered(part: ReactElement, choices: Partial<Preferences> = {}): string {
  const initial = { ...readPreferences(undefined), ...choices };
  return renderToStaticMarkup(
    createElement(PreferencesProvider, { initial, zone: 'UTC', proved: undefined, children: part }),
  );
}

/** Its text alone, blanks run together. */
export const textOf = (html: string): string =>
  html
    .replace(/<[^>]*>/g, ' ')
    .replace(/&#x27;/g, "'")
    .replace(/&amp;/g, '&')
    .replace(/\s+/g, ' ');
