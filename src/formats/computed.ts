/** The answer of a command, or one line saying what is missing and what to add. */
export type Computed<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly reason: string };
