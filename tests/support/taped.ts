import type { Reading } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { demoRows } from './demo-rows';

const kvist = demoRows('kvist');
const template = kvist.readings.find(({ quantity }) => quantity === 'distance')!;
const codes = ['FL', 'FR', 'RL', 'RR', 'SL'] as const;
type Code = (typeof codes)[number];

/** The one round of a taped job, at the chart's temperature. */
export const TAPED_ROUND = { ...kvist.rounds.find(({ shell }) => shell === '')!, temperature: null };

export const tapedId = (code: string) => `00000000-0000-4000-8000-00000000000${codes.indexOf(code as Code)}`;

/** A length, or a height, and its value, mm. */
type Taped = readonly [from: Code, to: Code, mm: number] | readonly [code: Code, height: number];

/** A job of five points, of which SL has no partner, without a chart, with these readings and nothing else. */
export function taped(...read: readonly Taped[]): Job {
  const points = codes.map((code) => ({
    ...kvist.points[0]!,
    ...{ id: tapedId(code), code, name: '', substituteForId: null, mirrored: true },
    side: code.endsWith('L') ? ('left' as const) : ('right' as const),
  }));
  const readings = read.map((each, i): Reading => ({
    ...template,
    ...{ id: `00000000-0000-4000-8000-0000000001${String(i).padStart(2, '0')}`, roundId: TAPED_ROUND.id, sequence: i },
    ...{ pointId: tapedId(each[0]), pointerFrom: null, pointerTo: null, pullId: null },
    ...(each.length === 3
      ? { quantity: 'distance', toPointId: tapedId(each[1]), measure: 'tip', value: each[2] }
      : { quantity: 'height', toPointId: null, measure: null, value: each[1] }),
  }));
  const rows: JobRows = {
    ...kvist,
    ...{ points, readings, readingStrikes: [], readingKeeps: [], rounds: [TAPED_ROUND] },
    ...{ references: [], referencePoints: [], referenceDimensions: [], dimensions: [], pointConditions: [] },
  };
  return Job.of(rows);
}
