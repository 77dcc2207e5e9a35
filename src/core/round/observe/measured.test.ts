import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { pullProgress } from '../../findings/brace-pull';
import type { Reading } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';
import type { JobRows } from '../../shell/job/job-rows';
import { judgeRound } from '../judge/judge-round';
import { measure } from './measured';
import { observeRound } from './observe';
import { surveyOf } from './survey-of';

const rows = demoRows('solbris');
const [round] = rows.rounds as readonly [(typeof rows.rounds)[number]];
const template = rows.readings.find(({ quantity, roundId }) => quantity === 'distance' && roundId === round.id)!;
const [from, to] = [template.pointId!, template.toPointId!];

/** The round with so many lengths between two points and nothing else, by an instrument of σ = 0.5. */
function lengths(...some: Partial<Reading>[]): JobRows {
  return {
    ...rows,
    readings: some.map((each, i) => ({
      ...template,
      id: `r${i}`,
      lineId: `r${i}`,
      value: 1000,
      measure: 'tip',
      ...each,
    })),
    readingStrikes: [],
    instrumentVersions: rows.instrumentVersions.map((version) => ({
      ...version,
      ...{ sdConstant: 0.5, sdPerMetre: 0, startMark: 0, zeroOffset: 0, steel: true },
    })),
  };
}
const measured = (some: JobRows) => measure(observeRound(Job.of(some), round)).distances[0]!;

describe('a length outside the net', () => {
  it('read with pointers of unequal length is the distance between their tips', () => {
    const some = lengths({ pointerFrom: 120, pointerTo: 300 });
    expect(measured(some).value).toBeCloseTo(1016.07, 2);
    // The net sees the same, and judges the same.
    const { survey } = surveyOf(Job.of(some), observeRound(Job.of(some), round));
    expect(survey.readings[0]).toMatchObject({ value: 1000, pointers: [120, 300] });
    const length = judgeRound(Job.of(some), round).dimensions.find(
      ({ dimension }) =>
        [dimension.fromPointId, dimension.toPointId].sort().join() === [from, to].sort().join() &&
        dimension.measure === 'tip',
    );
    if (length?.measured) expect(length.measured.value).toBeCloseTo(1016.07, 2);
  });

  it('read ten times with one instrument shares its bias: σ·√(½ + 1/20), not σ/√10', () => {
    const ten = lengths(...Array.from({ length: 10 }, () => ({})));
    expect(measured(ten).sd).toBeCloseTo(0.5 * Math.sqrt(0.5 + 1 / 20), 9);
    expect(measured(lengths({})).sd).toBeCloseTo(0.5, 9);
  });

  it('read with two instruments is the mean by what each is worth, each bias its own', () => {
    const other = rows.instrumentVersions.find(({ id }) => id !== template.instrumentVersionId);
    const some = lengths({ value: 1000 }, { value: 1000 }, { value: 1001, instrumentVersionId: other!.id });
    const twice = 0.25 * (0.5 + 0.5 / 2);
    expect(measured(some).sd).toBeCloseTo(1 / Math.sqrt(1 / twice + 1 / 0.25), 9);
    expect(measured(some).value).toBeCloseTo(1000 + 1 / 0.25 / (1 / twice + 1 / 0.25), 9);
  });

  it('at a worn hole is as much less sure as the net takes it to be', () => {
    const worn = {
      ...lengths({}),
      pointConditions: [
        {
          id: 'c',
          roundId: round.id,
          pointId: from,
          kind: 'worn' as const,
          at: round.startedAt,
          author: 'Nils',
          personId: null,
        },
      ],
    };
    expect(measured(worn).sd).toBeCloseTo(Math.hypot(0.5, 0.87), 9);
    const [reading] = surveyOf(Job.of(worn), observeRound(Job.of(worn), round)).survey.readings;
    expect(reading!.sigma).toBeCloseTo(measured(worn).sd, 9);
  });
});

describe('a pull read with a tram', () => {
  it('springs back by what its tips did, whatever the pointers', () => {
    const pull = rows.pulls[0]!;
    const at = { pullId: pull.id, roundId: pull.roundId, pointerFrom: 120, pointerTo: 300 };
    const some = lengths(
      { ...at, sequence: 1, phase: 'underLoad', value: 1000 },
      { ...at, sequence: 2, phase: 'released', value: 996 },
    );
    const planned = some.rounds.find(({ id }) => id === pull.roundId)!;
    const [progress] = pullProgress(Job.of(some), pull, judgeRound(Job.of(some), planned));
    const tip = (bar: number) => Math.hypot(bar, 180);
    expect(progress!.cycles[0]!.underLoad).toBeCloseTo(tip(1000), 9);
    expect(progress!.cycles[0]!.springBack).toBeCloseTo(tip(996) - tip(1000), 9);
  });
});
