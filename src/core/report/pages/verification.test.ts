import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../../tests/support/demo-rows';
import type { ShellState } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';
import type { JobRows } from '../../shell/job/job-rows';
import { axleSentences, beforeFinalText, expectedText, reasonText } from '../verification-words';
import { verificationBoard } from './verification';

const lodd = demoRows('lodd');
const board = verificationBoard(Job.of(lodd));
const lengths = { difference: (mm: number) => mm.toFixed(1), plusMinus: (mm: number) => `±${mm.toFixed(1)} mm` };

/** The coupé with its last rounds taken in other states, and nothing accepted. */
const inStates = (...kinds: readonly ShellState['kind'][]): JobRows => {
  const last = lodd.rounds.filter(({ shell }) => shell === '').slice(-kinds.length);
  const kindOf = new Map(last.map(({ stateId }, i) => [stateId, kinds[i]!]));
  return {
    ...lodd,
    shellStates: lodd.shellStates.map((each) => ({ ...each, kind: kindOf.get(each.id) ?? each.kind })),
    logSubjects: [],
  };
};

describe('the verification board', () => {
  it('has the rounds of the welding, and not what pulls did before', () => {
    const states = board.rounds.map(({ state }) => state);
    expect(board.welding).toBe(true);
    expect(states).toEqual(['tacked', 'cold']);
  });

  it('finds the dimension that drifted between tacked and cold, and by how much', () => {
    const moved = board.rows.filter(({ drift }) => drift.kind === 'moved');
    expect(moved.length).toBeGreaterThan(0);
    const [first] = moved;
    if (first?.drift.kind !== 'moved') throw new Error('nothing moved');
    expect(Math.abs(Math.abs(first.drift.by) - 1.8)).toBeLessThan(2 * first.drift.sd + 0.3);
    const at = board.rounds.filter((_, i) => first.cells[i])[first.drift.at[0]!.place]!;
    expect(at.state).toBe('cold');
  });

  it('does not stop over what somebody accepted with a reason, and does where nobody did', () => {
    const drifted = board.rows[0]!.dimension.code;
    const codes = (of: typeof board) => of.call!.reasons.flatMap((each) => ('code' in each ? each.code : []));
    expect(codes(board)).not.toContain(drifted);
    expect(board.call).toMatchObject({ call: 'go', accepted: [drifted] });
    const open = verificationBoard(Job.of({ ...lodd, logSubjects: [] }));
    expect(open.call!.call).toBe('stop');
    expect(codes(open)).toContain(drifted);
    expect(open.call!.reasons.map((each) => reasonText(each, lengths)).join(' ')).toMatch(
      /moved by .* it appeared in “/,
    );
  });

  it('takes off what is only tacked where it moved out, and stops once it is welded', () => {
    const shifted = (rows: JobRows): JobRows => {
      const { id } = rows.rounds.filter(({ shell }) => shell === '').at(-1)!;
      // All lengths of the last round that are read directly, five millimetres long.
      return {
        ...rows,
        readings: rows.readings.map((each) =>
          each.roundId === id && each.quantity === 'distance' ? { ...each, value: each.value + 5 } : each,
        ),
      };
    };
    expect(verificationBoard(Job.of(shifted(inStates('tacked')))).call!.call).toBe('undo');
    expect(verificationBoard(Job.of(shifted(inStates('welded')))).call!.call).toBe('stop');
  });

  it('says what must be so before it is judged for good', () => {
    const kinds = (rows: JobRows) => verificationBoard(Job.of(rows)).beforeFinal.map(({ kind }) => kind);
    expect(kinds(inStates('welded'))).toContain('notCold');
    expect(kinds(lodd)).not.toContain('notCold');
    const estate = verificationBoard(Job.of(demoRows('solbris')));
    expect(estate.beforeFinal.map(({ kind }) => kind)).toEqual(
      expect.arrayContaining(['bracesIn', 'closeOut', 'notCold']),
    );
    expect(estate.beforeFinal.map(beforeFinalText).join(' ')).toMatch(/X1, X2 and X3 still hold it/);
    expect(estate.welding).toBe(false);
  });

  it('tells what the welding in between was expected to do, beside what was found', () => {
    const row = board.rows.find(({ dimension }) => dimension.code === 'NW1')!;
    const { expected, change } = row.cells[1]!;
    // Its ends are drawn together: shorter, and by about what was found.
    expect(expected!.high).toBeLessThan(0);
    expect(change!.by + change!.plusMinus).toBeGreaterThan(expected!.low);
    expect(row.cells[0]!.expected).toBeUndefined();
    const open = verificationBoard(Job.of({ ...lodd, logSubjects: [] }));
    const said = open.call!.reasons.map((each) => reasonText(each, lengths)).join(' ');
    expect(said).toMatch(/What was welded before it was expected to do -\d+\.\d to -\d+\.\d: that explains it/);
    expect(expectedText({ low: -0.4, usual: -0.2, high: -0.1 }, { by: -2, plusMinus: 0.5 }, lengths)).toMatch(
      /something else/,
    );
  });

  it('expects of what was laid half before a round half of it, and nothing of what was laid before both', () => {
    const cells = (rows: JobRows) =>
      verificationBoard(Job.of(rows))
        .rows.find(({ dimension }) => dimension.code === 'NW1')!
        .cells.at(-1)!.expected;
    const [flange] = lodd.weldSeams.filter(({ firstPointId }) => firstPointId !== null);
    const own = lodd.workEvents.filter(({ itemId }) => itemId === flange!.id);
    const half = own.filter((_, i) => i % 2 === 0);
    const without = lodd.workEvents.filter((each) => each.itemId !== flange!.id);
    const whole = cells(lodd)!;
    expect(cells({ ...lodd, workEvents: [...without, ...half] })!.usual).toBeCloseTo(whole.usual / 2, 1);
    const early = own.map((each) => ({ ...each, at: '2026-09-01T08:00:00.000Z' }));
    expect(cells({ ...lodd, workEvents: [...without, ...early] })).toBeUndefined();
  });

  it('wants it read off the bench and its axles read, last of all', () => {
    const kinds = (rows: JobRows) => verificationBoard(Job.of(rows)).beforeFinal.map(({ kind }) => kind);
    expect(kinds(lodd)).toEqual([]);
    expect(kinds({ ...lodd, removalChecks: [], removalReadings: [] })).toEqual(['onBench']);
    expect(kinds({ ...lodd, axleReadings: [] })).toEqual(['axlesUnread']);
    const sentences = axleSentences(board.axles!.axles, { ...lengths, unit: 'mm' }).join(' ');
    expect(sentences).toMatch(/left wheelbase is 1.5 mm .* against the right one: inside.*stands square/);
  });
});
