import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { computeBracing, parseBracing } from './bracing';
import { computeFrame } from './frame';
import type { Parsed } from './faults';
import { parseShellDocument, parseSlack } from './shell-file';
import { computeSlack } from './slack';

const sample = (name: string) =>
  JSON.parse(readFileSync(`tests/samples/${name}.json`, 'utf8')) as Record<string, never>;
const value = <T>(parsed: Parsed<T>): T => {
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
  return parsed.value;
};
const faults = (parsed: Parsed<unknown>) =>
  parsed.ok ? [] : parsed.faults.map(({ path, message }) => `${path}: ${message}`);

/** The same as expected, figures to a millionth of their size. */
function expectLike(found: unknown, expected: unknown, path = ''): void {
  if (typeof expected === 'number') {
    const off = Math.abs((found as number) - expected);
    if (off > 1e-6 * Math.abs(expected) + 1e-9) expect([path, found]).toEqual([path, expected]);
  } else if (typeof expected === 'object' && expected !== null) {
    expect([path, Object.keys(found as object).sort()]).toEqual([path, Object.keys(expected).sort()]);
    for (const [key, each] of Object.entries(expected)) expectLike((found as never)[key], each, `${path}.${key}`);
  } else expect([path, found]).toEqual([path, expected]);
}

describe('a shell as a structure', () => {
  it('moves, gives and is braced as the samples say', () => {
    const frame = computeFrame(value(parseShellDocument(sample('cantilever.shell'))));
    expectLike(frame.ok && frame.value, sample('cantilever.shell.expected'));
    const slack = computeSlack(value(parseSlack(sample('open-box.slack'))));
    expectLike(slack.ok && slack.value, sample('open-box.slack.expected'));
    const bracing = computeBracing(value(parseBracing(sample('open-box.brace'))));
    if (!bracing.ok) throw new Error(bracing.reason);
    const expected = sample('open-box.brace.expected') as unknown as { fewest: number; slack: { before: unknown } };
    expect([bracing.value.ok, bracing.value.braces.length]).toEqual([true, expected.fewest]);
    expectLike(bracing.value.slack.before, expected.slack.before);
  });

  it('is refused with every fault at its place', () => {
    const good = sample('open-box.slack') as unknown as {
      readonly nodes: { id: string }[];
      readonly members: Record<string, unknown>[];
      readonly panels: Record<string, unknown>[];
      readonly stages: unknown[];
    };
    const [first, ...members] = good.members;
    const [panel, ...panels] = good.panels;
    const bad = {
      ...good,
      nodes: [...good.nodes, { ...good.nodes[0] }],
      members: [{ ...first, from: 'nowhere', A: 0 }, ...members, { ...first, id: 'short', from: 'A1L', to: 'A1L' }],
      panels: [{ ...panel, nodes: ['A1L', 'A1L', 'A2R', 'A2L'] }, ...panels],
      stages: [
        { name: 'twice', remove: ['floor2', 'floor2'] },
        { name: 'twice', add: [{ ...members[0] }] },
      ],
      colour: 'red',
    };
    expect(faults(parseSlack(bad)).sort()).toEqual(
      [
        'colour: unknown field',
        'members[0].A: above 0',
        'members[0].from: no node "nowhere"',
        'members[19]: its two ends are one spot: it has no length',
        'nodes[12].id: "A1L" stands here twice',
        'panels[0].nodes: four different nodes',
        'stages[0].remove[1]: no part "floor2" is there to be removed',
        'stages[1].add[0].id: "sill1R" is there already',
        'stages[1].name: "twice" stands here twice',
      ].sort(),
    );
  });

  it('names a brace that makes no sense, and says in one line what nothing holds', () => {
    const good = sample('open-box.brace') as unknown as { candidates: object; supports: unknown[] };
    const bad = {
      ...good,
      stage: 'never',
      candidates: { ...good.candidates, nodes: ['A1L', 'Q'], forbid: [['A1L', 'Z']] },
    };
    expect(faults(parseBracing(bad)).sort()).toEqual([
      'candidates.forbid[0][1]: no node "Z"',
      'candidates.nodes[1]: no node "Q"',
      'stage: no stage "never"',
    ]);
    const loose = computeBracing(value(parseBracing({ ...good, supports: good.supports.slice(0, 1) })));
    expect(loose.ok ? '' : loose.reason).toMatch(/^before the first stage: nothing holds ".*": add a support/);
    const afloat = computeFrame(value(parseShellDocument({ ...sample('cantilever.shell'), supports: [] })));
    expect(afloat.ok ? '' : afloat.reason).toBe('nothing holds "root", "tip": add a support or a member there');
  });
});
