import { describe, expect, it } from 'vitest';
import { shopClock } from '@/formats/shop-time';
import { calendarPage } from '@/core/report/pages/calendar';
import { schedule } from '@/core/days/calendar/schedule';
import { Job } from '@/core/shell/job/job';
import { demoRows } from '../../../tests/support/demo-rows';
import { axisOf } from './axis';
import { lanesOf } from './lanes';

const clock = shopClock('Europe/Stockholm');
const at = (day: string, hour: number) => clock.at(day, 60 * hour);
const NOW = at('2026-11-27', 9);

describe('the axis of the calendar', () => {
  const axis = axisOf(clock, at('2026-10-23', 9), at('2026-10-27', 9), 100);

  it('has every day as wide as another, also that on which clocks go back, and no width for nights', () => {
    expect(axis.days).toEqual(['2026-10-23', '2026-10-24', '2026-10-25', '2026-10-26', '2026-10-27']);
    expect(axis.x(at('2026-10-24', 6))).toBe(100);
    expect(axis.x(at('2026-10-24', 19))).toBe(200);
    expect(axis.x(at('2026-10-24', 23))).toBe(200);
    expect(axis.x(at('2026-10-25', 2))).toBe(200);
    expect(axis.x(at('2026-10-26', 6))).toBe(300);
  });

  it('says for a place the instant that is drawn there, to a quarter of an hour', () => {
    for (const [day, hour] of [
      ['2026-10-24', 8],
      ['2026-10-25', 16.5],
      ['2026-10-26', 12.25],
    ] as const)
      expect(axis.at(axis.x(at(day, hour)))).toBe(at(day, hour));
    expect(axis.at(-50)).toBe(at('2026-10-23', 6));
  });
});

describe('the lanes of the calendar', () => {
  const page = calendarPage(Job.of(demoRows('solbris')), NOW);
  const planned = schedule({ ...page.rows, clock });
  if (!Array.isArray(planned)) throw new Error(JSON.stringify(planned));

  it('draw a step with everybody who does it, and nothing over another', () => {
    const lanes = lanesOf('people', page, planned);
    expect(lanes.map(({ name }) => name)).toEqual(expect.arrayContaining(['Alva', 'Nils', 'Ronja', 'The welder']));
    const holding = page.steps.find(({ step }) => step.title.startsWith('Pull back'))!.step.id;
    const with_ = lanes.filter(({ lines }) => lines.flat().some(({ id }) => id === holding));
    expect(with_.map(({ name }) => name).sort()).toEqual(['Nils', 'Ronja']);
    for (const { lines } of lanes)
      for (const line of lines)
        line.slice(1).forEach(({ starts }, i) => expect(starts).toBeGreaterThanOrEqual(line[i]!.ready));
  });

  it('draw by panel what is about one, and the rest by its rung', () => {
    const names = lanesOf('panels', page, planned).map(({ name }) => name);
    expect(names).toEqual(expect.arrayContaining(['Left outer sill', 'Cut', 'Verify']));
  });
});
