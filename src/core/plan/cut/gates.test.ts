import { describe, expect, it } from 'vitest';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { WorkEvent } from '@/core/shell/job/entities';
import { Cutting, leftSideOut } from '../../../../tests/support/cutting';
import { cutModel } from './cut-model';
import { gatesBefore, type GateKey } from './gates';
import { stageState } from './stages';

const gates = (rows: JobRows, stage = 0) => {
  const job = Job.of(rows);
  const all = gatesBefore(job, cutModel(job)!, stage);
  return (key: GateKey) => all.find((gate) => gate.key === key);
};

const event = (itemId: string, kind: WorkEvent['kind'], key: string, reason = ''): WorkEvent => ({
  ...{ id: `${itemId} ${kind} ${key}`, itemId, kind, key, reason, value: null },
  ...{ at: '2026-11-24T08:00:00.000Z', author: 'Nils', personId: null },
});

describe('before metal comes out', () => {
  it('sees what was measured, what the openings are, and what of the panel is not recorded', () => {
    const of = gates(leftSideOut().rows);
    expect(of('asFound')).toMatchObject({ state: 'done', byHand: false });
    expect(of('openings')!.open.length).toBeGreaterThan(0);
    expect(of('references')!.open).toEqual(expect.arrayContaining(['S2L']));
    expect(of('stress')).toBeUndefined();
  });

  it('waits for the braces of this stage, and not for those of a later one', () => {
    const cutting = leftSideOut().brace('X1', 'A2L', 'B2L').brace('X2', 'A2L', 'B1L', { stageInId: 'floor' });
    expect(gates(cutting.rows)('braces')!.open).toEqual(['X1']);
    const fitted = { ...cutting.rows, workEvents: [event('X1', 'fitted', '')] };
    expect(gates(fitted)('braces')).toMatchObject({ state: 'done', open: [] });
    expect(gates(fitted, 1)('braces')!.open).toEqual(['X2']);
    // Fitted, but nobody measured since.
    expect(gates(fitted)('braced')).toMatchObject({ state: 'open' });
  });

  it('wants every cut line read back, within a scriber’s width', () => {
    const { rows } = leftSideOut();
    const line = (label: string, readBack: number | null) => ({
      ...{ id: label, panelId: 'left sill', label, edge: 'post', distance: 42, readBack, kerf: null, gap: null },
    });
    const cutLines = [line('A', 42.5), line('B', 45), line('C', null)];
    expect(gates({ ...rows, cutLines })('cutLines')!.open).toEqual(['B', 'C']);
  });

  it('says which mounts stand on what goes, where fewer than three are left', () => {
    const onSill = leftSideOut().stoodOn('S1R', 'S2L', 'S3L', 'S3R');
    expect(gates(onSill.rows)('support')!.open).toEqual(['S2L', 'S3L']);
    expect(gates(leftSideOut().stoodOn('F4L', 'F4R', 'C1L', 'C1R').rows)('support')!.state).toBe('done');
  });

  it('questions a second side while the first is open, and not once new metal is in', () => {
    const both = leftSideOut().stage('right').panel('right sill', 'right', ['S1R-S2R'], [], { side: 'right' });
    expect(gates(both.rows, 2)('oneSide')!.open).toEqual(['left', 'right']);
    const closed = { ...both.rows, workEvents: [event('sill', 'fitted', ''), event('floor', 'fitted', '')] };
    expect(gates(closed, 2)('oneSide')!.open).toEqual([]);
  });

  it('is ticked by hand, or passed over for a reason that is kept', () => {
    const { rows } = leftSideOut();
    const told = gates({
      ...rows,
      workEvents: [event('sill', 'ticked', 'tank'), event('sill', 'passed', 'openings', 'held wrong until the pull')],
    });
    expect(told('tank')).toMatchObject({ state: 'done', byHand: true, last: { author: 'Nils' } });
    expect(told('openings')).toMatchObject({ state: 'passed', last: { reason: 'held wrong until the pull' } });
    expect(told('glass')).toMatchObject({ state: 'open' });
  });

  it('asks to cut in short lengths where the metal was hit', () => {
    const hit = new Cutting().stage('leg').panel('leg end', 'leg', ['R1L-R4L 2'], [], { stressed: true });
    expect(gates(hit.rows)('stress')).toMatchObject({ state: 'open', byHand: true });
  });

  it('knows a stage whose metal is out, and one with new metal in', () => {
    const { rows } = leftSideOut();
    const at = (...workEvents: WorkEvent[]) => stageState(Job.of({ ...rows, workEvents }), 'sill');
    expect(at()).toBe('planned');
    expect(at(event('sill', 'removed', ''))).toBe('out');
    expect(at(event('sill', 'removed', ''), event('sill', 'fitted', ''))).toBe('in');
  });
});
