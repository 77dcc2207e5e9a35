import { Colors, DxfWriter, point3d, Units } from '@tarikjabiri/dxf';
import type { CuttingPage } from '@/core/report/pages/cutting';
import type { Vector } from '@/core/maths/geometry/vector';

/** Room between one brace drawn for the saw and the next, mm. */
const ROW = 120;
const TEXT = 28;

/**
 * The braces as DXF, one drawing unit a millimetre: in space between their points, on a layer of their own beside the shell's
 * members; and below, each laid flat at the length it is cut to, with its code and tube, in the order they are fitted.
 */
export function braceListDxf({ braces, worked }: Pick<CuttingPage, 'braces' | 'worked'>, title: string): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  dxf.addLayer('SHELL', Colors.White, 'CONTINUOUS');
  dxf.addLayer('BRACES', Colors.Magenta, 'CONTINUOUS');
  dxf.addLayer('SAW', Colors.Cyan, 'CONTINUOUS');
  dxf.addLayer('TITLE', Colors.White, 'CONTINUOUS');
  const line = (a: Vector, b: Vector) => dxf.addLine(point3d(...a), point3d(...b));
  dxf.setCurrentLayerName('SHELL');
  for (const { from, to } of worked?.figure.shell?.members ?? []) line(from, to);
  const at = new Map(worked?.figure.points.map(({ id, position }) => [id, position]) ?? []);
  dxf.setCurrentLayerName('BRACES');
  for (const { brace } of braces) {
    const [a, b] = [at.get(brace.fromPointId), at.get(brace.toPointId)];
    if (a && b) line(a, b);
  }
  braces.forEach(({ brace, sawn, from, to }, i) => {
    if (sawn === undefined) return;
    const y = -1500 - i * ROW;
    dxf.setCurrentLayerName('SAW');
    line([0, y, 0], [sawn, y, 0]);
    for (const x of [0, sawn]) line([x, y - 15, 0], [x, y + 15, 0]);
    dxf.addText(point3d(0, y + 20), TEXT, `${brace.code}  ${from} - ${to}  ${sawn.toFixed(1)}  ${brace.section}`);
  });
  dxf.setCurrentLayerName('TITLE');
  dxf.addText(point3d(0, -1500 + 2 * ROW), TEXT * 1.4, title);
  return dxf.stringify();
}
