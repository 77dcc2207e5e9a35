import type { SheetFigure } from '@/core/report/drawing/points';

/**
 * Points and outline as PLY (ASCII 1.0): a vertex a point with its reference position, its deviation and
 * whether it has one, millimetres in chart axes; edges between the vertices of the outline.
 */
export function pointsPly({ points, lines }: SheetFigure): string {
  const indexAt = new Map(points.map(({ position }, i) => [position.join(), i]));
  const edges = lines.flatMap(([from, to]) => {
    const [a, b] = [indexAt.get(from.join()), indexAt.get(to.join())];
    return a === undefined || b === undefined ? [] : [`${a} ${b}`];
  });
  const figure = (value: number) => String(Math.round(value * 1000) / 1000);
  return [
    'ply',
    'format ascii 1.0',
    'comment millimetres; x rearward, y to the right, z up; dx dy dz measured minus reference',
    ...points.map(({ code }, i) => `comment vertex ${i} ${code}`),
    `element vertex ${points.length}`,
    ...['x', 'y', 'z', 'dx', 'dy', 'dz'].map((name) => `property float ${name}`),
    'property uchar judged',
    `element edge ${edges.length}`,
    'property int vertex1',
    'property int vertex2',
    'end_header',
    ...points.map(
      ({ position, movement }) =>
        [...position, ...(movement ?? [0, 0, 0])].map(figure).join(' ') + (movement ? ' 1' : ' 0'),
    ),
    ...edges,
    '',
  ].join('\n');
}
