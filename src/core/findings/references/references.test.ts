import { Job } from '../../shell/job/job';
import { describe, expect, it } from 'vitest';
import type { Reference } from '../../shell/job/entities';
import type { JobRows } from '../../shell/job/job-rows';
import { judgeRound } from '../../round/judge/judge-round';
import { compareSides } from '../sides';
import { demoRows } from '../../../../tests/support/demo-rows';
import { chooseReferences } from '../../shell/references/chosen';
import { contradictions } from '../../shell/references/contradictions';
import {
  fromEarlierRound,
  fromMirror,
  fromPlannedChange,
  fromSisterCars,
  type DraftResult,
  type ReferenceDraft,
} from './derive';

const solbris = demoRows('solbris');
const lodd = demoRows('lodd');
const idOf = (rows: JobRows, code: string) => rows.points.find((point) => point.code === code)!.id;
const drafted = (result: DraftResult): ReferenceDraft => {
  if (!result.ok) throw new Error(result.reason);
  return result.draft;
};

/** The rows with one more reference made of a draft. */
function withReference(
  rows: JobRows,
  kind: Reference['kind'],
  { points, dimensions, trust }: ReferenceDraft,
  rank: number,
): JobRows {
  const id = crypto.randomUUID();
  const figure = () => ({ id: crypto.randomUUID(), referenceId: id, tolerance: 3, version: 1 });
  return {
    ...rows,
    references: [
      ...rows.references,
      {
        id,
        jobId: rows.jobs[0]!.id,
        kind,
        name: kind,
        source: '',
        trust,
        rank,
        roundId: null,
        createdAt: '2026-01-01T00:00:00.000Z',
        edition: 1,
        editionOf: null,
        inUse: true,
      },
    ],
    referencePoints: [
      ...rows.referencePoints,
      ...points.map(({ pointId, at: [x, y, z], sd }) => ({ ...figure(), pointId, x, y, z, sd })),
    ],
    referenceDimensions: [
      ...rows.referenceDimensions,
      ...dimensions.map(({ dimensionId, value, sd }) => ({ ...figure(), dimensionId, value, sd })),
    ],
  };
}

describe('references ranked by the user', () => {
  const planned = drafted(fromPlannedChange(Job.of(solbris), [idOf(solbris, 'S2L'), idOf(solbris, 'S2R')], [0, 0, 12]));

  it('judge by the best ranked and know what the others would say', () => {
    const first = chooseReferences(withReference(solbris, 'plannedChange', planned, 1)).points.get(
      idOf(solbris, 'S2L'),
    )!;
    expect(first.reference.kind).toBe('chart');
    expect(first.others.map(({ reference }) => reference.kind)).toEqual(['plannedChange']);
    const raised = { ...solbris, references: solbris.references.map((each) => ({ ...each, rank: 5 })) };
    const second = chooseReferences(withReference(raised, 'plannedChange', planned, 0)).points.get(
      idOf(solbris, 'S2L'),
    )!;
    expect(second.reference.kind).toBe('plannedChange');
    expect(second.row.z - second.others[0]!.row.z).toBeCloseTo(12, 9);
  });

  it('give way to a choice for a single point, and come back when it is taken back', () => {
    const rows = withReference(solbris, 'plannedChange', planned, 9);
    const choice = (referenceId: string | null) => ({
      id: crypto.randomUUID(),
      jobId: rows.jobs[0]!.id,
      pointId: idOf(rows, 'S2L'),
      dimensionId: null,
      referenceId,
      at: '2026-01-02T00:00:00.000Z',
      author: 'Ronja',
      personId: null,
      reason: '',
    });
    const chosen = { ...rows, referenceChoices: [choice(rows.references.at(-1)!.id)] };
    expect(chooseReferences(chosen).points.get(idOf(rows, 'S2L'))).toMatchObject({
      byHand: true,
      reference: { kind: 'plannedChange' },
    });
    expect(chooseReferences(chosen).points.get(idOf(rows, 'S2R'))!.reference.kind).toBe('chart');
    const back = { ...chosen, referenceChoices: [...chosen.referenceChoices, choice(null)] };
    expect(chooseReferences(back).points.get(idOf(rows, 'S2L'))!.reference.kind).toBe('chart');
  });

  it('do not judge by an edition that is out of use', () => {
    const rows = { ...solbris, references: solbris.references.map((each) => ({ ...each, inUse: false })) };
    expect(chooseReferences(rows).points.size).toBe(0);
  });

  it('are a finding where they contradict each other beyond their trust; a planned change is none', () => {
    const kept = {
      points: [],
      dimensions: [{ dimensionId: solbris.dimensions[0]!.id, value: 900, sd: 1 }],
      stations: [],
      trust: 1,
      how: '',
    };
    const found = contradictions(Job.of(withReference(solbris, 'keptPart', kept, 3)));
    expect(found[0]).toMatchObject({ dimensionId: solbris.dimensions[0]!.id });
    // The old sill's drilled hole is in the demo already.
    const [sill, ...others] = contradictions(Job.of(solbris));
    expect(sill).toMatchObject({ dimensionId: solbris.dimensions.find(({ code }) => code === 'CL1')!.id });
    expect(others).toEqual([]);
    expect(contradictions(Job.of(withReference(solbris, 'plannedChange', planned, 3)))).toHaveLength(1);
  });
});

describe('references made of what was measured', () => {
  it('this shell earlier: nothing has moved against itself', () => {
    const round = solbris.rounds[0]!;
    const rows = withReference(
      { ...solbris, references: solbris.references.map((each) => ({ ...each, rank: 9 })) },
      'earlierRound',
      drafted(fromEarlierRound(Job.of(solbris), round)),
      0,
    );
    const judgement = judgeRound(Job.of(rows), round);
    const judged = judgement.points.flatMap((point) => point.judged ?? []);
    expect(judged.length).toBeGreaterThan(20);
    for (const { deviation } of judged) expect(deviation.d).toBeLessThan(0.5);
  });

  it('a mirrored side stands in for a chart: the bad side shows against the good one', () => {
    const round = solbris.rounds[0]!;
    const { points } = drafted(fromMirror(Job.of(solbris), round, 'right'));
    const left = points.find(({ pointId }) => pointId === idOf(solbris, 'R4L'))!;
    const right = points.find(({ pointId }) => pointId === idOf(solbris, 'R4R'))!;
    expect(left.at[0]).toBeCloseTo(right.at[0], -1);
    expect(left.at[1]).toBeCloseTo(-right.at[1], -1);
    expect(left.sd).toBeGreaterThan(right.sd);
  });

  it('the sides differ where the rear was pushed in, and nowhere else', () => {
    const { mirror, lengths } = compareSides(Job.of(solbris), judgeRound(Job.of(solbris), solbris.rounds[0]!));
    if (!mirror.ok) throw new Error(mirror.reason);
    const rear = mirror.pairs.find(({ pair }) => pair.right === idOf(solbris, 'R4R'))!;
    // Right minus left of the hidden truth: 12 mm farther back, 8 mm lower.
    expect(Math.abs(rear.difference[0] - 12)).toBeLessThan(4 * rear.sd[0]);
    expect(Math.abs(rear.difference[2] + 8)).toBeLessThan(4 * rear.sd[2]);
    expect(mirror.pairs.filter(({ symmetric }) => symmetric).length).toBeGreaterThan(8);
    expect(lengths.length).toBeGreaterThan(5);
    const floor = lengths.find(({ dimension }) => dimension.code === 'CD1')!;
    expect(Math.abs(floor.difference)).toBeLessThan(3 * floor.sd + 2);
  });

  it('sister cars: a mean with the spread as its trust', () => {
    const rounds = lodd.rounds.slice(0, 2).map((round, i) => ({ ...round, shell: `sister ${i + 1}` }));
    const rows = { ...lodd, rounds };
    const one = drafted(fromSisterCars(Job.of(rows), rounds.slice(0, 1), new Set()));
    const two = drafted(fromSisterCars(Job.of(rows), rounds, new Set()));
    expect(two.trust).toBeLessThan(one.trust);
    expect(one.how).toContain('one sister car');
  });

  it('say what is missing', () => {
    expect(fromSisterCars(Job.of(solbris), [], new Set())).toMatchObject({
      ok: false,
      reason: expect.stringContaining('no round of a sister car'),
    });
    const unpaired = { ...solbris, points: solbris.points.map((point) => ({ ...point, mirrored: false })) };
    expect(fromMirror(Job.of(unpaired), solbris.rounds[0]!, 'left')).toMatchObject({
      ok: false,
      reason: expect.stringContaining('no pair'),
    });
    expect(fromPlannedChange(Job.of(solbris), [], [0, 0, 5])).toMatchObject({ ok: false });
  });
});
