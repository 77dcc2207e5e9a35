import { createElement } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import type { Fault } from '@/formats/faults';
import { rendered, textOf } from '../../../tests/support/render';
import { KindFields } from './kind-fields';
import { FIELDS, KINDS, readMaking, type Fields, type Kind } from './reference-form';

vi.mock('next/navigation', () => ({ useRouter: () => ({ push: () => undefined, refresh: () => undefined }) }));

const rows = demoRows('solbris');
const idOf = (code: string) => rows.points.find((point) => point.code === code)!.id;
const read = (kind: Kind, fields: Partial<Fields>, unit: 'mm' | 'in' = 'mm') => {
  const faults: Fault[] = [];
  return { of: readMaking({ ...FIELDS, ...fields }, kind, rows.points, unit, faults), faults };
};
/** Fields as a form registers them, with a fault at one of them. */
const field = (faulty?: keyof Fields) => (name: keyof Fields) => ({
  ...{ name, onChange: async () => undefined, onBlur: async () => undefined, ref: () => undefined },
  error: name === faulty ? 'no point "Q9"' : undefined,
});

describe('a reference made by hand', () => {
  it('of an agreed change takes points in any case and offsets in the user’s unit', () => {
    const { of, faults } = read('plannedChange', { points: 'r4l, R4R;s1L', x: '1/2', y: '0', z: '-1' }, 'in');
    expect(faults).toEqual([]);
    expect(of).toEqual({
      kind: 'plannedChange',
      pointIds: ['R4L', 'R4R', 'S1L'].map(idOf),
      offset: [12.7, 0, -25.4],
    });
  });

  it('says of each field what makes no sense', () => {
    expect(read('plannedChange', { points: 'R4L Q9', x: 'wide', y: '0', z: '0' }).faults).toEqual([
      { path: 'points', message: 'no point "Q9"' },
      { path: 'x', message: expect.stringContaining('"wide" is not a length') },
    ]);
  });

  it('of a kept part is trusted to half the ± that was typed', () => {
    expect(read('keptPart', { figures: 'CL1 1060', trust: '2' }).of).toMatchObject({ trust: 1, unit: 'mm' });
  });

  it('of sister cars takes those that are ticked and the points they are brought together through', () => {
    const { of } = read('sisterCar', { sisters: ['first', 'second'], through: 'F2L F2R S1L' });
    expect(of).toMatchObject({ roundIds: ['first', 'second'], through: ['F2L', 'F2R', 'S1L'].map(idOf) });
  });

  it('asks for what its kind needs, and says where there is no sister car yet', () => {
    const asked = (kind: Kind) => textOf(rendered(createElement(KindFields, { rows, kind, field: field() })));
    expect(KINDS.filter((kind) => asked(kind).includes('Figures, one a line'))).toEqual(['keptPart', 'chart']);
    expect(KINDS.filter((kind) => asked(kind).includes('1. As found'))).toEqual(['mirroredSide', 'earlierRound']);
    expect(asked('sisterCar')).toContain('No round of a sister car is here yet');
    const html = rendered(createElement(KindFields, { rows, kind: 'plannedChange', field: field('points') }));
    expect(textOf(html)).toMatch(/no point ("|&quot;)Q9/);
  });
});
