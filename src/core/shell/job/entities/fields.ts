import { z } from 'zod';

/** Kinds of fields the rows of a job are made of. */
export const id = z.uuid();
/** A moment of the program's time; what lies far off was typed or torn. */
export const at = z.iso
  .datetime()
  .refine((iso) => iso >= '1900' && iso < '2200', { message: 'a date between 1900 and 2200' });
/** The zero sign and half a pair of surrogates (an emoji cut in two), which neither the database nor a file keeps. */
const UNKEPT = /[\0\p{Cs}]/u;
/** Text that can be kept as it is. */
export const words = z.string().refine((text) => !UNKEPT.test(text), { message: 'holds a sign that cannot be kept' });
export const code = words.trim().min(1).max(40);
export const line = words.trim().max(200);
export const name = line.min(1);
export const text = words.max(20_000);
export const author = words.trim().min(1).max(80);
/** Whom of the shop's people the author is; empty where nobody was known by that name, or it was written elsewhere. */
export const personId = id.nullable().default(null);
export const count = z.int().min(0);
export const version = z.int().min(1);
export const length = z.number().min(-100_000).max(100_000);
export const limit = z.number().positive().max(1000);

export const SIDES = ['left', 'right', 'centre'] as const;
export const side = z.enum(SIDES);
export const measure = z.enum(['tip', 'level']);
