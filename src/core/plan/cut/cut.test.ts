import { describe, expect, it } from 'vitest';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { Cutting, leftSideOut, TUBES } from '../../../../tests/support/cutting';
import { demoRows } from '../../../../tests/support/demo-rows';
import { apart } from '../../structure/shell-frame';
import { slackOf, stageStiffness, withBraces } from '../../structure/slack';
import { displaced } from '../../structure/stiffness';
import { adviseBraces, inTheWay, onMetalThatGoes, tubeFor } from './brace-advice';
import { cutModel, frameAfter, type CutModel } from './cut-model';
import { HANDLING, stiffnessAfter } from './worked-stages';
import { sawList, barsFor } from './saw-list';
import { bracesIn } from './stages';
import { slackTable } from './slack-table';
import { tellingLengths } from './telling';
import { turnEffects, turnsFor } from './trim';

const modelOf = (rows: JobRows): CutModel => cutModel(Job.of(rows))!;
const rowOf = (cut: CutModel, code: string) => slackTable(cut).rows.find((row) => row.code === code)!;

describe('what a cut sets loose', () => {
  const cut = modelOf(leftSideOut().rows);

  it('is told over the range in which the shell’s stiffness is known: twice as stiff gives half', () => {
    const { bare } = rowOf(cut, 'DR2').stages[0]!;
    expect(bare!.low / bare!.usual).toBeCloseTo(0.5, 6);
    expect(bare!.high / bare!.usual).toBeCloseTo(2, 6);
  });

  it('is of the shell at that stiffness as if it were factorised anew, with its forces and its weight', () => {
    for (const [stage, times] of [
      [-1, 2],
      [1, 0.5],
    ] as const) {
      const [scaled, anew] = [
        stiffnessAfter(cut, stage, times, false),
        stageStiffness(frameAfter(cut, stage, times), []),
      ];
      if (!scaled.ok || !anew.ok) throw new Error('it is held');
      expect(scaled.value.frame).toEqual(anew.value.frame);
      const largest = Math.max(...anew.value.sagged.map(Math.abs));
      scaled.value.sagged.forEach((each, i) => expect(each / largest).toBeCloseTo(anew.value.sagged[i]! / largest, 9));
      const length = cut.lengths.find(({ code }) => code === 'DL2')!;
      const [a, b] = [scaled, anew].map(({ value }) => slackOf(value, length, HANDLING, 0)!);
      expect(a!.push / b!.push).toBeCloseTo(1, 9);
      expect(a!.worst / b!.worst).toBeCloseTo(1, 9);
    }
  });

  it('is the door opening over a sill that is out, more with the floor beside it, and not the other side', () => {
    const [left, right] = [rowOf(cut, 'DL2'), rowOf(cut, 'DR2')];
    const usual = left.stages.map(({ bare }) => bare!.usual);
    expect(usual[0]).toBeGreaterThan(1.2 * left.whole!.usual);
    expect(usual[1]).toBeGreaterThan(1.3 * usual[0]!);
    expect(right.stages[1]!.bare!.usual).toBeLessThan(1.15 * right.whole!.usual);
  });

  it('is gone where an end of a length left with the metal', () => {
    expect(rowOf(cut, 'CL1').stages[0]).toEqual({});
  });

  it('is named where a part hangs on nothing, and where the mounts stood on what went', () => {
    const alone = new Cutting()
      .stage('legs')
      .panel('left leg', 'legs', ['F2L-F4L', 'F2L-F3L', 'F1L-F1R', 'F2L-F4L-A4L-F3L']);
    expect(slackTable(modelOf(alone.rows)).states[0]!.loosePart).toEqual(['F1L', 'F2L']);
    const onSill = leftSideOut().stoodOn('S1R', 'S2L', 'S3L', 'S3R');
    expect(slackTable(modelOf(onSill.rows)).states[0]!.mechanism.length).toBeGreaterThan(10);
  });

  it('follows a press test: what opens twice as far as the model has it is taken as softer', () => {
    const { rows } = leftSideOut();
    const { fromPointId, toPointId } = rows.dimensions.find(({ code }) => code === 'DR2')!;
    const test = {
      id: 't',
      jobId: rows.jobs[0]!.id,
      fromPointId,
      toPointId,
      force: 100,
      opened: 0.2,
      sd: 0.02,
      at: '',
      author: '',
      personId: null,
    };
    const pressed = modelOf({ ...rows, pressTests: [test] });
    expect(pressed.stiffness.tested).toBe(true);
    expect(pressed.stiffness.high / pressed.stiffness.low).toBeLessThan(2);
    expect(pressed.stiffness.usual).toBeLessThan(1);
  });
});

describe('braces in a stage', () => {
  it('hold as if the shell were factorised with them, soft and stiff', () => {
    const cut = modelOf(demoRows('solbris'));
    const stages = cut.stages.flatMap((_, stage) =>
      bracesIn(cut.braces, cut.stages, stage).length > 1 ? [stage] : [],
    );
    expect(stages.length).toBeGreaterThan(0);
    for (const stage of stages)
      for (const times of [0.5, 1, 2]) {
        const struts = bracesIn(cut.braces, cut.stages, stage).map(({ strut }) => strut);
        const [put, anew] = [
          stiffnessAfter(cut, stage, times, true),
          stageStiffness(frameAfter(cut, stage, times), [], struts),
        ];
        if (!put.ok || !anew.ok) throw new Error('it is held');
        expect(put.value.frame).toEqual(anew.value.frame);
        const largest = Math.max(...anew.value.sagged.map(Math.abs));
        anew.value.sagged.forEach((each, i) => expect(put.value.sagged[i]! / largest).toBeCloseTo(each / largest, 8));
        for (const length of cut.lengths) {
          const [a, b] = [put, anew].map(({ value }) => slackOf(value, length, HANDLING, 0));
          expect(a?.push).toBeCloseTo(b?.push ?? 0, 8);
          expect(Math.abs(a?.worst ?? 0)).toBeCloseTo(Math.abs(b?.worst ?? 0), 8);
        }
      }
  });

  it('are put in all at once', () => {
    const cut = modelOf(demoRows('solbris'));
    const put = stiffnessAfter(cut, 0, 1, true);
    if (!put.ok) throw new Error('it is held');
    expect(() => withBraces(put.value, put.value.frame.struts)).toThrow('all at once');
  });

  it('leave what is worked out of the bare shell as it was when one of them is moved', () => {
    const rows = demoRows('solbris');
    const moved = { ...rows, braces: rows.braces.map((brace, i) => (i > 0 ? brace : { ...brace, fromOff: 12 })) };
    const [before, after] = [modelOf(rows), modelOf(moved)];
    expect(after.braces).not.toEqual(before.braces);
    expect(stiffnessAfter(after, 0, 1, false)).toBe(stiffnessAfter(before, 0, 1, false));
  });
});

describe('the telling lengths of a stage', () => {
  it('tell by how much more they give under the hand than before it', () => {
    const cut = modelOf(leftSideOut().rows);
    const usual = cut.stiffness.usual;
    const [before, after] = [stiffnessAfter(cut, 0, usual, false), stiffnessAfter(cut, 1, usual, false)];
    if (!before.ok || !after.ok) throw new Error('it is held');
    for (const { length, more } of tellingLengths(cut, 1)) {
      const [a, b] = [before, after].map(({ value }) => slackOf(value, length, HANDLING, 0)!.push);
      expect(more).toBeCloseTo(Math.abs(b! - a!), 9);
    }
  });

  it('are three to five that stand on metal that stays, what the cut looses most first', () => {
    const cut = modelOf(leftSideOut().rows);
    const gone = cut.stages[1]!.goneIds;
    const told = tellingLengths(cut, 1);
    expect(told.length).toBeGreaterThanOrEqual(3);
    expect(told.length).toBeLessThanOrEqual(5);
    const { nodes } = cut.structure.model;
    for (const { length } of told)
      for (const node of [length.from, length.to]) expect(gone.has(nodes[node]!.pointId!)).toBe(false);
    expect(told.some(({ length }) => length.code.startsWith('DL'))).toBe(true);
  });
});

describe('advice on braces', () => {
  const advice = (cutting: Cutting, stage: number, forbidden: readonly (readonly [string, string])[] = []) => {
    const job = Job.of(cutting.rows);
    const cut = cutModel(job)!;
    const made = adviseBraces(job, cut, stage, forbidden);
    if ('nodes' in made) throw new Error(`${made.outcome} ${made.nodes.join()}`);
    const pairs = made.proposals.map(({ what }) => [what.fromPointId, what.toPointId] as const);
    const held = made.proposals.flatMap(({ why }) =>
      why.flatMap((each) => (each.kind === 'holds' ? [each.lengthId] : [])),
    );
    const codes = held.map((id) => cut.lengths.find((length) => length.id === id)!.code);
    return { ...made, pairs, codes };
  };
  const side = () => leftSideOut().stoodOn('F4L', 'F4R', 'C1L', 'C1R');

  it('holds the left door opening and the floor’s diagonal, and as few as can be', () => {
    // The estate of the demo as it is planned to be cut, before anything was braced.
    const estate = new Cutting();
    estate.rows = { ...demoRows('solbris'), braces: [], sections: TUBES };
    const { outcome, codes, proposals } = advice(estate, 1);
    expect(outcome).toBe('advised');
    expect(codes).toContain('DL2');
    expect(codes).toContain('CD1');
    expect(proposals.length).toBeLessThanOrEqual(3);
  });

  it('finds another way where the best is forbidden', () => {
    const [best] = advice(side(), 1).pairs;
    const again = advice(side(), 1, [best!]);
    expect(again.outcome).toBe('advised');
    expect(again.pairs.map((pair) => [...pair].sort().join())).not.toContain([...best!].sort().join());
  });

  it('keeps clear of the way a panel takes in, and tells which planned brace stands in it', () => {
    const cutting = side();
    const [best] = advice(cutting, 1).pairs;
    const job = Job.of(cutting.rows);
    const at = (id: string) => cutModel(job)!.structure.model.nodes.find(({ pointId }) => pointId === id)!.at;
    const middle = [0, 1, 2].map((k) => (at(best![0])[k]! + at(best![1])[k]!) / 2);
    const [x, y, z] = middle as [number, number, number];
    const way = {
      ...{ id: 'way', jobId: job.row.id, name: 'way in', panelId: 'left floor' },
      ...{ minX: x - 30, maxX: x + 30, minY: y - 430, maxY: y - 370, minZ: z - 30, maxZ: z + 30 },
      ...{ moveX: 0, moveY: 400, moveZ: 0 },
    };
    cutting.rows = { ...cutting.rows, keepOuts: [way] };
    const clear = advice(cutting, 1);
    expect(clear.pairs.map((pair) => [...pair].sort().join())).not.toContain([...best!].sort().join());
    const code = (id: string) => cutting.rows.points.find((point) => point.id === id)!.code;
    cutting.brace('X1', code(best![0]), code(best![1]));
    const now = Job.of(cutting.rows);
    expect(inTheWay(now, cutModel(now)!, 1)).toEqual([{ code: 'X1', of: 'way in', isWayIn: true }]);
    // Before the floor comes in nothing takes that way.
    expect(inTheWay(now, cutModel(now)!, 0)).toEqual([]);
  });

  it('is none more once its braces are planned; they hold at half the stiffness and at twice', () => {
    const cutting = side();
    for (const [i, [from, to]] of advice(cutting, 1).pairs.entries()) {
      const code = (id: string) => cutting.rows.points.find((point) => point.id === id)!.code;
      cutting.brace(`X${i + 1}`, code(from), code(to), { sectionId: 'tube 40' });
    }
    expect(advice(cutting, 1).outcome).toBe('holdsAlready');
    const { braced } = rowOf(modelOf(cutting.rows), 'DL2').stages[1]!;
    expect(braced!.words).toEqual(['tight', 'tight']);
  });

  it('counts for nothing a brace on metal that goes, and little one on bare skin', () => {
    const bare = side();
    const usual = (cutting: Cutting) => rowOf(modelOf(cutting.rows), 'DL2').stages[1]!.braced!.usual;
    const none = usual(bare);
    expect(usual(side().brace('X1', 'A2L', 'S3L'))).toBeCloseTo(none, 9);
    expect(onMetalThatGoes(modelOf(side().brace('X1', 'A2L', 'S3L').rows), 0)).toEqual([{ code: 'X1', at: 'S3L' }]);
    const doubled = usual(side().brace('X1', 'A3L', 'B2L'));
    const skin = usual(side().brace('X1', 'A3L', 'B2L', { fromEnd: 'skin', toEnd: 'skin' }));
    expect(none - doubled).toBeGreaterThan(4 * (none - skin));
  });

  it('asks more of an open car than of a closed one', () => {
    const sill = (name: 'maake' | 'lodd', parts: readonly string[]) => {
      const cutting = new Cutting(name).stage('sill').panel('left sill', 'sill', parts);
      const table = slackTable(modelOf(cutting.rows));
      return Math.max(...table.rows.map(({ stages, limit }) => (stages[0]!.bare?.high ?? 0) / limit));
    };
    const parts = ['S1L-S2L', 'S2L-S3L'];
    expect(sill('maake', parts)).toBeGreaterThan(1.5 * sill('lodd', parts));
  });

  it('takes the lightest tube that somebody can climb on, and a stouter one for a longer way', () => {
    const { sections } = leftSideOut().rows;
    expect(tubeFor(sections, 700)!.width).toBe(25);
    expect(tubeFor(sections, 1800)!.width).toBe(40);
  });
});

describe('trim by the turn', () => {
  const threaded = () =>
    leftSideOut().brace('X1', 'A3L', 'B2L', { threadPitch: 1.5 }).brace('X2', 'A1L', 'B3L', { threadPitch: -2 });

  it('moves its own length most, the other way with a left-handed thread, and as the frame does under the brace’s push', () => {
    const cut = modelOf(threaded().rows);
    const [right, left] = turnEffects(cut, 0);
    expect([right!.quarter, left!.quarter]).toEqual([0.375, -0.5]);
    const held = stiffnessAfter(cut, 0, 1, true);
    if (!held.ok) throw new Error();
    const { frame, stiffness } = held.value;
    const own = frame.nodes.flatMap(() => [0, 0, 0, 0, 0, 0]);
    const along = (axis: number) =>
      (frame.nodes[right!.brace.to]!.at[axis]! - frame.nodes[right!.brace.from]!.at[axis]!) / right!.brace.length;
    for (let k = 0; k < 3; k++) {
      own[6 * right!.brace.from + k] = -along(k) * right!.brace.stiffness * 0.375;
      own[6 * right!.brace.to + k] = along(k) * right!.brace.stiffness * 0.375;
    }
    const moved = displaced(stiffness, Float64Array.from(own));
    const d = cut.lengths.findIndex(({ code }) => code === 'DL1');
    expect(right!.moves[d]).toBeCloseTo(apart(frame, cut.lengths[d]!.from, cut.lengths[d]!.to, moved), 9);
    expect(right!.moves[d]! * left!.moves[d]!).toBeLessThan(0);
  });

  it('is found the other way round: which brace to turn how far', () => {
    const effects = [{ moves: [0.2, 0.05, 0] }, { moves: [-0.1, 0.3, 0] }];
    expect(turnsFor(effects, [0.4, 0.1, 0], [0.5, 0.5, 0.5])).toEqual([2, 0]);
    expect(turnsFor(effects, [0.1, 0.35, 0], [0.5, 0.5, 0.5])).toEqual([1, 1]);
    expect(turnsFor(effects, [0, 0, 1], [0.5, 0.5, 0.5])).toEqual([0, 0]);
  });
});

describe('the list for the saw', () => {
  it('takes pads and nuts off, and goes in the order of fitting', () => {
    const { rows } = leftSideOut()
      .brace('X1', 'A1L', 'B2L', { fromOff: 12, toOff: 3, stageInId: 'floor' })
      .brace('X2', 'A2L', 'B1L');
    const job = Job.of(rows);
    const list = sawList(job, cutModel(job));
    expect(list.map(({ brace }) => brace.code)).toEqual(['X2', 'X1']);
    const [, first] = list;
    expect(first!.between! - first!.sawn!).toBeCloseTo(15, 9);
    expect(first!.goesIn).toBe('floor');
    // 25 × 25 × 2 weighs 1.44 kg a metre.
    expect(first!.kilograms! / (first!.sawn! / 1000)).toBeCloseTo(1.444, 2);
  });

  it('lays pieces into bars, the longest first, with the saw’s kerf', () => {
    expect(barsFor([2000, 2000, 2000], 6000)).toEqual({ bars: 2, left: expect.closeTo(5991, 6) });
    expect(barsFor([1900, 2000, 2000], 6000)).toEqual({ bars: 1, left: expect.closeTo(91, 6) });
    expect(barsFor([], 6000)).toEqual({ bars: 0, left: 0 });
  });
});
