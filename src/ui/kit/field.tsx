'use client';

import { useId, type ComponentProps, type ReactNode } from 'react';
import { Options, type Option } from './select';

export const inputClass =
  'min-h-11 w-full border border-rule bg-sheet px-2.5 py-1.5 aria-invalid:border-2 aria-invalid:border-minus';

interface Labelled {
  readonly label: string;
  readonly error?: string;
  readonly hint?: string;
}

function Around({ id, label, error, hint, children }: Labelled & { id: string; children: ReactNode }) {
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="caps">
        {label}
      </label>
      {children}
      {hint && !error ? <p className="text-sm text-soft">{hint}</p> : null}
      <FieldError error={error} />
    </div>
  );
}

/** What is wrong with a field, beside it. */
export const FieldError = ({ error }: { error: string | undefined }) =>
  error ? (
    <p role="alert" className="text-sm font-medium text-minus">
      {error}
    </p>
  ) : null;

/** One labelled line of text. */
export function TextField({ label, error, hint, ...rest }: Labelled & ComponentProps<'input'>) {
  const id = useId();
  return (
    <Around id={id} label={label} error={error} hint={hint}>
      <input id={id} className={inputClass} aria-invalid={error ? true : undefined} autoComplete="off" {...rest} />
    </Around>
  );
}

export function TextArea({ label, error, hint, ...rest }: Labelled & ComponentProps<'textarea'>) {
  const id = useId();
  return (
    <Around id={id} label={label} error={error} hint={hint}>
      <textarea id={id} rows={3} className={inputClass} aria-invalid={error ? true : undefined} {...rest} />
    </Around>
  );
}

/** One choice out of a short list. */
export function SelectField({
  label,
  error,
  hint,
  options,
  ...rest
}: Labelled & ComponentProps<'select'> & { options: readonly Option[] }) {
  const id = useId();
  return (
    <Around id={id} label={label} error={error} hint={hint}>
      <select id={id} className={inputClass} {...rest}>
        <Options options={options} />
      </select>
    </Around>
  );
}
