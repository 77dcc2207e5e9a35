import { Colors, DxfWriter, point3d, Units } from '@tarikjabiri/dxf';
import type { SheetFigure } from '@/core/report/drawing/points';
import { boundsOf } from '@/core/report/drawing/sheet';
import type { Vector } from '@/core/maths/geometry/vector';

const LAYERS = {
  ZERO_PLANES: Colors.Cyan,
  OUTLINE: Colors.White,
  POINTS: Colors.White,
  CONTROL: Colors.Blue,
  CODES: Colors.White,
  MOVEMENTS: Colors.Magenta,
  TITLE: Colors.White,
} as const;
/** Room between the views, mm. */
const BETWEEN = 300;
const MARK = 12;
const TEXT = 28;

type View = (position: Vector) => readonly [number, number];

/**
 * The sheet as DXF, one drawing unit a millimetre of the shell: plan above side, end beside it, so that a
 * point can be followed across; a layer each for outline, points, codes, movements and the zero planes.
 * Movements are exaggerated by the factor that the title says.
 */
export function sheetDxf(figure: SheetFigure, title: readonly string[], factor: number): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const [name, colour] of Object.entries(LAYERS)) dxf.addLayer(name, colour, 'CONTINUOUS');
  const on = (layer: keyof typeof LAYERS) => dxf.setCurrentLayerName(layer);
  const { min, max } = boundsOf(figure.points.map(({ position }) => position));
  const half = Math.max(Math.abs(min[1]), Math.abs(max[1]));
  const planAt = max[2] + half + BETWEEN;
  const endAt = max[0] + half + BETWEEN;
  const views: readonly View[] = [([x, y]) => [x, planAt + y], ([x, , z]) => [x, z], ([, y, z]) => [endAt + y, z]];
  const line = (from: readonly [number, number], to: readonly [number, number]) =>
    dxf.addLine(point3d(...from), point3d(...to));
  on('ZERO_PLANES');
  line([min[0], planAt], [max[0], planAt]);
  line([min[0], 0], [endAt + half, 0]);
  line([endAt, Math.min(0, min[2])], [endAt, max[2]]);
  for (const view of views) {
    on('OUTLINE');
    for (const [from, to] of figure.lines) line(view(from), view(to));
    for (const { code, position, movement, verdict, control } of figure.points) {
      const [x, y] = view(position);
      on(control ? 'CONTROL' : 'POINTS');
      dxf.addCircle(point3d(x, y), verdict === 'outside' ? MARK : MARK / 2);
      on('CODES');
      dxf.addText(point3d(x + MARK, y + MARK), TEXT, code);
      if (!movement) continue;
      on('MOVEMENTS');
      const moved = position.map((value, i) => value + factor * movement[i]!) as unknown as Vector;
      line([x, y], view(moved));
    }
  }
  on('TITLE');
  [...title, `movements drawn ${factor} times as large; 1 unit is 1 mm`].forEach((text, i) =>
    dxf.addText(point3d(endAt - half, planAt + half - i * TEXT * 2), TEXT * 1.4, text),
  );
  return dxf.stringify();
}
