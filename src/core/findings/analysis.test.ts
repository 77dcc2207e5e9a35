import { Job } from '../shell/job/job';
import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import { patternSentences, type PatternWords } from '../report/pattern-sentences';
import { analyseRound, OWN_SPREADS } from './analysis';
import { whatDecides } from '../walk/decide';
import { judgeRound } from '../round/judge/judge-round';
import { didItMove } from './movement';
import { otherVerdicts } from '../round/judge/other-references';

const solbris = demoRows('solbris');
const lodd = demoRows('lodd');
const [asFound, braced] = solbris.rounds;
const idOf = (code: string) => solbris.points.find((point) => point.code === code)!.id;
const codeOf = (id: string) => solbris.points.find((point) => point.id === id)!.code;
const words: PatternWords = {
  length: (mm) => mm.toFixed(1),
  uncertainty: (mm) => mm.toFixed(1),
  unit: 'mm',
  near: () => 'the hinge',
  code: codeOf,
  section: (section) => section,
  side: (id) => ({ left: -1, right: 1, centre: 0 })[solbris.points.find((point) => point.id === id)!.side],
};

/** What really happened: beyond x = 2050 to the leg ends; see the demo's own words. */
const TRUTH = { mash: -8, sway: 5.5, sag: 5, diamond: 12, spread: -1, twist: -8 };

describe('the demo shell, left rear corner pushed into a quay post', () => {
  const judgement = judgeRound(Job.of(solbris), asFound!);
  const analysis = analyseRound(Job.of(solbris), judgement, OWN_SPREADS);
  const undisturbed = analysis.undisturbed;
  const { sections, local } = analysis.pattern!;
  const rear = sections[0]!;

  it('takes no point of the damaged end or the dented post for undisturbed', () => {
    if (!undisturbed.ok) throw new Error(undisturbed.reason);
    const used = undisturbed.used.map(codeOf);
    expect(used.length).toBeGreaterThan(15);
    expect(used).not.toEqual(expect.arrayContaining(['B1L']));
    for (const code of ['R4L', 'R3L', 'D1L', 'R4R']) expect(used).not.toContain(code);
    expect(used).toEqual(expect.arrayContaining(['F2L', 'F2R', 'S1L', 'S1R']));
  });

  it('finds one section gone, the rear, hinged at the rear seat crossmember', () => {
    expect(sections.map(({ section }) => section)).toEqual(['rear']);
    expect(Math.abs(rear.hinge.hinge - 2050)).toBeLessThan(3 * rear.hingeSd);
    expect(rear.hingeSd).toBeLessThan(120);
  });

  it('gives the amounts within their uncertainty', () => {
    const scale = (rear.hinge.end - 2050) / (3240 - 2050);
    for (const { name, amount, sd } of rear.components)
      expect(Math.abs(amount - TRUTH[name] * scale)).toBeLessThan(3 * sd);
    const significant = rear.components.filter((each) => each.significant).map(({ name }) => name);
    expect(significant).toEqual(expect.arrayContaining(['mash', 'sway', 'sag', 'diamond', 'twist']));
    expect(significant).not.toContain('spread');
  });

  it('keeps the dented post foot apart from the pattern', () => {
    expect(local.map(({ id }) => codeOf(id))).toEqual(['B1L']);
    expect(Math.abs(local[0]!.movement[1] - 5)).toBeLessThan(3 * local[0]!.sd[1]);
  });

  it('says it in plain sentences', () => {
    const sentences = patternSentences(analysis.pattern!, words);
    expect(sentences[0]).toMatch(/^The rear has gone .* forward, .* to the right and .* up from the hinge back\.$/);
    expect(sentences[1]).toMatch(/^Its left side is also .* shorter than the right and .* higher than the right\.$/);
    expect(sentences[2]).toMatch(/^B1L stands .* inward by itself/);
  });

  it('lays the choices of control points side by side', () => {
    const names = analysis.choices.map(({ name }) => name);
    expect(names).toEqual(expect.arrayContaining(['undisturbed', 'all']));
    const off = (name: string) => analysis.choices.find((choice) => choice.name === name)!.result;
    const [sound, all] = [off('undisturbed'), off('all')];
    if (!sound.ok || !all.ok) throw new Error('not fitted');
    // Fitting on everything spreads the damage over the sound end.
    expect(all.deviations.get(idOf('R4L'))!.d).toBeLessThan(sound.deviations.get(idOf('R4L'))!.d);
    expect(all.rms).toBeGreaterThan(sound.rms);
  });
});

describe('the demo coupé, its left nose leg creased', () => {
  it('has a front that has gone on its left, and nothing else', () => {
    const [found] = lodd.rounds;
    const { pattern } = analyseRound(Job.of(lodd), judgeRound(Job.of(lodd), found!), OWN_SPREADS);
    expect(pattern!.local).toEqual([]);
    const [front, ...others] = pattern!.sections;
    expect([front!.section, others]).toEqual(['front', []]);
    expect(Math.abs(front!.hinge.hinge - 100)).toBeLessThan(3 * front!.hingeSd);
    // The left end went 9 mm back, 7 in and 4 up; the right one stayed: half of it is the mean, all of it the difference.
    const share = (100 - front!.hinge.end) / 640;
    const truth = { mash: 4.5, sway: 3.5, sag: 2, diamond: -9, spread: -7, twist: -4 };
    for (const { name, amount, sd } of front!.components)
      expect(Math.abs(amount - truth[name] * share)).toBeLessThan(4 * sd);
  });
});

describe('what decides an undecided figure', () => {
  const judgement = judgeRound(Job.of(solbris), asFound!);
  const undecided = judgement.points.filter(({ judged }) => judged?.verdict === 'undecided');

  it('names readings that bring the uncertainty down, or says that nothing in hand can', () => {
    expect(undecided.length).toBeGreaterThan(0);
    for (const { point } of undecided) {
      const decision = whatDecides(Job.of(solbris), judgement, { kind: 'point', id: point.id })!;
      if (decision.outcome === 'readings')
        expect(decision.steps.at(-1)!.plusMinus).toBeLessThanOrEqual(decision.needed);
      else expect(decision.steps.every(({ plusMinus }) => plusMinus > decision.needed)).toBe(true);
      if (decision.outcome === 'control') expect(decision.control!.plusMinus).toBeLessThanOrEqual(decision.needed);
      expect(decision.steps.every(({ plusMinus }) => plusMinus <= decision.now + 1e-6)).toBe(true);
    }
  });

  it('says nothing of what is decided, and blames a reference that is too loose', () => {
    const inside = judgement.points.find(({ judged }) => judged?.verdict === 'inside')!;
    expect(whatDecides(Job.of(solbris), judgement, { kind: 'point', id: inside.point.id })).toBeUndefined();
    const loose = { ...solbris, references: solbris.references.map((each) => ({ ...each, trust: 20 })) };
    const vague = judgeRound(Job.of(loose), asFound!);
    const some = vague.dimensions.find(({ judged }) => judged?.verdict === 'undecided')!;
    expect(whatDecides(Job.of(loose), vague, { kind: 'dimension', id: some.dimension.id })!.outcome).toBe(
      'referenceCannot',
    );
  });
});

describe('between two rounds', () => {
  it('the finished coupé held between tacked and cold but for what its record accepts', () => {
    const [tacked, cold] = lodd.rounds.slice(-2).map((round) => judgeRound(Job.of(lodd), round));
    const movement = didItMove(Job.of(lodd), tacked!, cold!);
    expect(movement.cautions).toEqual([]);
    expect(movement.lengths.length).toBeGreaterThan(3);
    expect(movement.lengths.filter(({ moved }) => moved).length).toBeLessThanOrEqual(2);
  });

  it('says which round lacks points', () => {
    const empty = { ...solbris, readings: solbris.readings.filter(({ roundId }) => roundId !== braced!.id) };
    const movement = didItMove(Job.of(empty), judgeRound(Job.of(empty), asFound!), judgeRound(Job.of(empty), braced!));
    expect(movement.points).toMatchObject({ ok: false, reason: expect.stringContaining('round 2') });
  });

  it('says what the other references would say of a length, and nothing where there is one', () => {
    const judgement = judgeRound(Job.of(solbris), asFound!);
    expect(otherVerdicts(judgement, 'point', idOf('F1L'))).toEqual([]);
    const length = judgement.dimensions.find(({ dimension }) => dimension.code === 'CL1')!;
    const others = otherVerdicts(judgement, 'dimension', length.dimension.id);
    expect(others.map(({ reference }) => reference.kind)).toEqual(['sisterCar', 'keptPart']);
    // The kept sill says 4.6 mm more than the chart: the same length is as much shorter against it.
    expect(others[1]!.deviation[0]).toBeCloseTo(length.judged!.deviation - 4.6, 1);
    expect(others[0]!.plusMinus).toBeGreaterThan(length.judged!.plusMinus);
  });
});
