import type { Job } from '../../shell/job/job';
import { BODIES } from '../../shell/bodies';
import type { CriticalLength } from '../../structure/slack';
import { nearestNode, type JobStructure } from './structure-of';

/** A length that must not change, and what it is called. */
export interface NamedLength extends CriticalLength {
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

/** Both diagonals of every opening, from corner to corner. */
function acrossOpenings({ model, body }: JobStructure): NamedLength[] {
  if (!body) return [];
  const { places, openings } = BODIES[body.type];
  const at = new Map(places.map((place) => [place.code, body.morph.carry(place.at)]));
  const nodeAt = (code: string): number | undefined => {
    const wanted = at.get(code)!;
    const node = nearestNode(model, wanted);
    const off = model.nodes[node]!.at.map((value, k) => value - wanted[k]!);
    return Math.hypot(...off) < AT_CORNER ? node : undefined;
  };
  return openings.flatMap(({ name, corners }) => {
    // Of a many-cornered opening the corner half way round stands opposite.
    const half = Math.floor(corners.length / 2);
    const quarter = Math.floor(corners.length / 4);
    return [0, Math.max(1, quarter)].flatMap((first, i): NamedLength[] => {
      const [a, b] = [corners[first]!, corners[(first + half) % corners.length]!];
      const [from, to] = [nodeAt(a), nodeAt(b)];
      if (from === undefined || to === undefined || from === to) return [];
      const code = `${model.nodes[from]!.code}–${model.nodes[to]!.code}`;
      return [
        {
          id: `${name} ${a} ${b}`,
          code,
          name: `${name}, ${i === 0 ? 'one' : 'other'} diagonal`,
          from,
          to,
          limit: SLACK_LIMIT,
        },
      ];
    });
  });
}
