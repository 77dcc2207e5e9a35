import { describe, expect, it } from 'vitest';
import type { Reading } from '@/core/shell/job/entities';
import { demoRows } from '../../../tests/support/demo-rows';
import { conditionEntry, readingsEntry, strikeEntry } from './tape-entries';
import { rowsWith } from './typed-rows';

const rows = demoRows('kvist');
const roundId = rows.rounds[0]!.id;
const pointId = rows.points[0]!.id;
const writer = { roundId, author: 'Ronja' };
const height = { quantity: 'height', value: 151, measure: null, pointId, toPointId: null } as never;
const line = (raw: string) =>
  readingsEntry(writer, raw, [height], { pullId: null, phase: 'none' }, () => ({ id: 'tape' }));
const added = (now: readonly Reading[]) => now.slice(rows.readings.length);

describe('a job with what was typed and has not come back from the server', () => {
  it('has the lines behind its own, in the order typed', () => {
    const { readings } = rowsWith(rows, roundId, [line('K1 h 151'), line('K1 h 152')]);
    const last = Math.max(...rows.readings.map(({ sequence }) => sequence));
    expect(added(readings).map(({ raw, sequence }) => [raw, sequence - last])).toEqual([
      ['K1 h 151', 1],
      ['K1 h 152', 2],
    ]);
  });

  it('is the same for the same lines, and its readings are the same rows when one is added', () => {
    const first = line('K1 h 151');
    const standing = [first];
    const once = rowsWith(rows, roundId, standing);
    expect(rowsWith(rows, roundId, standing)).toBe(once);
    const longer = rowsWith(rows, roundId, [first, line('K1 h 152')]);
    expect(added(longer.readings)[0]).toBe(added(once.readings)[0]);
    expect(rowsWith({ ...rows }, roundId, standing)).not.toBe(once);
  });

  it('has a line once that the server has by now', () => {
    const entry = line('K1 h 151');
    const answered = rowsWith(rows, roundId, [entry]);
    expect(rowsWith(answered, roundId, [entry]).readings).toHaveLength(answered.readings.length);
  });

  it('has the readings of a struck line struck, and leaves the tables alone that nothing was typed into', () => {
    const entry = line('K1 h 151');
    const { lineId, id } = entry.readings[0]!;
    const struck = rowsWith(rows, roundId, [entry, strikeEntry(writer, { lineId, reason: 'misread' })]);
    expect(struck.readingStrikes.at(-1)).toMatchObject({ readingId: id, reason: 'misread', author: 'Ronja' });
    expect(struck.points).toBe(rows.points);
    const marked = rowsWith(rows, roundId, [conditionEntry(writer, pointId, 'gone')]);
    expect(marked.pointConditions).toHaveLength(rows.pointConditions.length + 1);
    expect(marked.readingStrikes).toBe(rows.readingStrikes);
  });
});
