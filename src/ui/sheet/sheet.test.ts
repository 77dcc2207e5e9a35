import { createElement } from 'react';
import { describe, expect, it, vi } from 'vitest';
import type { SheetFigure, SheetPoint } from '@/core/report/drawing/points';
import { rendered, textOf } from '../../../tests/support/render';
import { Sheet, type SheetDrawing, type SheetProps } from './sheet';

vi.mock('next/navigation', () => ({ useRouter: () => ({ refresh: () => undefined }) }));

const point = (code: string, at: SheetPoint['position'], more: Partial<SheetPoint> = {}): SheetPoint => ({
  id: code,
  code,
  name: code,
  position: at,
  control: false,
  ...more,
});

const figure: SheetFigure = {
  points: [
    point('F1L', [0, -400, 300], { verdict: 'inside', movement: [0.2, 0, 0], control: true }),
    point('F1R', [0, 400, 300], { verdict: 'undecided', movement: [2, 1, 0] }),
    point('R4L', [3240, -430, 345], { verdict: 'outside', movement: [-14, 6, 9] }),
    point('R4R', [3240, 430, 345]),
  ],
  lines: [
    [
      [0, -400, 300],
      [3240, -430, 345],
    ],
  ],
};

const drawn = ({
  selected,
  zoom,
  ...more
}: Partial<SheetDrawing> & Pick<SheetProps, 'selected' | 'zoom'> = {}): string =>
  rendered(createElement(Sheet, { drawn: { figure, factor: 20, title: ['Solbris'], ...more }, selected, zoom }));
const count = (text: string, part: string): number => text.split(part).length - 1;

describe('the sheet as it is drawn', () => {
  it('has every point in plan, side and end view, and says its factor', () => {
    const svg = drawn();
    for (const code of ['F1L', 'F1R', 'R4L', 'R4R']) expect(count(svg, `data-point="${code}"`)).toBe(3);
    expect(svg).toContain('movements drawn 20 times as large');
  });

  it('rules the side view in the unit chosen, in round numbers', () => {
    const ruler = (units: 'mm' | 'in16') =>
      [
        ...rendered(createElement(Sheet, { drawn: { figure, factor: 20, title: [] } }), { units }).matchAll(
          /text-anchor="middle"[^]*?<\/g>/g,
        ),
      ]
        .map(([text]) =>
          textOf(text)
            .replace(/^[^>]*>/, '')
            .trim(),
        )
        .join(' ');
    expect(ruler('mm')).toMatch(/\b500 1000 1500 .*mm$/);
    expect(ruler('in16')).toMatch(/\b20 40 60 .*in$/);
  });

  it('draws a movement only where it is not inside, in one of two tones', () => {
    const svg = drawn();
    // The whiskers of two points in three views and the key of the title block.
    expect(count(svg, 'stroke="var(--plus)"') + count(svg, 'stroke="var(--minus)"')).toBe(2 * 3 + 2);
  });

  it('leaves filtered points as specks without movement', () => {
    const svg = drawn({ faint: new Set(['R4L', 'F1R']) });
    expect(count(svg, 'r="1.5"')).toBe(6);
    expect(count(svg, 'stroke="var(--minus)"') + count(svg, 'stroke="var(--plus)"')).toBe(2);
  });

  it('shows where points stood in an earlier round, dashed, and names that round', () => {
    const svg = drawn({ ghost: { name: 'round 1, As found', movements: new Map([['R4L', [-10, 5, 8]]]) } });
    expect(svg).toContain('round 1, As found');
    expect(count(svg, 'stroke-dasharray="3 2"')).toBe(3 + 1);
  });

  it('keeps each enlarged view within its own frame', () => {
    expect(count(drawn({ zoom: { times: 4, focus: [3200, 0, 300] } }), 'clip-path="url(')).toBe(3);
    expect(count(drawn(), 'clip-path="url(')).toBe(0);
  });

  it('draws stations across plan and side, named in the plan', () => {
    const svg = drawn({ stations: [{ x: 2050, label: 'rear hinge', strong: true }] });
    expect(count(svg, 'rear hinge')).toBe(1);
    expect(count(svg, 'stroke-dasharray="9 3"')).toBe(2);
  });
});
