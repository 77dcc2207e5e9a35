import { createElement } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import { rendered, textOf } from '../../../tests/support/render';
import { KindFields } from './kind-fields';
import { KINDS, readReferenceForm, type Kind } from './reference-form';

vi.mock('next/navigation', () => ({ useRouter: () => ({ push: () => undefined, refresh: () => undefined }) }));

const rows = demoRows('solbris');
const idOf = (code: string) => rows.points.find((point) => point.code === code)!.id;
const read = (kind: Kind, fields: Readonly<Record<string, string>>, unit: 'mm' | 'in' = 'mm') => {
  const form = new FormData();
  for (const [field, text] of Object.entries({ name: 'A reference', source: '', ...fields })) form.set(field, text);
  return readReferenceForm(form, kind, rows.points, unit);
};

describe('a reference made by hand', () => {
  it('of an agreed change takes points in any case and offsets in the user’s unit', () => {
    const { value, faults } = read('plannedChange', { points: 'r4l, R4R;s1L', x: '1/2', y: '', z: '-1' }, 'in');
    expect(faults).toEqual([]);
    expect(value.of).toEqual({
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
    expect(read('keptPart', { figures: 'CL1 1060', trust: '2' }).value.of).toMatchObject({ trust: 1, unit: 'mm' });
  });

  it('of sister cars takes those that are ticked and the points they are brought together through', () => {
    const form = new FormData();
    for (const id of ['first', 'second']) form.append('sister', id);
    form.set('through', 'F2L F2R S1L');
    const { value } = readReferenceForm(form, 'sisterCar', rows.points, 'mm');
    expect(value.of).toMatchObject({ roundIds: ['first', 'second'], through: ['F2L', 'F2R', 'S1L'].map(idOf) });
  });

  it('asks for what its kind needs, and says where there is no sister car yet', () => {
    const asked = (kind: Kind) => textOf(rendered(createElement(KindFields, { rows, kind, faults: [] })));
    expect(KINDS.filter((kind) => asked(kind).includes('Figures, one a line'))).toEqual(['keptPart', 'chart']);
    expect(KINDS.filter((kind) => asked(kind).includes('1. As found'))).toEqual(['mirroredSide', 'earlierRound']);
    expect(asked('sisterCar')).toContain('No round of a sister car is here yet');
    const fault = { path: 'points', message: 'no point "Q9"' };
    const html = rendered(createElement(KindFields, { rows, kind: 'plannedChange', faults: [fault] }));
    expect(textOf(html)).toMatch(/no point ("|&quot;)Q9/);
  });
});
