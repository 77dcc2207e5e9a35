import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import { daySheet } from '../days/day';
import { controlSentence, settledText, settlingSentence, type SettleWords } from '../report/settle-words';
import { judgeRound } from '../round/judge/judge-round';
import { instrumentsInHand } from '../shell/instruments';
import { Job } from '../shell/job/job';
import { repeatFactor } from '../walk/targets';
import { measureNext } from './measure-next';
import { settle } from './settle';

const solbris = demoRows('solbris');
const job = Job.of(solbris);
const latest = judgeRound(job, solbris.rounds[1]!);
const words: SettleWords = {
  target: ({ codes, quantity }) => `${codes.join(' ')} ${quantity}`,
  instrument: (id) => solbris.instruments.find((each) => each.id === id)!.name.toLowerCase(),
  code: (id) => job.code(id),
  plusMinus: (mm) => `± ${mm.toFixed(1)} mm`,
};

describe('what settles an undecided figure', () => {
  it('is the same on the day sheet and on the sheet', () => {
    const { doubtful } = daySheet(job);
    expect(doubtful.length).toBeGreaterThan(0);
    for (const { subject, settledBy } of doubtful) {
      expect(settledBy).toEqual(settle(job, latest, subject));
      expect(settledText(settledBy, words)).not.toBe('');
    }
  });

  it('is not what is decided already', () => {
    const inside = latest.points.find(({ judged }) => judged?.verdict === 'inside')!;
    expect(settle(job, latest, { kind: 'point', id: inside.point.id })).toBeUndefined();
  });

  it('names only instruments this job was read with, and reads in the words of the trade', () => {
    const used = new Set(instrumentsInHand(job).map(({ instrument }) => instrument.id));
    const proposals = daySheet(job).doubtful.flatMap(({ settledBy }) => settledBy ?? []);
    for (const { what } of proposals)
      for (const { target } of 'steps' in what ? what.steps : []) expect(used.has(target.instrumentId!)).toBe(true);
    const read = proposals.find(({ what }) => what.kind === 'read');
    if (read) expect(settledText(read, words)).toMatch(/with the /);
  });

  it('counts what a further control point would gain', () => {
    const doubts = judgeRound(job, solbris.rounds[0]!);
    const proposals = doubts.points.flatMap(({ point, judged }) =>
      judged?.verdict === 'undecided' ? (settle(job, doubts, { kind: 'point', id: point.id }) ?? []) : [],
    );
    for (const proposal of proposals) {
      const control = proposal.why.find(({ kind }) => kind === 'control');
      expect(settlingSentence(proposal)).toMatch(/\w/);
      if (control?.kind !== 'control') continue;
      expect(control.plusMinus).toBeLessThan(proposal.gain.before);
      expect(controlSentence(proposal, words)).toContain(job.code(control.pointId));
    }
  });

  it('with one control point fewer is to hold that one, where the alignment is what is uncertain', () => {
    const round = solbris.rounds[0]!;
    const held = solbris.roundControls.filter(({ roundId }) => roundId === round.id);
    // Three points at the front alone: everything at the rear hangs on their slope.
    const front = held
      .map(({ pointId }) => ({ pointId, x: job.references.points.get(pointId)?.row.x ?? 0 }))
      .sort((a, b) => a.x - b.x)
      .slice(0, 4);
    const few = Job.of({ ...solbris, roundControls: front.map(({ pointId }) => ({ roundId: round.id, pointId })) });
    const judgement = judgeRound(few, round);
    const gains = judgement.points.flatMap(({ point, judged }) => {
      const proposal = judged?.verdict === 'undecided' && settle(few, judgement, { kind: 'point', id: point.id });
      return proposal ? proposal.why.filter(({ kind }) => kind === 'control') : [];
    });
    expect(gains.length).toBeGreaterThan(0);
  });
});

describe('what to measure next', () => {
  it('is worth less the oftener it was read with the instrument at hand', () => {
    expect(repeatFactor(0)).toBe(1);
    expect(repeatFactor(1)).toBeCloseTo(Math.sqrt(3), 9);
    expect(repeatFactor(2)).toBeCloseTo(Math.sqrt(6), 9);
  });

  it('brings the worst ± down, and says what for', () => {
    const proposals = measureNext(job, latest, instrumentsInHand(job), { of: 'points', plusMinus: 2 }, 4);
    expect(proposals.length).toBeGreaterThan(0);
    proposals.forEach(({ gain, why, what }) => {
      expect(gain.after).toBeLessThanOrEqual(gain.before + 1e-9);
      expect(why.some(({ kind }) => kind === 'surer')).toBe(true);
      expect(what.instrumentId).toBeDefined();
    });
  });
});
