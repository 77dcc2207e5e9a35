import { z } from 'zod';

/** What is read across the shop. */
const boardState = z.strictObject({
  next: z.array(z.string().max(400)).max(4),
  last: z.string().max(2000),
  unit: z.string().max(10),
  doubts: z.int().min(0),
});
export type BoardState = z.infer<typeof boardState>;

/** Where the next readings of a round come from, and in what order: the same in every window it is open in. */
const walkState = z.strictObject({
  source: z.enum(['walk', 'charted', 'helpful']),
  skipped: z.array(z.string().max(200)).max(2000),
  /** What is asked for first, whatever the list says. */
  pressing: z.array(z.looseObject({ key: z.string().max(200), codes: z.array(z.string().max(40)).max(2) })).max(50),
});

/** What a window of a round tells the others, on whatever device they are; kept nowhere. */
export const relayed = z.discriminatedUnion('kind', [
  /** It has just opened, and asks what there is. */
  z.strictObject({ kind: z.literal('hello'), roundId: z.uuid() }),
  z.strictObject({ kind: z.literal('board'), roundId: z.uuid(), state: boardState }),
  z.strictObject({ kind: z.literal('walk'), roundId: z.uuid(), state: walkState }),
]);
export type Relayed = z.infer<typeof relayed>;

/** Somebody who has the job open, and in how many windows. */
export interface HereNow {
  readonly name: string;
  readonly windows: number;
}

/** What an open window of a job hears of it. */
export type LiveEvent =
  /** Its rows are others than before; `tape` where only a line of a tape was taken, which is told by itself. */
  | { readonly kind: 'rows'; readonly revision: number; readonly tape: boolean }
  /** A line was taken: the entry as it was sent. */
  | { readonly kind: 'line'; readonly entry: unknown }
  /** Who else has it open. */
  | { readonly kind: 'here'; readonly others: readonly HereNow[] }
  | Relayed;

/** An open window of a job, and who looks at it. */
export interface WindowHere {
  /** Its own mark: it hears nothing it said itself. */
  readonly window: string;
  readonly name: string;
}

/** Where what is being written comes from: a window, and whether it is a line of a tape. */
const source = z.object({ window: z.string(), tape: z.boolean() });
export type Source = Readonly<z.infer<typeof source>>;

/** What processes on one database tell each other of their windows. */
export const passed = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('changed'),
    jobs: z.union([z.array(z.string()), z.literal('all')]),
    revision: z.int(),
    source: source.optional(),
  }),
  z.object({
    kind: z.literal('relayed'),
    jobId: z.string(),
    window: z.string(),
    event: z.looseObject({ kind: z.string() }),
  }),
  /** Which windows of a job are open in the process that says it. */
  z.object({
    kind: z.literal('here'),
    jobId: z.string(),
    windows: z.array(z.object({ window: z.string(), name: z.string() })),
  }),
  /** A process that has just come asks the others which they have. */
  z.object({ kind: z.literal('who') }),
]);
export type Passed = z.input<typeof passed>;

/** The header by which a window is known, so that it does not hear itself. */
export const WINDOW_HEADER = 'x-vinkel-window';
