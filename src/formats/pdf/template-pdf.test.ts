import { describe, expect, it } from 'vitest';
import { cuttingPage } from '@/core/report/pages/cutting';
import { Job } from '@/core/shell/job/job';
import { demoRows } from '../../../tests/support/demo-rows';
import { textOfPdf } from '../../../tests/support/pdf';
import { formatterFor } from '../formatter';
import { readPreferences } from '../preferences';
import { renderTemplatePdf, sheetsOver } from './template-pdf';

describe('a template on paper', () => {
  it('takes one sheet where it fits, and laps them where it does not', () => {
    expect(sheetsOver(190, 250)).toEqual([{ x: 0, y: 0 }]);
    expect(sheetsOver(400, 100)).toEqual([
      { x: 0, y: 0 },
      { x: 180, y: 0 },
      { x: 360, y: 0 },
    ]);
    // Sheets of 190 by 250 that lap by 10 cover all of it.
    for (const [width, height] of [
      [371, 489],
      [1000, 600],
    ] as const) {
      const sheets = sheetsOver(width, height);
      expect(Math.max(...sheets.map(({ x }) => x)) + 190).toBeGreaterThanOrEqual(width);
      expect(Math.max(...sheets.map(({ y }) => y)) + 250).toBeGreaterThanOrEqual(height);
    }
  });

  it('says what it is of, on which face it lies, and what to measure the print by', async () => {
    const [view] = cuttingPage(Job.of(demoRows('solbris'))).templates;
    const format = formatterFor(readPreferences(undefined), 'UTC');
    const text = textOfPdf(await renderTemplatePdf({ view: view!, format }));
    expect(text).toMatch(/Sill end at the A post/);
    expect(text).toMatch(/card, from the right side, this face out: outside, turned over for the other side/);
    expect(text).toMatch(/Print at 100 %: the bar is 100\.0 mm long/);
  });
});
