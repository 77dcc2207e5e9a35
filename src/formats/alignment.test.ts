import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { computeAlignment, parseAlignmentRequest } from './alignment';

describe('an alignment request', () => {
  it('gives the figures of the sample: the largest set that agrees, the rest moved', () => {
    const sample = (file: string) => JSON.parse(readFileSync(`tests/samples/moved-corner.${file}.json`, 'utf8'));
    const request = parseAlignmentRequest(sample('alignment-request'));
    if (!request.ok) throw new Error(JSON.stringify(request.faults));
    const result = computeAlignment(request.value);
    if (!result.ok) throw new Error(result.reason);
    const expected = sample('alignment-request.expected');
    expect(result.value).toMatchObject({
      used: expected.used,
      moved: expected.moved,
      proven: true,
    });
    expect(result.value.rms).toBeCloseTo(expected.rms, 6);
    result.value.points.forEach((point, i) => {
      for (const axis of ['dx', 'dy', 'dz', 'd'] as const) expect(point[axis]).toBeCloseTo(expected.points[i][axis], 6);
    });
    expect(result.value.rotation.flat()).toEqual(
      expected.rotation.flat().map((value: number) => expect.closeTo(value, 9)),
    );
  });

  it('is refused where all points lie on one line, in either mode', () => {
    const points = [0, 1, 2, 3].map((i) => ({ id: `${i}`, reference: [i, 0, 0], measured: [i, 0, 0], use: true }));
    for (const mode of ['selected', 'undisturbed'] as const) {
      const result = computeAlignment({ format: 'vinkel.alignment-request/1', mode, points } as never);
      expect(result).toMatchObject({ ok: false, reason: expect.stringContaining('on one line') });
    }
  });
});
