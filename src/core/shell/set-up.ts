import { motion, type Matrix3, type Motion } from '../maths/geometry/vector';
import type { SetUp } from './job/entities';

const RADIANS = Math.PI / 180;

/**
 * How a shell is planned to stand on its bench: chart axes into bench axes. Its turns about X, Y and Z, degrees, are taken
 * in this order, R = Rz·Ry·Rx: half a turn about Z is a shell that faces the other way.
 */
export function placementOf({
  x,
  y,
  z,
  turnX,
  turnY,
  turnZ,
}: Pick<SetUp, 'x' | 'y' | 'z' | 'turnX' | 'turnY' | 'turnZ'>): Motion<'chart', 'bench'> {
  const [a, b, c] = [turnX * RADIANS, turnY * RADIANS, turnZ * RADIANS];
  const [ca, sa, cb, sb, cc, sc] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b), Math.cos(c), Math.sin(c)];
  const rotation: Matrix3 = [
    [cc * cb, cc * sb * sa - sc * ca, cc * sb * ca + sc * sa],
    [sc * cb, sc * sb * sa + cc * ca, sc * sb * ca - cc * sa],
    [-sb, cb * sa, cb * ca],
  ];
  return motion(rotation, [x, y, z]);
}
