import { diagonalsOf, lineBetween, localAxes, type Member, type NodeVector, type ShellFrame } from './shell-frame';

/** Takes an element of the whole stiffness matrix between two freedoms, each its node's number times six and its own. */
export type TakeElement = (i: number, j: number, value: number) => void;

/** Gives every element that every part of a frame adds to its stiffness matrix, both triangles, fixed freedoms too. */
export function eachElement(frame: ShellFrame, take: TakeElement): void {
  for (const member of frame.members) giveMember(take, frame, member);
  for (const { from, to, A, E } of frame.struts)
    giveBar(take, frame, from, to, (E * A) / lineBetween(frame, from, to).length);
  for (const panel of frame.panels)
    for (const { from, to, stiffness } of diagonalsOf(frame, panel)) giveBar(take, frame, from, to, stiffness);
}

/** The forces that all parts ask of their nodes when these are displaced: K·u, N and N·mm. */
export function forcesOf(frame: ShellFrame, moved: NodeVector): NodeVector {
  const forces = new Float64Array(moved.length);
  eachElement(frame, (i, j, value) => {
    forces[i]! += value * moved[j]!;
  });
  return forces;
}

/** A pin-ended bar: k·b·bᵀ along its line. */
function giveBar(take: TakeElement, frame: ShellFrame, from: number, to: number, stiffness: number): void {
  const { along } = lineBetween(frame, from, to);
  for (let r = 0; r < 3; r++)
    for (let c = 0; c < 3; c++) {
      const k = stiffness * along[r]! * along[c]!;
      take(6 * from + r, 6 * from + c, k);
      take(6 * to + r, 6 * to + c, k);
      take(6 * from + r, 6 * to + c, -k);
      take(6 * to + r, 6 * from + c, -k);
    }
}

/** A beam: its local stiffness turned into the axes of the frame. */
function giveMember(take: TakeElement, frame: ShellFrame, member: Member): void {
  const k = globalStiffness(frame, member);
  const ends = [member.from, member.to];
  for (let r = 0; r < 12; r++)
    for (let c = 0; c < 12; c++)
      take(6 * ends[r < 6 ? 0 : 1]! + (r % 6), 6 * ends[c < 6 ? 0 : 1]! + (c % 6), k[12 * r + c]!);
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

function globalStiffness(frame: ShellFrame, member: Member): Float64Array {
  const { length, along } = lineBetween(frame, member.from, member.to);
  const axes = localAxes(along);
  const local = localStiffness(member, length);
  // Tᵀ k T, block by block of three: T has the local axes for rows.
  const half = new Float64Array(144);
  const whole = new Float64Array(144);
  for (let r = 0; r < 12; r++)
    for (let block = 0; block < 12; block += 3)
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (let i = 0; i < 3; i++) sum += local[12 * r + block + i]! * axes[i]![c]!;
        half[12 * r + block + c] = sum;
      }
  for (let block = 0; block < 12; block += 3)
    for (let r = 0; r < 3; r++)
      for (let c = 0; c < 12; c++) {
        let sum = 0;
        for (let i = 0; i < 3; i++) sum += axes[i]![r]! * half[12 * (block + i) + c]!;
        whole[12 * (block + r) + c] = sum;
      }
  return whole;
}
