import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import { judgeRound } from '../../round/judge/judge-round';
import { placedPosition } from '../../round/judge/judgement';
import { Job } from '../../shell/job/job';
import type { JobRows } from '../../shell/job/job-rows';
import { fromRemovedPart } from './removed-part';

const solbris = demoRows('solbris');
const [asFound] = solbris.rounds;
const idOf = (code: string) => solbris.points.find((point) => point.code === code)!.id;

/** The same readings of some points, taken of the part on the floor: its zero stands elsewhere. */
function withPart(codes: readonly string[]): JobRows {
  const ids = new Set(codes.map(idOf));
  const round = { ...asFound!, id: 'part', number: 9, shell: 'Left sill, cut out', closedAt: null };
  const readings = solbris.readings.flatMap((reading, i) => {
    const { roundId, quantity, pointId, toPointId, value } = reading;
    const isOfPart = roundId === asFound!.id && ids.has(pointId ?? '') && (toPointId === null || ids.has(toPointId));
    if (!isOfPart || value === null) return [];
    const by = quantity === 'height' ? -300 : quantity === 'length' ? -700 : quantity === 'width' ? 650 : 0;
    return [{ ...reading, id: `part ${i}`, lineId: `part ${i}`, roundId: 'part', value: value + by }];
  });
  return { ...solbris, rounds: [...solbris.rounds, round], readings: [...solbris.readings, ...readings] };
}

describe('a part that was cut out and measured by itself', () => {
  const rows = withPart(['S1L', 'S2L', 'S3L', 'A1L', 'B1L', 'B2L']);
  const part = rows.rounds.at(-1)!;

  it('is joined to the shell through holes both have: its other points come where the shell had them', () => {
    const through = new Set(['S1L', 'S3L', 'A1L', 'B2L'].map(idOf));
    const made = fromRemovedPart(Job.of(rows), part, through);
    if (!made.ok) throw new Error(made.reason);
    const found = made.draft.points.find(({ pointId }) => pointId === idOf('S2L'))!;
    const was = placedPosition(judgeRound(Job.of(solbris), solbris.rounds[1]!), idOf('S2L'))!;
    found.at.forEach((value, k) => expect(Math.abs(value - was[k]!)).toBeLessThan(2.5));
    expect(made.draft.trust).toBeGreaterThan(0.3);
    expect(made.draft.how).toMatch(/joined to round 2 through .*S1L.*, which agree within/);
  });

  it('says what is missing where fewer than three holes tie it', () => {
    const made = fromRemovedPart(Job.of(rows), part, new Set(['S1L', 'S3L'].map(idOf)));
    expect(made.ok ? '' : made.reason).toMatch(/three holes that both have/);
  });
});
