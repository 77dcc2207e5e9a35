import { describe, expect, it } from 'vitest';
import { buildRecord } from '@/core/report/record/record';
import { Job } from '@/core/shell/job/job';
import { demoRows } from '../../tests/support/demo-rows';
import { formatterFor } from './formatter';
import { readPreferences } from './preferences';
import { DIMENSION_COLUMNS, recordFacts, titleOf, workLines } from './record-tables';

const record = buildRecord(Job.of(demoRows('solbris')), '2026-11-20T12:00:00.000Z');
const format = formatterFor(readPreferences(undefined), 'UTC');
const inches = formatterFor({ ...readPreferences(undefined), units: 'in16' }, 'UTC');

describe('the lines of a record', () => {
  it('say of a planned brace that it is to hold, of a fitted one that it holds, of a removed one that it held', () => {
    const [brace] = record.braces;
    const said = (['planned', 'fitted', 'removed'] as const).map(
      (state) => workLines({ ...record, pulls: [], braces: [{ ...brace!, state, holds: ['DL1'] }] }, format)[0]!.text,
    );
    expect(said[0]).toMatch(/is to hold DL1; planned$/);
    expect(said[1]).toMatch(/holds DL1; fitted$/);
    expect(said[2]).toMatch(/held DL1; removed$/);
  });

  it('fill a page from edge to edge, with the unit of whoever reads it', () => {
    expect(DIMENSION_COLUMNS.reduce((sum, { width }) => sum + width, 0)).toBe(100);
    const titles = (by: typeof format) => DIMENSION_COLUMNS.map((column) => titleOf(column, by));
    expect(titles(format)).toContain('Limit mm');
    expect(titles(inches)).toContain('Limit in');
  });

  it('leave no fact of the job empty', () => {
    const facts = recordFacts({ ...record, job: { ...record.job, owner: '' } }, undefined, format);
    expect(Object.fromEntries(facts)).toMatchObject({ Owner: '–', 'Driver sits on the': expect.any(String) });
  });
});
