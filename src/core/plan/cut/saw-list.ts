import { braceGeometry, braceState, type BraceGeometry } from '../../findings/brace-pull';
import { judgeRound } from '../../round/judge/judge-round';
import type { BraceEvent, CodedBrace, Dimension, WorkItem } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { boxSection } from '../../structure/box-section';
import { barMass, STEEL } from '../../structure/shell-frame';
import { stressShare } from './brace-advice';
import type { CutModel } from './cut-model';
import { sectionOf } from './stages';

/** A brace as it is sawn, fitted and taken out again. */
export interface SawnBrace {
  readonly brace: CodedBrace;
  readonly item: WorkItem;
  readonly from: string;
  readonly to: string;
  readonly fromName: string;
  readonly toName: string;
  /** Between the points, and of the tube with pads and nuts taken off; mm. Absent where an end is not known. */
  readonly between?: number;
  readonly sawn?: number;
  readonly geometry?: BraceGeometry;
  readonly kilograms?: number;
  /** Bending stress with somebody on its middle, of what its steel bears; above 1 it bends. */
  readonly climbed?: number;
  readonly state: BraceEvent['kind'];
  readonly lastEvent?: BraceEvent;
  readonly holds: readonly Dimension[];
  /** Names of the stages before which it goes in and comes out. */
  readonly goesIn: string;
  readonly comesOut: string;
}

/** The braces of a job in the order they are fitted: by the stage before which they go in, then by code. */
export function sawList(job: Job, cut: CutModel | undefined): SawnBrace[] {
  const ordinal = new Map(cut?.stages.map(({ id }, i) => [id, i]) ?? []);
  const nameOf = (id: string | null, none: string) => cut?.stages.find((each) => each.id === id)?.name ?? none;
  const sawn = job.braces.map((brace): SawnBrace => {
    // As the shell is, not as the chart has it: by the round it was planned from, else by the last.
    const round = job.round(brace.roundId ?? '');
    const geometry = braceGeometry(brace, round ? judgeRound(job, round) : cut?.latest, job.references);
    const section = sectionOf(job, brace);
    const length = geometry && geometry.length - brace.fromOff - brace.toOff;
    const lastEvent = job.braceEvents.findLast((event) => event.braceId === brace.id);
    const held = job.rows.braceDimensions.filter(({ braceId }) => braceId === brace.id);
    return {
      brace,
      item: job.item(brace.id),
      ...{ from: job.code(brace.fromPointId), to: job.code(brace.toPointId) },
      ...{ fromName: job.point(brace.fromPointId).name, toName: job.point(brace.toPointId).name },
      ...(geometry && length !== undefined ? { between: geometry.length, geometry } : {}),
      // A part that stays is there: nothing is sawn for it.
      ...(geometry && length !== undefined && brace.kind !== 'part'
        ? {
            ...{ sawn: length, climbed: stressShare(section, length) },
            kilograms: barMass(STEEL.density, boxSection(section).A, length),
          }
        : {}),
      state: braceState(job, brace),
      ...(lastEvent ? { lastEvent } : {}),
      holds: held.map(({ dimensionId }) => job.dimension(dimensionId)),
      goesIn: nameOf(brace.stageInId, ''),
      comesOut: nameOf(brace.stageOutId, ''),
    };
  });
  const at = ({ brace }: SawnBrace) => ordinal.get(brace.stageInId ?? '') ?? 0;
  return sawn.toSorted((p, q) => at(p) - at(q));
}

/** How many bars of a length some pieces need, and what is left over: the longest first, each into the first bar with room. */
export function barsFor(
  pieces: readonly number[],
  bar: number,
  kerf = 3,
): { readonly bars: number; readonly left: number } {
  const rooms: number[] = [];
  for (const piece of pieces.toSorted((a, b) => b - a)) {
    const k = rooms.findIndex((room) => room >= piece + kerf);
    if (k >= 0) rooms[k]! -= piece + kerf;
    else rooms.push(bar - piece - kerf);
  }
  return { bars: rooms.length, left: rooms.reduce((sum, room) => sum + Math.max(0, room), 0) };
}
