import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import { Job } from '../shell/job/job';
import type { JobRows } from '../shell/job/job-rows';
import type { Reading } from '../shell/job/entities';
import { firstFigures } from './first-figures';

const kvist = demoRows('kvist');
const round = kvist.rounds.find(({ shell }) => shell === '')!;
const measuring = { ...round, temperature: null };
const template = kvist.readings.find(({ quantity }) => quantity === 'distance')!;
const codes = ['FL', 'FR', 'RL', 'RR', 'SL'] as const;
const idOf = (code: string) => `00000000-0000-4000-8000-00000000000${codes.indexOf(code as 'FL')}`;

/** A job of five points with these lengths and nothing else. */
function taped(...lengths: readonly (readonly [string, string, number])[]): Job {
  const points = codes.map((code) => ({
    ...kvist.points[0]!,
    ...{ id: idOf(code), code, name: '', substituteForId: null, mirrored: true },
    side: code.endsWith('L') ? ('left' as const) : ('right' as const),
  }));
  const readings = lengths.map(([from, to, value], i): Reading => ({
    ...template,
    ...{ id: `00000000-0000-4000-8000-0000000001${String(i).padStart(2, '0')}`, roundId: round.id, sequence: i, value },
    ...{ pointId: idOf(from), toPointId: idOf(to), pointerFrom: null, pointerTo: null, pullId: null, measure: 'tip' },
  }));
  const rows: JobRows = {
    ...kvist,
    points,
    readings,
    readingStrikes: [],
    readingKeeps: [],
    references: [],
    rounds: [{ ...round, temperature: null }],
  };
  return Job.of(rows);
}

describe('the first readings of a shell', () => {
  it('say from the first pair of diagonals on which is longer, and whether that is more than chance', () => {
    const [figure] = firstFigures(taped(['FL', 'RR', 2500], ['FR', 'RL', 2511]), measuring);
    expect(figure).toMatchObject({ kind: 'diagonals', lengths: [2500, 2511], difference: 11, real: true });
    const [close] = firstFigures(taped(['FL', 'RR', 2500], ['FR', 'RL', 2500.5]), measuring);
    expect(close).toMatchObject({ kind: 'diagonals', real: false });
  });

  it('lay the left length beside the right one, from whichever end each was read', () => {
    const [figure, ...more] = firstFigures(taped(['FL', 'RL', 2400], ['RR', 'FR', 2392]), measuring);
    expect(figure).toMatchObject({ kind: 'sides', difference: -8, real: true });
    expect(figure).toMatchObject({
      ends: [
        [idOf('FL'), idOf('RL')],
        [idOf('FR'), idOf('RR')],
      ],
    });
    expect(more).toEqual([]);
  });

  it('compare repeats by what parts them, not by the bias they share', () => {
    const [figure] = firstFigures(taped(['FL', 'FR', 820], ['FR', 'FL', 826]), measuring);
    expect(figure).toMatchObject({ kind: 'repeat', difference: 6, real: true });
  });

  it('name three lengths that cannot belong to one triangle', () => {
    const figures = firstFigures(taped(['FL', 'RL', 2400], ['FL', 'SL', 1100], ['SL', 'RL', 1200]), measuring);
    expect(figures).toMatchObject([
      { kind: 'triangle', pointIds: [idOf('FL'), idOf('SL'), idOf('RL')], difference: 100 },
    ]);
    expect(firstFigures(taped(['FL', 'RL', 2400], ['FL', 'SL', 1250], ['SL', 'RL', 1200]), measuring)).toEqual([]);
  });

  it('say nothing of a width across, which is its own mirror image, nor of points not meant to match', () => {
    expect(firstFigures(taped(['FL', 'FR', 820]), measuring)).toEqual([]);
    const job = taped(['FL', 'RR', 2500], ['FR', 'RL', 2511]);
    const apart = job.rows.points.map((point) => ({ ...point, mirrored: point.code !== 'RR' }));
    expect(firstFigures(Job.of({ ...job.rows, points: apart }), measuring)).toEqual([]);
  });
});
