import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { computeStacks, parseStacks } from './stacks';

const sample = (file: string) => JSON.parse(readFileSync(`tests/samples/shelf.stacks${file}.json`, 'utf8'));
const faultsOf = (value: unknown) => {
  const parsed = parseStacks(value);
  return parsed.ok ? [] : parsed.faults.map(({ path }) => path);
};

describe('vinkel.stacks/1', () => {
  it('gives the stacking worked by hand', async () => {
    const parsed = parseStacks(sample(''));
    if (!parsed.ok) throw new Error(parsed.faults[0]!.message);
    const answer = await computeStacks(parsed.value);
    const { note: _, ...expected } = sample('.expected');
    expect(answer).toEqual({ ok: true, value: expected });
  });

  it('names every fault by its place in one run', () => {
    const request = sample('');
    request.pieces[0].height = 0;
    request.pieces[1].id = 'S20';
    request.pieces[3].count = 1.5;
    request.heads[0].adjust = -1;
    request.mounts[0].heads = ['cone', 'ball'];
    request.mounts[1].most = -1;
    request.mounts[2].colour = 'red';
    expect(faultsOf(request).sort()).toEqual([
      'heads[0].adjust',
      'mounts[0].heads[1]',
      'mounts[1].most',
      'mounts[2].colour',
      'pieces[0].height',
      'pieces[2].id',
      'pieces[3].count',
    ]);
    expect(faultsOf({ format: 'vinkel.stacks/2' }).length).toBeGreaterThan(3);
    expect(faultsOf(null).length).toBeGreaterThan(0);
  });

  it('takes empty lists, and builds nothing of nothing', async () => {
    const empty = { format: 'vinkel.stacks/1' as const, pieces: [], heads: [], mounts: [] };
    expect(faultsOf(empty)).toEqual([]);
    expect(await computeStacks(empty)).toMatchObject({ value: { built: 0, pieces: 0, off: 0, proven: true } });
  });
});
