/** One thing that is timed. */
export interface Case {
  readonly of: string;
  readonly what: string;
  readonly run: () => unknown;
}
