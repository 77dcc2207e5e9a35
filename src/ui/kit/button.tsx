import type { ButtonHTMLAttributes } from 'react';

const LOOK = {
  plain:
    'border border-rule bg-sheet hover:bg-faint aria-pressed:border-ink aria-pressed:shadow-[inset_0_-3px_0_var(--ink)]',
  main: 'border border-ink bg-ink text-paper hover:opacity-90',
  quiet: 'border border-transparent hover:bg-faint',
} as const;

export type ButtonLook = keyof typeof LOOK;

export const buttonClass = (look: ButtonLook = 'plain'): string =>
  `inline-flex min-h-11 items-center justify-center gap-2 px-3 py-1.5 text-left no-underline disabled:opacity-50 disabled:cursor-not-allowed ${LOOK[look]}`;

/** A button a glove can hit. */
export function Button({
  look = 'plain',
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: ButtonLook }) {
  return <button type="button" className={`${buttonClass(look)} ${className}`} {...rest} />;
}
