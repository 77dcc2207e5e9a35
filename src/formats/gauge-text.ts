import type { LengthUnit } from '@/core/maths/units/length';
import { partCheck, partHole, type PartCheck, type PartHole } from '@/core/shell/job/entities';
import { parseShape, type Fault } from './faults';
import { lengthOf, linesOf } from './typed-lines';

/** What a line of a part's holes says, in this order; the play of the bolt may be left out. */
export const HOLE_COLUMNS = ['hole', 'along', 'across', 'up', 'play'];
/** What a line taped on the part itself says. */
export const CHECK_COLUMNS = ['hole', 'hole', 'length'];

/** Play of a bolt in its hole where none is typed, mm. */
const USUAL_PLAY = 0.5;

/** What is known of the part: its own identity, and the holes it has already, which keep theirs. */
interface KnownPart {
  readonly id: string;
  readonly holes: readonly PartHole[];
}

/**
 * Reads the holes of a part as people write them down, one a line: `1; 0; -410; 20; 0.4`, in axes of the part's own. A
 * hole keeps its identity by its name.
 */
export function readHoles(
  text: string,
  unit: LengthUnit,
  part: KnownPart,
  newId: () => string,
): { readonly holes: PartHole[]; readonly faults: Fault[] } {
  const faults: Fault[] = [];
  const holes = linesOf(text, 'holes', faults).flatMap((line): PartHole[] => {
    const before = faults.length;
    const code = line.cells[0] ?? '';
    const known = part.holes.find((hole) => hole.code.toLowerCase() === code.toLowerCase());
    const [x, y, z] = ['along', 'across', 'up'].map((what, k) => lengthOf(line, k + 1, what, unit)) as [
      number,
      number,
      number,
    ];
    const clearance = line.cells[4] ? lengthOf(line, 4, 'play', unit) : USUAL_PLAY;
    const shape = parseShape(partHole, { id: known?.id ?? newId(), gaugePartId: part.id, code, x, y, z, clearance });
    if (!shape.ok && faults.length === before)
      shape.faults.forEach(({ path, message }) => line.fault(`${path}: ${message}`));
    return shape.ok && faults.length === before ? [shape.value] : [];
  });
  const codes = holes.map(({ code }) => code.toLowerCase());
  const twice = codes.find((code, i) => codes.indexOf(code) !== i);
  if (twice) faults.push({ path: 'holes', message: `hole “${twice}” stands here twice` });
  return { holes, faults };
}

/** Reads lengths taped between two holes of the part itself, one a line: `1; 2; 820.5`. */
export function readChecks(
  text: string,
  unit: LengthUnit,
  part: KnownPart,
  newId: () => string,
): { readonly checks: PartCheck[]; readonly faults: Fault[] } {
  const faults: Fault[] = [];
  const checks = linesOf(text, 'checks', faults).flatMap((line): PartCheck[] => {
    const before = faults.length;
    const [from, to] = [0, 1].map((k) => {
      const code = line.cells[k] ?? '';
      const hole = part.holes.find((each) => each.code.toLowerCase() === code.toLowerCase());
      if (!hole) line.fault(`the part has no hole “${code}”`);
      return hole;
    });
    const value = lengthOf(line, 2, 'length', unit);
    if (!from || !to || faults.length > before) return [];
    if (from === to) line.fault('a hole to itself has no length');
    const shape = parseShape(partCheck, {
      id: newId(),
      gaugePartId: part.id,
      fromHoleId: from.id,
      toHoleId: to.id,
      value,
    });
    if (!shape.ok) shape.faults.forEach(({ path, message }) => line.fault(`${path}: ${message}`));
    return shape.ok && faults.length === before ? [shape.value] : [];
  });
  return { checks, faults };
}

export const holesText = (holes: readonly PartHole[], length: (mm: number) => string): string =>
  holes.map(({ code, x, y, z, clearance }) => [code, ...[x, y, z, clearance].map(length)].join('; ')).join('\n');

export function checksText(checks: readonly PartCheck[], holes: readonly PartHole[], length: (mm: number) => string) {
  const code = new Map(holes.map((hole) => [hole.id, hole.code]));
  return checks
    .map((each) => [code.get(each.fromHoleId), code.get(each.toHoleId), length(each.value)].join('; '))
    .join('\n');
}
