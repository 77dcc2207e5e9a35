import { describe, expect, it } from 'vitest';
import { parseSlack, frameOf, lengthsOf, stagesOf } from '@/formats/shell-file';
import { readFileSync } from 'node:fs';
import { solveFrame } from './frame';
import { apart, pushingApart, weightOf } from './shell-frame';
import { frameAt, slackByStage, stageStiffness, standing } from './slack';

const parsed = parseSlack(JSON.parse(readFileSync('tests/samples/open-box.slack.json', 'utf8')));
if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
const document = parsed.value;
const frame = frameOf(document);
const lengths = lengthsOf(document);
const stages = stagesOf(document);
const told = (of = stages, by = lengths) => {
  const result = slackByStage(frame, of, by, 200);
  if (!result.ok) throw new Error(`${result.stage}: ${result.loose.join()}`);
  return result.stages;
};

describe('what a cut sets loose', () => {
  it('is what pushing and pulling at every node comes to, one by one', () => {
    const stage = stageStiffness(frame, stages.slice(0, 2));
    if (!stage.ok) throw new Error(stage.loose.join());
    const cut = stage.value.frame;
    const slack = told()[1]!.lengths[0]!;
    const [length] = lengths;
    const change = (load: Float64Array) => {
      const result = solveFrame(cut, load, false);
      if (!result.ok) throw new Error(result.nodes.join());
      return apart(cut, length!.from, length!.to, result.value.moved);
    };
    expect(slack.push).toBeCloseTo(200 * change(pushingApart(cut, length!.from, length!.to)), 9);
    const all = cut.nodes.flatMap((_, node) =>
      [0, 1, 2].map((k) => {
        const load = new Float64Array(6 * cut.nodes.length);
        load[6 * node + k] = 200;
        return change(load);
      }),
    );
    const worst = all.reduce((best, each) => (Math.abs(each) > Math.abs(best) ? each : best));
    expect(slack.worst).toBeCloseTo(worst, 9);
    expect(all[3 * slack.node + ['X', 'Y', 'Z'].indexOf(slack.axis)]).toBeCloseTo(worst, 9);
  });

  it('sags by the weight that is left, less what the whole shell sags', () => {
    const sag = (of: typeof frame) => {
      const result = solveFrame(of, weightOf(of), false);
      if (!result.ok) throw new Error(result.nodes.join());
      return apart(of, lengths[0]!.from, lengths[0]!.to, result.value.moved);
    };
    const cut = frameAt(frame, stages.slice(0, 2));
    expect(told()[1]!.lengths[0]!.sag).toBeCloseTo(sag(cut) - sag(frame), 12);
  });

  it('takes a length to a node that goes with the cut for gone, and what hangs on no support with it', () => {
    const upper = frame.members.filter(({ id }) => /^(post|rail|high)/.test(id)).map(({ id }) => id);
    const remove = [...upper, ...frame.panels.map(({ id }) => id).filter((id) => /side|end/.test(id))];
    const [stage] = told([{ name: 'top off', remove, add: [] }]);
    expect(stage!.lengths.map((each) => each !== undefined)).toEqual([true, true, false, false]);
    const posts = frame.members.filter(({ id }) => /^post/.test(id)).map(({ id }) => id);
    const panels = frame.panels.map(({ id }) => id).filter((id) => /side|end/.test(id));
    const { stands } = standing(frameAt(frame, [{ name: 'cut', remove: [...posts, ...panels], add: [] }]));
    expect(frame.nodes.map(({ id }, i) => (stands[i] ? '' : id)).filter(Boolean)).toEqual(
      frame.nodes.map(({ id }) => id).filter((id) => id.startsWith('B')),
    );
  });

  it('names the stage at which the shell is held by nothing, and its nodes', () => {
    const held = { ...frame, supports: frame.supports.slice(0, 1) };
    expect(slackByStage(held, stages, lengths, 200)).toMatchObject({
      ok: false,
      loose: expect.arrayContaining(['A3R']),
    });
    const all = [...frame.members, ...frame.panels].map(({ id }) => id);
    const result = slackByStage(frame, [{ name: 'all of it', remove: all, add: [] }], lengths, 200);
    expect(result).toMatchObject({ ok: false, stage: 'all of it' });
  });
});
