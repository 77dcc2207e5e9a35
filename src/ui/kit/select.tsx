import type { ComponentProps } from 'react';

/** A value that can be chosen, and what it reads. */
export type Option = readonly [value: string | number, text: string];

/** The lines of a list to choose from. */
export const Options = ({ options }: { options: readonly Option[] }) =>
  options.map(([value, text]) => (
    <option key={value} value={value}>
      {text}
    </option>
  ));

/** One choice among controls, with no label above it; `aria-label` says what it is for. */
export function Select({ options, ...rest }: ComponentProps<'select'> & { options: readonly Option[] }) {
  return (
    <select className="min-h-11 border border-rule bg-sheet px-2" {...rest}>
      <Options options={options} />
    </select>
  );
}
