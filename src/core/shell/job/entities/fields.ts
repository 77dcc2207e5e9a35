import { z } from 'zod';

/** Kinds of fields the rows of a job are made of. */
export const id = z.uuid();
export const at = z.iso.datetime();
export const code = z.string().trim().min(1).max(40);
export const line = z.string().trim().max(200);
export const name = line.min(1);
export const text = z.string().max(20_000);
export const author = z.string().trim().min(1).max(80);
export const count = z.int().min(0);
export const version = z.int().min(1);
export const length = z.number().min(-100_000).max(100_000);
export const limit = z.number().positive().max(1000);

export const SIDES = ['left', 'right', 'centre'] as const;
export const side = z.enum(SIDES);
export const measure = z.enum(['tip', 'level']);
