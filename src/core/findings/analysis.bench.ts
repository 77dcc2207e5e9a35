import { Job } from '../shell/job/job';
import { bench, describe } from 'vitest';
import { emptyJobRows, type JobRows } from '../shell/job/job-rows';
import type { Reading } from '../shell/job/entities';
import type { Vector } from '../maths/geometry/vector';
import { seeded } from '../maths/random/seeded';
import { shellNet } from '../practice/shell-net';
import { analyseRound, OWN_SPREADS } from './analysis';
import { judgeRound } from '../round/judge/judge-round';
import { compareSides } from './sides';
import { didItMove } from './movement';

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
    note: '',
    startedAt: at,
    version: 1,
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
      holeDiameter: null,
      substituteForId: null,
      mirrored: true,
      version: 1,
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
      startedAt: at,
      closedAt: null,
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
      takenAt: at,
      receivedAt: at,
      raw: '1',
      phase: 'none',
      stationId: null,
      pullId: null,
      pointerFrom: null,
      pointerTo: null,
      fit: null,
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

describe.each([
  [50, 400, 30],
  [150, 1500, 300],
])('%i points, %i lengths, %i dimensions', (points, distances, dimensions) => {
  const rows = jobOf(points, distances, dimensions);
  const judgement = judgeRound(Job.of(rows), rows.rounds[0]!);
  const later = judgeRound(Job.of(rows), rows.rounds[1]!);
  const options = { time: 1000, warmupTime: 300 };
  bench(
    'judged: net, doubts, alignment, verdicts',
    () => {
      const fresh = Job.of(changed(rows));
      judgeRound(fresh, fresh.rows.rounds[0]!);
    },
    options,
  );
  bench('undisturbed, choices, pattern', () => void analyseRound(Job.of(rows), judgement, OWN_SPREADS), options);
  bench('left against right', () => void compareSides(Job.of(rows), judgement), options);
  bench('did it move', () => void didItMove(Job.of(rows), judgement, later), options);
});
