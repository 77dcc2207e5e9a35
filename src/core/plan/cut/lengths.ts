import type { Vector } from '../../maths/geometry/vector';
import type { Job } from '../../shell/job/job';
import { BODIES } from '../../shell/bodies';
import type { CriticalLength } from '../../structure/slack';
import { nearestNode, type JobStructure } from './structure-of';

/** A length that must not change, and what it is called. */
export interface NamedLength extends CriticalLength {
  /** Of a dimension its own, else the codes of its ends; its name where they have none. */
  readonly code: string;
  readonly name: string;
  /** It is a dimension of the job's; absent where it stands across an opening of the body's picture. */
  readonly dimensionId?: string;
}

/** So far a length may give under the hand where nothing tighter is asked, mm. */
export const SLACK_LIMIT = 0.5;
/** With fewer dimensions than these the openings of the body's picture are looked at too. */
const ENOUGH = 3;
/** So near a node stands where the picture has a corner, mm. */
const AT_CORNER = 60;

/** The lengths that cuts must not set free: the job's dimensions and, where there are few, the diagonals of its openings. */
export function criticalLengths(job: Job, structure: JobStructure): NamedLength[] {
  const { model } = structure;
  const nodeOf = new Map(model.nodes.flatMap(({ pointId }, i) => (pointId === null ? [] : [[pointId, i] as const])));
  const limits = job.references.dimensions;
  const own = job.rows.dimensions.flatMap((dimension): NamedLength[] => {
    const [from, to] = [nodeOf.get(dimension.fromPointId), nodeOf.get(dimension.toPointId)];
    if (from === undefined || to === undefined) return [];
    const tolerance = limits.get(dimension.id)?.row.tolerance ?? SLACK_LIMIT;
    const { id, code, name } = dimension;
    return [{ id, code, name, from, to, limit: Math.min(SLACK_LIMIT, tolerance), dimensionId: id }];
  });
  return own.length >= ENOUGH ? own : [...own, ...acrossOpenings(structure)];
}

/** Corners of a floor, whichever of them a body has. */
const FLOORS = [
  ['S1', 'S3'],
  ['P2', 'P4'],
] as const;

/** Both diagonals of every opening and of the floor; of one with posts the length from post to post half way up, too. */
function acrossOpenings({ model, body }: JobStructure): NamedLength[] {
  if (!body) return [];
  const { places, openings } = BODIES[body.type];
  const placeOf = new Map(places.map((place) => [place.code, place.at]));
  const nodeAt = (code: string): number | undefined => {
    const wanted = body.morph.carry(placeOf.get(code)!);
    const node = nearestNode(model, wanted);
    const off = model.nodes[node]!.at.map((value, k) => value - wanted[k]!);
    return Math.hypot(...off) < AT_CORNER ? node : undefined;
  };
  const floors = FLOORS.filter(([front]) => placeOf.has(`${front}L`)).map(([front, rear]) => ({
    ...{ name: 'Floor', corners: [`${front}L`, `${rear}L`, `${rear}R`, `${front}R`] },
  }));
  return [...openings, ...floors].flatMap(({ name: opening, corners }) =>
    across(corners.map((code) => ({ code, at: placeOf.get(code)! }))).flatMap(([a, b, which]): NamedLength[] => {
      const [from, to] = [nodeAt(a), nodeAt(b)];
      if (from === undefined || to === undefined || from === to) return [];
      const name = `${onItsSide(opening, corners)}, ${which}`;
      const ends = [from, to].map((node) => model.nodes[node]!);
      // Where nothing is measured yet there are no codes anybody would know.
      const code = ends.every(({ pointId }) => pointId !== null) ? ends.map((end) => end.code).join('–') : name;
      return [{ id: `${opening} ${a} ${b}`, code, name, from, to, limit: SLACK_LIMIT }];
    }),
  );
}

/** `Left door` of an opening whose corners are all on the left. */
function onItsSide(opening: string, corners: readonly string[]): string {
  const side = (['left', 'right'] as const).find((each) =>
    corners.every((code) => code.endsWith(each === 'left' ? 'L' : 'R')),
  );
  return side ? `${side === 'left' ? 'Left' : 'Right'} ${opening.toLowerCase()}` : opening;
}

/**
 * From which corner to which an opening is held: the corner farthest out each of the four ways, seen along the axis it is
 * thinnest in, to the one opposite; where each side has more than two corners, from half way up the one to half way up the other.
 */
function across(corners: readonly Corner[]): (readonly [from: string, to: string, which: string])[] {
  const least = [0, 1, 2].map((k) => Math.min(...corners.map(({ at }) => at[k]!)));
  const span = [0, 1, 2].map((k) => Math.max(1, Math.max(...corners.map(({ at }) => at[k]!)) - least[k]!));
  const thin = span.indexOf(Math.min(...span));
  const [u, v] = [0, 1, 2].filter((k) => k !== thin) as [number, number];
  const within = ({ at }: Corner, k: number) => (at[k]! - least[k]!) / span[k]!;
  const farthest = (su: number, sv: number) =>
    corners.reduce((best, each) => {
      const value = (corner: Corner) => su * within(corner, u) + sv * within(corner, v);
      return value(each) > value(best) ? each : best;
    });
  const diagonals = [
    [farthest(-1, -1).code, farthest(1, 1).code, 'one diagonal'],
    [farthest(1, -1).code, farthest(-1, 1).code, 'other diagonal'],
  ] as const;
  if (corners.length <= 4) return [...diagonals];
  const halfWay = (side: number) =>
    corners.reduce((best, each) => {
      const off = (corner: Corner) => Math.abs(within(corner, u) - side) + Math.abs(within(corner, v) - 0.5);
      return off(each) < off(best) ? each : best;
    });
  return [...diagonals, [halfWay(0).code, halfWay(1).code, 'from post to post']];
}

interface Corner {
  readonly code: string;
  readonly at: Vector;
}
