import { z } from 'zod';

/** A record brought back: its file, or the digits printed under it. */
export const broughtRecord = z.union([
  z.strictObject({ file: z.string().max(40_000_000, 'a signed record is smaller than this') }),
  z.strictObject({ digits: z.string().max(200) }),
]);
export type BroughtInput = z.input<typeof broughtRecord>;

/** The record of this shop that was found. */
export interface KnownRecord {
  readonly jobId: string;
  readonly jobName: string;
  readonly number: number;
  readonly signedBy: string;
  readonly signedAt: string;
}

/**
 * What was found of it: signed here just so; altered since; whole in itself but not signed here; or digits that a record of
 * this shop bears.
 */
export type Checked =
  | { readonly kind: 'same'; readonly record: KnownRecord }
  | { readonly kind: 'altered'; readonly record: KnownRecord | undefined }
  | { readonly kind: 'elsewhere' }
  | { readonly kind: 'digits'; readonly record: KnownRecord };
