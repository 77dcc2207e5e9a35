import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import { COVERAGE } from '../maths/statistics/verdict';
import { BODIES } from '../shell/bodies';
import { referencePosition } from '../shell/references/chosen';
import { Job } from '../shell/job/job';
import { predict } from '../survey/prediction';
import { solveNet } from '../survey/solve';
import type { SurveyReading } from '../survey/survey';
import type { People } from './stretches';
import { walkTargets, type Target } from './targets';

const solbris = demoRows('solbris');
const job = Job.of(solbris);
const hands = { height: 0.7, distance: (length: number) => 0.6 + 0.0003 * length };
const walk = (people: People) => walkTargets(job, solbris.rounds[0]!, hands, people);
const two = walk('two');
const alone = walk('alone');

/** The walk as readings of the shell the chart describes. */
const readings = (targets: readonly Target[]) =>
  targets.map(({ codes, quantity, measure }, i): SurveyReading => {
    const [from, to] = codes.map((code) => job.pointCalled(code)!.id);
    if (quantity === 'height') return { id: `${i}`, kind: 'height', point: from!, value: 0, sigma: hands.height };
    const kind = measure === 'level' ? 'plan' : 'distance';
    return { id: `${i}`, kind, from: from!, to: to!, value: 1, sigma: hands.distance(1200) };
  });

describe('the walk', () => {
  it('knows every charted length within half its limit at its end, or reads it', () => {
    const at = (id: string) => referencePosition(job.references, id)!;
    const start = solbris.points.flatMap(({ id }) => (at(id) ? [{ id, start: at(id) }] : []));
    const solved = solveNet({
      points: start,
      readings: readings(two).map((reading) => {
        if (reading.kind === 'height') return { ...reading, value: at(reading.point)[2] };
        if (reading.kind !== 'distance' && reading.kind !== 'plan') return reading;
        const [a, b] = [at(reading.from), at(reading.to)];
        const rise = reading.kind === 'plan' ? 0 : a[2] - b[2];
        return { ...reading, value: Math.hypot(a[0] - b[0], a[1] - b[1], rise) };
      }),
    });
    if (!solved.ok) throw new Error(solved.why);
    const read = new Set(two.map(({ codes }) => [...codes].sort().join()));
    for (const { id, fromPointId: from, toPointId: to, code, measure } of solbris.dimensions) {
      if (read.has([job.code(from), job.code(to)].sort().join())) continue;
      const limit = job.references.dimensions.get(id)!.row.tolerance;
      const kind = measure === 'level' ? 'plan' : 'distance';
      const { variance } = predict(solved.solution, { id: '', kind, from, to, value: 1, sigma: 1 });
      expect([code, COVERAGE * Math.sqrt(variance) < 0.75 * limit]).toEqual([code, true]);
    }
    expect(two.filter(({ why }) => why === 'charted').length).toBeGreaterThan(5);
  });

  it('keeps one instrument in the hand for a stretch: lengths, then heights, section by section', () => {
    const changes = two.filter(({ quantity }, i) => i > 0 && quantity !== two[i - 1]!.quantity).length;
    // Three sections, lengths and heights each, and what is read again.
    expect(changes).toBeLessThanOrEqual(8);
  });

  it('alone moves the hooked end less often, and asks for no length a hook would not hold over', () => {
    const moves = (targets: readonly Target[]) => {
      const hooked = targets.filter(({ quantity }) => quantity === 'distance').map(({ codes }) => codes[0]);
      return hooked.filter((code, i) => i > 0 && code !== hooked[i - 1]).length;
    };
    expect(moves(alone)).toBeLessThan(0.5 * moves(two));
    const once = (targets: readonly Target[]) => targets.filter(({ again }) => !again).map(({ key }) => key);
    expect(new Set(once(alone)).size).toBe(once(alone).length);
  });
});

describe('the first walk of a shell without a chart', () => {
  const places = BODIES.estate.places.filter(({ at }) => at[2] < 500);
  const laidOut = Job.of({
    ...solbris,
    jobs: solbris.jobs.map((each) => ({ ...each, body: 'estate' as const, wheelbase: 2300 })),
    points: places.map(({ code, name, side }, i) => ({
      ...solbris.points[0]!,
      ...{ id: `00000000-0000-4000-8000-0000000000${10 + i}`, code, name, side, place: code },
    })),
    ...{ references: [], referencePoints: [], referenceDimensions: [], referenceStations: [], dimensions: [] },
    ...{ readings: [], pointConditions: [], roundControls: [], logSubjects: [], pulls: [], pullHolds: [], braces: [] },
  });

  it('goes by the places chosen on the picture, and reaches every one of them', () => {
    const targets = walkTargets(laidOut, solbris.rounds[0]!, hands);
    const reached = new Set(targets.flatMap(({ codes }) => codes));
    for (const { code } of places) expect([code, reached.has(code)]).toEqual([code, true]);
    expect(targets[0]).toMatchObject({ quantity: 'distance', why: 'diagonal', section: 'centre' });
    expect(targets.length).toBeLessThan(6 * places.length);
  });
});
