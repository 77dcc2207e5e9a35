import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import { loopModel, restingPlaces } from '../../../tests/support/pull-loop';
import { judgeRound } from '../round/judge/judge-round';
import { NEW_PULL, type CodedPull } from '../shell/job/entities';
import { Job } from '../shell/job/job';
import { BEYOND, courseOf, directionOf, learnSpringBack, nextMark, shareOf, shownBy } from './strokes';

const job = Job.of(demoRows('solbris'));
const [pull] = job.pulls as [CodedPull];
const judgement = judgeRound(job, job.round(pull.roundId)!);
const SIGMA = 0.3;

describe('what comes home when a pull is let go', () => {
  it('is a length: 4.1 under load that kept 0.6 says 3.5, not 85 %', () => {
    const learned = learnSpringBack({ by: 9, sd: 5 }, [{ springBack: 3.5, gained: 0.6 }], SIGMA);
    expect(learned.by).toBeGreaterThan(3.4);
    expect(learned.by).toBeLessThan(3.8);
    // The next, twice as far, is expected to come home by as much.
    const twice = learnSpringBack(
      { by: 9, sd: 5 },
      [
        { springBack: 3.5, gained: 0.6 },
        { springBack: 3.6, gained: 4.4 },
      ],
      SIGMA,
    );
    expect(twice.by).toBeCloseTo(3.55, 0);
    expect(twice.sd).toBeLessThan(learned.sd);
  });

  it('is not learned from a stroke that did not go past yield, unless it came home further than was thought', () => {
    const before = { by: 6, sd: 2 };
    expect(learnSpringBack(before, [{ springBack: 2, gained: 0.1 }], SIGMA).by).toBe(6);
    expect(learnSpringBack(before, [{ springBack: 8, gained: 0.1 }], SIGMA).by).toBeGreaterThan(7.5);
  });
});

describe('the next mark', () => {
  const spring = { by: 3.5, sd: 0.6, strokes: 1 };
  const stroke = (loaded: number, rested: number) => ({
    ...{ at: '', loaded, rested, springBack: loaded - rested, gained: rested },
  });

  it('goes half the way at first, and no further over it than metal comes home for certain', () => {
    const next = nextMark(12, { strokes: [], rested: 0 }, spring)!;
    expect(next.target).toBeCloseTo(6 + 3.5 - 0.6, 6);
    expect(next.rest).toBeCloseTo(next.target - 3.5, 6);
    expect(next.plusMinus).toBeCloseTo(1.2, 6);
  });

  it('then the whole of it, but only a few millimetres beyond what was last held', () => {
    const near = nextMark(4, { strokes: [stroke(5, 1.5)], rested: 1.5 }, spring)!;
    expect([near.target, near.isCut]).toEqual([7.5, false]);
    const far = nextMark(14, { strokes: [stroke(5, 1.5)], rested: 1.5 }, spring)!;
    expect([far.target, far.isCut]).toEqual([5 + BEYOND, true]);
  });

  it('is none where the place is there', () => {
    expect(nextMark(4, { strokes: [stroke(7.6, 3.8)], rested: 3.8 }, spring)).toBeUndefined();
  });
});

describe('the course of a pull', () => {
  it('is read along its aim, by the one quantity that shows it best', () => {
    const course = courseOf(job, pull, judgement);
    expect(course.subject).toMatchObject({ quantity: 'length', pointId: pull.pointId });
    const size = Math.hypot(pull.aimX, pull.aimY, pull.aimZ);
    expect(course.share).toBeCloseTo(pull.aimX / size, 9);
    const [trial] = course.strokes;
    expect(course.strokes).toHaveLength(1);
    // 3.5 of the length came home: so much more along an aim that is not all lengthwise.
    expect(trial!.springBack).toBeCloseTo((3.5 * size) / pull.aimX, 1);
    expect(course.underLoad).toBeUndefined();
  });

  it('of a jack between two points is read by their distance', () => {
    const jack: CodedPull = {
      ...{ ...pull, ...NEW_PULL, id: pull.jobId, code: 'P9', againstPointId: job.pointCalled('R4R')!.id },
      ...{ aimX: 0, aimY: -5, aimZ: 0 },
    };
    expect(shownBy(jack)).toMatchObject({ quantity: 'distance', toPointId: jack.againstPointId });
    expect(shareOf(job, jack, shownBy(jack))).toBeGreaterThan(0.95);
    expect(directionOf(jack)).toEqual([0, -1, 0]);
    expect(directionOf({ ...jack, dirX: 0, dirY: 0, dirZ: 2 })).toEqual([0, 0, 1]);
  });

  it('states where it comes to rest: within its ± nine times of ten after three strokes, on hidden shells that are not the model', () => {
    const model = loopModel(job);
    const places = Array.from({ length: 12 }, (_, i) => restingPlaces(model, 300 + i));
    const [covered, strokes] = (['covered', 'strokes'] as const).map((key) =>
      places.reduce((sum, each) => sum + each[key], 0),
    ) as [number, number];
    expect(strokes).toBeGreaterThan(25);
    expect(covered / strokes).toBeGreaterThan(0.85);
  });
});
