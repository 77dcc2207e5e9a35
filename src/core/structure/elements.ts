import { diagonalsOf, lineBetween, localAxes, type Member, type NodeVector, type ShellFrame } from './shell-frame';

/** Takes the block between two nodes, 6 × 6 row major, the first's freedoms down and the second's across. It is not to be kept. */
export type TakeBlock = (a: number, b: number, block: Float64Array) => void;

/**
 * Gives every block that every part of a frame adds to its stiffness matrix, fixed freedoms too: that of a node with itself whole,
 * that between two nodes one way round.
 */
export function eachBlock(frame: ShellFrame, take: TakeBlock): void {
  const block = new Float64Array(36);
  for (const member of frame.members) giveMember(take, frame, member, block);
  for (const { from, to, A, E } of frame.struts)
    giveBar(take, frame, from, to, (E * A) / lineBetween(frame, from, to).length, block);
  for (const panel of frame.panels)
    for (const { from, to, stiffness } of diagonalsOf(frame, panel)) giveBar(take, frame, from, to, stiffness, block);
}

/** The forces that all parts ask of their nodes when these are displaced: K·u, N and N·mm. */
export function forcesOf(frame: ShellFrame, moved: NodeVector): NodeVector {
  const forces = new Float64Array(moved.length);
  eachBlock(frame, (a, b, block) => {
    for (let r = 0; r < 6; r++)
      for (let c = 0; c < 6; c++) {
        const value = block[6 * r + c]!;
        forces[6 * a + r]! += value * moved[6 * b + c]!;
        if (a !== b) forces[6 * b + c]! += value * moved[6 * a + r]!;
      }
  });
  return forces;
}

/** A pin-ended bar: k·b·bᵀ along its line. */
function giveBar(
  take: TakeBlock,
  frame: ShellFrame,
  from: number,
  to: number,
  stiffness: number,
  block: Float64Array,
): void {
  const { along } = lineBetween(frame, from, to);
  const fill = (k: number) => {
    for (let r = 0; r < 3; r++) for (let c = 0; c < 3; c++) block[6 * r + c] = k * along[r]! * along[c]!;
  };
  block.fill(0);
  fill(stiffness);
  take(from, from, block);
  take(to, to, block);
  fill(-stiffness);
  take(from, to, block);
}

/** A beam's shifts, its turns at one end and between the two, and how they are coupled: 3 × 3 each. */
const PARTS = new Float64Array(36);

/**
 * A beam, in the axes of the frame. In its own axes x, y, z its shifts resist S = EA/L along x, 12EI_z/L³ along y and 12EI_y/L³ along z,
 * its turns T = GJ/L about x, 4EI/L about y and z, half of that and −GJ/L towards the other end, and shift and turn are coupled by
 * C = 6EI_z/L² between y and z and −6EI_y/L² between z and y: turned, each is a sum of products of the three axes.
 */
function giveMember(take: TakeBlock, frame: ShellFrame, member: Member, block: Float64Array): void {
  const { from, to, E, G, A, Iy, Iz, J } = member;
  const { length, along } = lineBetween(frame, from, to);
  const [x, y, z] = localAxes(along);
  const [bendZ, bendY, twist] = [(E * Iz) / length, (E * Iy) / length, (G * J) / length];
  const [alongX, alongY, alongZ] = [(E * A) / length, (12 * bendZ) / length ** 2, (12 * bendY) / length ** 2];
  const [coupleYZ, coupleZY] = [(6 * bendZ) / length, (-6 * bendY) / length];
  for (let r = 0, i = 0; r < 3; r++)
    for (let c = 0; c < 3; c++, i++) {
      const [xx, yy, zz] = [x[r]! * x[c]!, y[r]! * y[c]!, z[r]! * z[c]!];
      const [aboutY, aboutZ] = [bendY * yy, bendZ * zz];
      PARTS[i] = alongX * xx + alongY * yy + alongZ * zz;
      PARTS[9 + i] = twist * xx + 4 * (aboutY + aboutZ);
      PARTS[18 + i] = 2 * (aboutY + aboutZ) - twist * xx;
      PARTS[27 + i] = coupleYZ * y[r]! * z[c]! + coupleZY * z[r]! * y[c]!;
    }
  /** Signs of shift with shift, shift with turn and turn with shift; where what turns say to each other stands. */
  const fill = (shifts: number, couples: number, back: number, turns: number) => {
    for (let r = 0, i = 0; r < 3; r++)
      for (let c = 0; c < 3; c++, i++) {
        block[6 * r + c] = shifts * PARTS[i]!;
        block[6 * r + c + 21] = PARTS[turns + i]!;
        block[6 * r + c + 3] = couples * PARTS[27 + i]!;
        block[6 * c + r + 18] = back * PARTS[27 + i]!;
      }
  };
  fill(1, 1, 1, 9);
  take(from, from, block);
  fill(1, -1, -1, 9);
  take(to, to, block);
  fill(-1, 1, -1, 18);
  take(from, to, block);
}

/**
 * Stiffness of an Euler–Bernoulli beam in its own axes, 12 × 12 row major: shifts and turns of its beginning, then of its end
 * (e.g. Przemieniecki, Theory of Matrix Structural Analysis, §5.6, without shear).
 */
export function localStiffness(
  { E, G, A, Iy, Iz, J }: Omit<Member, 'id' | 'from' | 'to'>,
  length: number,
): Float64Array {
  const k = new Float64Array(144);
  const put = (r: number, c: number, value: number) => {
    k[12 * r + c] = value;
    k[12 * c + r] = value;
  };
  const spring = (r: number, c: number, value: number) => {
    put(r, r, value);
    put(c, c, value);
    put(r, c, -value);
  };
  spring(0, 6, (E * A) / length);
  spring(3, 9, (G * J) / length);
  // Bending in the plane of y about z, and in that of z about y: there a positive turn lowers the end.
  for (const [shift, turn, I, sign] of [
    [1, 5, Iz, 1],
    [2, 4, Iy, -1],
  ] as const) {
    const b = (E * I) / length;
    spring(shift, shift + 6, (12 * b) / length ** 2);
    put(turn, turn, 4 * b);
    put(turn + 6, turn + 6, 4 * b);
    put(turn, turn + 6, 2 * b);
    for (const end of [turn, turn + 6]) {
      put(shift, end, (sign * 6 * b) / length);
      put(shift + 6, end, (-sign * 6 * b) / length);
    }
  }
  return k;
}
