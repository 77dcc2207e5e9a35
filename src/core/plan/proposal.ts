/**
 * Something the program proposes to be done. The person decides; the words come from the report storey, so that a
 * reason is a kind and its figures, never a sentence.
 *
 * @typeParam What what is to be done
 * @typeParam Why  reasons, each with a `kind` and the figures it rests on
 */
export interface Proposal<What, Why extends { readonly kind: string }> {
  readonly what: What;
  /** How long it takes, about. */
  readonly cost: { readonly minutes: number };
  /** The worst ± wanted, before and after, mm. */
  readonly gain: { readonly before: number; readonly after: number };
  readonly why: readonly Why[];
}

/** About how long one reading takes, called out and typed, minutes. */
export const MINUTES_A_READING = 1;
