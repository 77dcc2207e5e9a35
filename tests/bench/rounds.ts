import type { Case } from './case';
import { Job } from '@/core/shell/job/job';
import { emptyJobRows, type JobRows } from '@/core/shell/job/job-rows';
import { NEW_JOB, NEW_POINT, type Reading } from '@/core/shell/job/entities';
import type { Vector } from '@/core/maths/geometry/vector';
import { seeded } from '@/core/maths/random/seeded';
import { shellNet } from '@/core/practice/shell-net';
import { analyseRound, OWN_SPREADS } from '@/core/findings/analysis';
import { judgeRound } from '@/core/round/judge/judge-round';
import { compareSides } from '@/core/findings/sides';
import { didItMove } from '@/core/findings/movement';

/** A job with a chart, two rounds and a rear that has gone, as large as asked. */
function jobOf(points: number, distances: number, dimensions: number): JobRows {
  const random = seeded(points);
  const { truth } = shellNet({ points, distances: 1 }, random);
  const rows = emptyJobRows();
  const [jobId, referenceId, tape] = [random.uuid(), random.uuid(), random.uuid()];
  const at = '2026-01-01T08:00:00.000Z';
  rows.jobs.push({
    id: jobId,
    name: 'bench',
    shell: '',
    identityNumber: '',
    owner: '',
    shop: '',
    driverSide: 'left',
    bench: '',
    ...NEW_JOB,
    startedAt: at,
  });
  rows.references.push({
    id: referenceId,
    jobId,
    kind: 'chart',
    name: 'chart',
    source: '',
    trust: 0.3,
    rank: 0,
    roundId: null,
    createdAt: at,
    edition: 1,
    editionOf: null,
    inUse: true,
  });
  rows.instruments.push({ id: tape, name: 'tape', kind: 'tape' });
  rows.instrumentVersions.push({
    id: tape,
    instrumentId: tape,
    number: 1,
    sdConstant: 0.6,
    sdPerMetre: 0.3,
    zeroOffset: 0,
    startMark: 0,
    steel: true,
    pointers: '',
    checkedAt: null,
    note: '',
    validFrom: at,
  });
  rows.shellStates.push({ id: tape, jobId, kind: 'asFound', note: '', reachedAt: at });
  rows.supports.push({ id: tape, jobId, kind: 'ownFrame', suspension: 'off', note: '' });
  for (const [code, [x, y, z]] of truth) {
    const id = random.uuid();
    rows.points.push({
      id,
      jobId,
      code,
      name: code,
      side: code.endsWith('L') ? 'left' : 'right',
      ...NEW_POINT,
    });
    rows.referencePoints.push({
      id: random.uuid(),
      referenceId,
      pointId: id,
      x,
      y,
      z,
      tolerance: 3,
      sd: null,
      version: 1,
    });
  }
  const pairs = rows.points
    .flatMap((a, i) => rows.points.slice(i + 1).map((b) => [a, b] as const))
    .map((pair, i) => ({ pair, order: (i * 0.6180339887) % 1 }))
    .sort((a, b) => a.order - b.order);
  for (const {
    pair: [a, b],
  } of pairs.slice(0, dimensions)) {
    const id = random.uuid();
    rows.dimensions.push({
      id,
      jobId,
      code: `${a.code}${b.code}`,
      name: '',
      fromPointId: a.id,
      toPointId: b.id,
      measure: 'tip',
      version: 1,
    });
    rows.referenceDimensions.push({
      id: random.uuid(),
      referenceId,
      dimensionId: id,
      value: apart(truth.get(a.code)!, truth.get(b.code)!),
      tolerance: 3,
      sd: null,
      version: 1,
    });
  }
  const gone = (code: string): Vector => {
    const [x, y, z] = truth.get(code)!;
    const part = Math.max(0, (x - 2600) / 1200);
    return [x - 9 * part, y + 6 * part, z + 5 * part];
  };
  for (const number of [1, 2]) {
    const roundId = random.uuid();
    rows.rounds.push({
      id: roundId,
      jobId,
      number,
      name: `round ${number}`,
      stateId: tape,
      supportId: tape,
      instrumentVersionId: tape,
      temperature: null,
      author: 'bench',
      personId: null,
      startedAt: at,
      closedAt: null,
      setUpId: null,
      shell: '',
      version: 1,
    });
    for (const { id, code } of rows.points)
      if (truth.get(code)![0] < 900) rows.roundControls.push({ roundId, pointId: id });
    const reading = (some: Pick<Reading, 'quantity' | 'value' | 'pointId' | 'toPointId' | 'measure'>): Reading => ({
      id: random.uuid(),
      lineId: random.uuid(),
      roundId,
      sequence: 0,
      instrumentVersionId: tape,
      author: 'bench',
      personId: null,
      takenAt: at,
      receivedAt: at,
      raw: '1',
      phase: 'none',
      stationId: null,
      pullId: null,
      pointerFrom: null,
      pointerTo: null,
      fit: null,
      partHoleId: null,
      toward: null,
      ...some,
    });
    for (const { id, code } of rows.points)
      rows.readings.push(
        reading({
          quantity: 'height',
          value: gone(code)[2] + 0.7 * random.normal(),
          pointId: id,
          toPointId: null,
          measure: null,
        }),
      );
    for (const {
      pair: [a, b],
    } of pairs.slice(0, distances)) {
      const exact = apart(gone(a.code), gone(b.code));
      rows.readings.push(
        reading({
          quantity: 'distance',
          value: exact + (0.6 + 0.0003 * exact) * random.normal(),
          pointId: a.id,
          toPointId: b.id,
          measure: 'tip',
        }),
      );
    }
  }
  return rows;
}

/** The same job with another temperature, so that nothing kept of it serves. */
let degree = 0;
const changed = (rows: JobRows): JobRows => ({
  ...rows,
  rounds: rows.rounds.map((round) => ({ ...round, temperature: 20 + (degree += 1e-6) })),
});

const apart = (a: Vector, b: Vector): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

export const rounds: Case[] = [[50, 400, 30] as const, [150, 1500, 300] as const].flatMap(
  ([points, distances, dimensions]) => {
    const rows = jobOf(points, distances, dimensions);
    const judgement = judgeRound(Job.of(rows), rows.rounds[0]!);
    const later = judgeRound(Job.of(rows), rows.rounds[1]!);
    const of = `round of ${points} points, ${distances} lengths, ${dimensions} dimensions`;
    const judge = () => {
      const fresh = Job.of(changed(rows));
      return judgeRound(fresh, fresh.rows.rounds[0]!);
    };
    return [
      { of, what: 'judged: net, doubts, alignment, verdicts', run: judge },
      {
        of,
        what: 'undisturbed, choices of control, pattern',
        run: () => analyseRound(Job.of(rows), judgement, OWN_SPREADS),
      },
      { of, what: 'left against right', run: () => compareSides(Job.of(rows), judgement) },
      { of, what: 'did it move', run: () => didItMove(Job.of(rows), judgement, later) },
    ];
  },
);
