'use client';

import { useEffect, useRef, useState, type BaseSyntheticEvent } from 'react';
import { useForm, type DefaultValues, type FieldErrors, type FieldValues, type Path } from 'react-hook-form';
import type { z } from 'zod';
import { parseLength, type LengthUnit } from '@/core/maths/units/length';
import { parseShape, type Fault } from '@/formats/faults';
import { versionsIn, withVersions } from './as-opened';
import { useAction, type Action } from './use-action';

/** Where a fault goes that belongs to no field of the form. */
const ELSEWHERE = 'elsewhere';

export interface EntryForm<Values extends FieldValues, Schema extends z.ZodType, T> {
  /** The schema the action parses its input by: the form is held against it before anything is sent. */
  readonly schema: Schema;
  readonly action: Action<z.input<Schema>, T>;
  /** What each field shows at first, by its name; an empty one is left to what stands in the page already. */
  readonly defaults: Values;
  /**
   * What the fields say, with a fault, by its field, for each that makes no sense.
   *
   * @param identity this form's own, for the row it makes
   */
  readonly read: (values: Values, faults: Fault[], identity: string) => z.input<Schema>;
  readonly done?: (value: T) => void;
}

/**
 * A form of texts and choices whose entries become the input of one action. Each fault, of the form, of the schema or of
 * the server, stands at the field its path ends in, else among `faults`; nothing typed is lost by it.
 */
export function useEntryForm<Values extends FieldValues, Schema extends z.ZodType, T>({
  schema,
  action,
  defaults,
  read,
  done,
}: EntryForm<Values, Schema, T>) {
  const { run, faults: refused, pending } = useAction(action);
  // One identity for what this form asks, however often it is sent.
  const [identity] = useState(() => crypto.randomUUID());
  const [current, setCurrent] = useState<unknown>();
  // The rows as they were when the form was opened, and again as they are once it was kept.
  const opened = useRef<ReadonlyMap<string, number>>(undefined);
  useEffect(() => {
    if (!pending) opened.current ??= versionsIn(read(defaults, [], identity));
  });
  const place = (path: string) => {
    const last = path.split('.').at(-1)!;
    return last in defaults ? last : ELSEWHERE;
  };
  const form = useForm<Values, unknown, z.input<Schema> & FieldValues>({
    defaultValues: Object.fromEntries(
      Object.entries(defaults).filter(([, value]) => value !== ''),
    ) as DefaultValues<Values>,
    resolver: (values) => {
      const faults: Fault[] = [];
      const input = read(values, faults, identity);
      if (faults.length === 0) {
        const parsed = parseShape(schema as z.ZodType<unknown>, input);
        if (!parsed.ok) faults.push(...parsed.faults);
      }
      if (faults.length === 0) return { values: input as z.input<Schema> & FieldValues, errors: {} };
      const errors = Object.fromEntries(
        faults.map(({ path, message }) => [place(path), { type: path, message }]),
      ) as FieldErrors<Values>;
      return { values: {}, errors };
    },
  });
  const errors = form.formState.errors as Readonly<
    Record<string, { readonly type?: unknown; readonly message?: unknown } | undefined>
  >;
  const errorAt = (name: string) =>
    (errors[name]?.message as string | undefined) ?? refused.find(({ path }) => place(path) === name)?.message;
  const own = errors[ELSEWHERE];
  return {
    /** What a labelled field of this name is given. */
    field: (name: Path<Values>) => ({
      ...form.register(name),
      // The page as the server sends it shows it too.
      ...(defaults[name] === '' ? {} : { defaultValue: defaults[name] as string }),
      error: errorAt(name),
    }),
    register: form.register,
    watch: form.watch,
    submit: (event?: BaseSyntheticEvent) =>
      form.handleSubmit(async (input) => {
        const outcome = await run(withVersions(input, opened.current ?? new Map<string, number>()), identity);
        setCurrent(outcome.ok ? undefined : outcome.current);
        if (outcome.ok) opened.current = undefined;
        // Whoever was told that somebody came first and sends it again means it.
        else if (outcome.current !== undefined) opened.current = versionsIn(outcome.current, new Map(opened.current));
        if (outcome.ok) done?.(outcome.value);
      })(event),
    faults: [
      ...(own ? [{ path: String(own.type), message: String(own.message) }] : []),
      ...refused.filter(({ path }) => place(path) === ELSEWHERE),
    ] satisfies Fault[],
    pending,
    /** The row as somebody else left it who came first, where that is why it was refused. */
    current,
  };
}

/** Reads the lengths of a form, mm; one that is none becomes a fault at its field and counts as nought. */
export const lengthsOf =
  (values: Readonly<Record<string, unknown>>, unit: LengthUnit, faults: Fault[]) =>
  (field: string): number => {
    const parsed = parseLength(String(values[field] ?? ''), unit);
    if (!parsed.ok) faults.push({ path: field, message: parsed.reason });
    return parsed.ok ? parsed.mm : 0;
  };

/** The words of a list typed with blanks, commas or semicolons between. */
export const wordsOf = (text: string): string[] => text.split(/[\s,;]+/).filter(Boolean);
