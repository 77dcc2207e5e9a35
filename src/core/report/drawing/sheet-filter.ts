import type { Side } from '../../shell/job/entities';
import { extentOf, sectionAt, type Section } from '../../shell/sections';
import type { RoundJudgement } from '../../round/judge/judgement';
import type { Verdict } from '../../maths/statistics/verdict';

/** What of a judged round is wanted on the sheet; what is left open lets everything through. */
export interface SheetFilter {
  readonly verdict?: Verdict | 'notJudged';
  readonly section?: Section;
  readonly side?: Side;
}

/** The points and dimensions a filter lets through; a dimension passes with both its ends' place and its own verdict. */
export function passFilter(
  { points, dimensions, references }: Pick<RoundJudgement, 'points' | 'dimensions' | 'references'>,
  { verdict, section, side }: SheetFilter,
): { points: ReadonlySet<string>; dimensions: ReadonlySet<string> } {
  const extent = extentOf([...references.points.values()].map(({ row }) => row.x));
  const verdictFits = (own: string | undefined) => verdict === undefined || (own ?? 'notJudged') === verdict;
  const placed = new Set(
    points.flatMap(({ point }) => {
      const x = references.points.get(point.id)?.row.x;
      const inSection = section === undefined || (x !== undefined && sectionAt(x, extent) === section);
      return inSection && (side === undefined || point.side === side) ? [point.id] : [];
    }),
  );
  return {
    points: new Set(
      points.flatMap(({ point, judged }) => (placed.has(point.id) && verdictFits(judged?.verdict) ? [point.id] : [])),
    ),
    dimensions: new Set(
      dimensions.flatMap(({ dimension, judged }) => {
        const ends = [dimension.fromPointId, dimension.toPointId].filter((id) => placed.has(id)).length;
        return (side || section ? ends > 0 : true) && verdictFits(judged?.verdict) ? [dimension.id] : [];
      }),
    ),
  };
}
