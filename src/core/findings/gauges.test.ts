import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import { add, norm, subtract, type Vector } from '../maths/geometry/vector';
import { turned } from '../maths/rigid/turn';
import { seeded } from '../maths/random/seeded';
import { solveRound } from '../round/net/net';
import { observeRound } from '../round/observe/observe';
import type { Reading } from '../shell/job/entities';
import { Job } from '../shell/job/job';
import type { JobRows } from '../shell/job/job-rows';
import { gaugeFindings } from './gauges';

const job = demoRows('solbris');
const round = job.rounds[0]!;
const chart = new Map(job.referencePoints.map(({ pointId, x, y, z }) => [pointId, [x, y, z] as Vector]));
const idOf = (code: string) => job.points.find((point) => point.code === code)!.id;
const low = ['F1L', 'F1R', 'S1L', 'S1R', 'S3L', 'S3R', 'R1L', 'R1R'].filter((code) => chart.has(idOf(code)));
const template = job.readings.find(({ quantity, roundId }) => quantity === 'distance' && roundId === round.id)!;

/** A round of every length between the low points and their heights, of a shell that is off its chart at some of them. */
function taped(off: Readonly<Record<string, Vector>>, extra: readonly Partial<Reading>[], seed = 1): JobRows {
  const random = seeded(seed);
  const at = new Map(low.map((code) => [code, add(chart.get(idOf(code))!, off[code] ?? [0, 0, 0])]));
  const reading = (some: Partial<Reading>): Reading => ({
    ...template,
    ...some,
    id: random.uuid(),
    lineId: random.uuid(),
  });
  const lengths = low.flatMap((a, i) =>
    low.slice(i + 1).map((b) =>
      reading({
        ...{ quantity: 'distance', measure: 'tip', pointId: idOf(a), toPointId: idOf(b) },
        value: norm(subtract(at.get(b)!, at.get(a)!)) + 0.3 * random.normal(),
      }),
    ),
  );
  const single = { measure: null, toPointId: null } as const;
  const heights = low.map((code) =>
    reading({ ...single, quantity: 'height', pointId: idOf(code), value: at.get(code)![2] + 0.3 * random.normal() }),
  );
  const others = extra.map((some) => reading({ ...single, quantity: 'fixture', ...some }));
  return {
    ...job,
    readings: [...lengths, ...heights, ...others],
    readingStrikes: [],
    readingKeeps: [],
    pointConditions: [],
  };
}

const head = (code: string, fit: 'free' | 'tight' | 'none' = 'tight') => ({ pointId: idOf(code), fit, value: 0.5 });

function found(rows: JobRows) {
  const of = Job.of(rows);
  const findings = gaugeFindings(of, round, solveRound(of, observeRound(of, round)));
  return new Map(findings.map((each) => [of.code(each.reading.pointId!), each]));
}

const others = (code: string) => low.filter((each) => each !== code);

describe('heads as gauges', () => {
  it('agree where the shell is as charted, wherever the bench stands', () => {
    const says = found(
      taped(
        {},
        low.map((code) => head(code)),
      ),
    );
    expect([...says.values()].map((each) => each.says)).toEqual(low.map(() => 'agrees'));
  });

  it('that will not enter say the shell is off only when somebody checked their stack', () => {
    const off = { R1L: [9, 0, 0] as Vector };
    const heads = [...others('R1L').map((code) => head(code)), head('R1L', 'none')];
    const unchecked = found(taped(off, heads)).get('R1L')!;
    expect(unchecked.says).toBe('shellOrStack');
    expect(unchecked.off!.by[0]).toBeCloseTo(9, 0);

    const rows = taped(off, heads);
    const setUp = { ...demoRows('solbris').setUps[0]! };
    const mount = { ...demoRows('solbris').mounts[0]!, pointId: idOf('R1L'), setUpId: setUp.id };
    const checked = {
      ...{
        id: 'check',
        itemId: setUp.id,
        kind: 'checked' as const,
        key: mount.id,
        at: round.startedAt,
        author: 'Ronja',
        personId: null,
        reason: '',
      },
      value: chart.get(idOf('R1L'))![2] + setUp.z,
    };
    expect(found({ ...rows, mounts: [mount], workEvents: [checked] }).get('R1L')!.says).toBe('shell');
  });

  it('that will not enter though the point is right there are to be looked at themselves', () => {
    const heads = [...others('S3L').map((code) => head(code)), { ...head('S3L', 'none'), value: 6 }];
    expect(found(taped({}, heads)).get('S3L')!.says).toBe('shouldEnter');
  });

  it('that enter where the tape has nothing of the kind are built otherwise than planned', () => {
    const says = found(
      taped(
        { S3R: [0, 0, 12] },
        low.map((code) => head(code)),
      ),
    ).get('S3R')!;
    expect(says.says).toBe('stackOrReading');
    expect(says.off!.by[2]).toBeCloseTo(12, 0);
  });
});

describe('a real part as a gauge', () => {
  const part = { id: 'part', jobId: job.jobs[0]!.id, code: 'axle', name: 'Axle beam', sd: 0.3, version: 1 };
  const at = low.slice(0, 4).map((code) => chart.get(idOf(code))!);
  /** The part lies in axes of its own, far from the car's. */
  const holes = at.map((place, i) => {
    const [x, y, z] = add(turned(place, [0.3, -0.8, 2]), [500, 90, -70]);
    return { id: `hole ${i}`, gaugePartId: part.id, code: `${i + 1}`, x, y, z, clearance: 0.4 };
  });
  const lengths = [
    [0, 1],
    [1, 2],
    [2, 3],
    [0, 3],
  ].map(([a, b]) => ({
    ...{ id: `check ${a}${b}`, gaugePartId: part.id, fromHoleId: holes[a!]!.id, toHoleId: holes[b!]!.id },
    value: norm(subtract(at[b!]!, at[a!]!)),
  }));
  const gauge = { gaugeParts: [part], partHoles: holes, partChecks: lengths };
  const centred = (i: number) => ({
    pointId: idOf(low[i]!),
    partHoleId: holes[i]!.id,
    fit: 'centred' as const,
    value: 0.4,
  });

  it('agrees with a shell that is right, in whatever axes its holes are written', () => {
    const says = found({ ...taped({}, [0, 1, 2, 3].map(centred)), ...gauge });
    expect([...says.values()].map((each) => each.says)).toEqual(['agrees', 'agrees', 'agrees', 'agrees']);
  });

  it('says by which hole the shell is off, and that a point beside its hole is no contradiction', () => {
    const off = { [low[3]!]: [5, 0, 0] as Vector };
    const beside = { ...centred(3), fit: 'beside' as const, toward: 'rear' as const, value: 5 };
    const agreeing = found({ ...taped(off, [...[0, 1, 2].map(centred), beside]), ...gauge });
    expect(agreeing.get(low[3]!)!.says).toBe('agrees');
    const none = { ...centred(3), fit: 'none' as const };
    const says = found({ ...taped(off, [...[0, 1, 2].map(centred), none]), ...gauge }).get(low[3]!)!;
    expect(says.says).toBe('shell');
    expect(says.off!.by[0]).toBeCloseTo(5, 0);
  });

  it('has no voice while it is bent, where nobody taped it, or while two holes are read', () => {
    const readings = taped({}, [0, 1, 2, 3].map(centred));
    const says = (rows: JobRows) => [...found(rows).values()].map((each) => each.says);
    const bent = lengths.map((check, i) => (i === 0 ? { ...check, value: check.value + 6 } : check));
    expect(says({ ...readings, ...gauge, partChecks: bent })).toEqual(['bent', 'bent', 'bent', 'bent']);
    // Of three holes with a voice, two are left to say where the third should be: they leave the part a turn.
    const some = lengths.slice(0, 2);
    expect(says({ ...readings, ...gauge, partChecks: some })).toEqual([
      'cannotTell',
      'cannotTell',
      'cannotTell',
      'unchecked',
    ]);
    expect(says({ ...taped({}, [0, 1].map(centred)), ...gauge })).toEqual(['fewHoles', 'fewHoles']);
  });
});
