import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { JOB_TABLES } from '@/core/shell/job/job-rows';
import { parseShape } from './faults';
import * as chart from './inputs/chart';
import * as jobs from './inputs/jobs';
import * as log from './inputs/log';
import * as references from './inputs/references';
import * as rounds from './inputs/rounds';
import * as work from './inputs/work';

/** Every schema a user's input is held against. */
const SCHEMAS = (
  Object.entries({ ...JOB_TABLES, ...chart, ...jobs, ...log, ...references, ...rounds, ...work }) as [string, unknown][]
).flatMap(([name, schema]) => (schema instanceof z.ZodType ? [[name, schema] as const] : []));
const WRONG = [undefined, null, '', 'x', 'x'.repeat(30_000), 1e12, -1e12, 0.5, NaN, {}, [], [null], true];
/** Words of a machine, not of a shop. */
const MACHINE =
  /invalid|too (big|small)|<=|>=|expected (string|number|array|record)|characters|regex|uuid|nonoptional|unrecognized|NaN|undefined/i;

describe('the words of a refusal', () => {
  it.each(SCHEMAS)('of %s are no machine’s, whatever was typed', (_, schema) => {
    const inner = schema instanceof z.ZodObject ? Object.keys(schema.shape) : [];
    const inputs = [...WRONG, ...inner.flatMap((key) => WRONG.map((value) => ({ [key]: value })))];
    for (const input of inputs) {
      const parsed = parseShape(schema as z.ZodType<unknown>, input);
      for (const { message } of parsed.ok ? [] : parsed.faults) expect(message).not.toMatch(MACHINE);
    }
  });
});
