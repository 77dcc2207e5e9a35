import type { Formatter } from '@/formats/formatter';

/** A length as it is told: its code and its name; the name alone where it has no code of its own. */
export const lengthWords = (
  { code, name }: { readonly code: string; readonly name: string },
  format: Formatter,
  between = ' ',
): string => (code === name ? format.name(name) : [code, format.name(name)].filter(Boolean).join(between));
