import { describe, expect, it } from 'vitest';
import { taped, TAPED_ROUND as measuring, tapedId as idOf } from '../../../tests/support/taped';
import { Job } from '../shell/job/job';
import { firstFigures } from './first-figures';

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

  it('compare nothing with what lies between two readings of one thing that contradict each other', () => {
    const figures = firstFigures(taped(['FL', 'RR', 2500], ['FR', 'RL', 2502], ['RR', 'FL', 25000]), measuring);
    expect(figures).toMatchObject([{ kind: 'repeat', difference: 22500, real: true }]);
  });

  it('take a point that has no partner for no image of itself', () => {
    expect(firstFigures(taped(['FL', 'SL', 1100], ['FR', 'SL', 1500]), measuring)).toEqual([]);
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
