import { scale, add, subtract, type Vector } from '../../maths/geometry/vector';
import { seamsAsLastRead } from '../../round/judge/last-read';
import { SIGHT_WEIGHT } from '../../round/judge/sight';
import type { LineFigure } from '../../round/judge/seam-line';
import { pairSeams, seamMeetings, type Meeting, type SeamJudgement, type SeamPair } from '../../round/judge/seams';
import type { Point, Round } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { referencePosition } from '../../shell/references/chosen';
import type { SheetFigure } from '../drawing/points';
import { shellOf } from '../drawing/shell';

/** A seam where it lies on the shell: its judged stations with their places, chart axes, mm. */
export interface PlacedSeam {
  readonly code: string;
  /** Off target, mm; absent where it was not read. */
  readonly stations: readonly { readonly at: Vector; readonly deviation?: number }[];
}

/** Something of a seam that is not as it should be, the more in sight and the further out the earlier. */
export interface SeamFault {
  readonly code: string;
  readonly what: 'mean' | 'taper' | 'wave' | 'flush' | 'sides' | 'meeting';
  readonly figure: LineFigure;
  readonly weight: number;
}

/** What the page of the gaps shows: each seam as the last round that read any of it found it. */
export interface GapsPage {
  readonly points: readonly Pick<Point, 'id' | 'code' | 'name'>[];
  readonly pairs: readonly SeamPair[];
  /** The round each seam was last read in, by the seam's identity. */
  readonly readIn: Readonly<Record<string, Pick<Round, 'id' | 'name'>>>;
  readonly placed: readonly PlacedSeam[];
  readonly figure: SheetFigure;
  readonly faults: readonly SeamFault[];
}

export function gapsPage(job: Job): GapsPage {
  const { seams, readIn, last } = seamsAsLastRead(job);
  const pairs = pairSeams(seams);
  const shell = shellOf(job, last);
  return {
    points: job.rows.points.map(({ id, code, name }) => ({ id, code, name })),
    ...{ pairs, readIn },
    placed: seams.flatMap((seam) => placedSeam(job, seam) ?? []),
    figure: { points: [], lines: [], ...(shell ? { shell } : {}) },
    faults: faultsOf(pairs, seamMeetings(seams)),
  };
}

function placedSeam(job: Job, { seam, stations }: SeamJudgement): PlacedSeam | undefined {
  const [from, to] = [seam.fromPointId, seam.toPointId].map((id) =>
    id === null ? undefined : referencePosition(job.references, id),
  );
  if (!from || !to) return undefined;
  const gaps = stations.filter(({ quantity }) => quantity === 'gap');
  return {
    code: seam.code,
    stations: gaps.map(({ judged }, i) => {
      const share = gaps.length > 1 ? i / (gaps.length - 1) : 0.5;
      return {
        at: add(from, scale(subtract(to, from), share)),
        ...(judged ? { deviation: judged.deviation } : {}),
      };
    }),
  };
}

function faultsOf(pairs: readonly SeamPair[], meetings: readonly Meeting[]): SeamFault[] {
  const found = pairs.flatMap(({ left, right, centre, differ, pairing }) => {
    const sides = [left, right, centre].filter((each) => each !== undefined);
    const own = sides.flatMap(({ seam, gap, flush }) =>
      (
        [
          ['mean', gap?.mean],
          ['taper', gap?.taper],
          ['wave', gap?.wave],
          ['flush', flush?.mean],
        ] as const
      ).map(([what, figure]) => ({ code: seam.code, what, figure, weight: SIGHT_WEIGHT[seam.sight] })),
    );
    const weight = Math.max(...sides.map(({ seam }) => SIGHT_WEIGHT[seam.sight]));
    return [...own, { code: pairing, what: 'sides' as const, figure: differ, weight }];
  });
  const share = ({ figure, weight }: SeamFault) => (weight * Math.abs(figure.value)) / figure.limit;
  const weightOf = (code: string) =>
    Math.max(
      ...pairs.flatMap(({ left, right, centre }) =>
        [left, right, centre].flatMap((each) => (each?.seam.code === code ? SIGHT_WEIGHT[each.seam.sight] : [])),
      ),
    );
  const met = meetings.map(({ ends, spread }) => ({
    code: ends.map(({ code }) => code).join(' and '),
    what: 'meeting' as const,
    figure: spread,
    weight: Math.max(...ends.map(({ code }) => weightOf(code))),
  }));
  return [...found, ...met]
    .flatMap(({ figure, ...each }): SeamFault[] => (figure && figure.verdict !== 'inside' ? [{ ...each, figure }] : []))
    .toSorted(
      (a, b) => Number(b.figure.verdict === 'outside') - Number(a.figure.verdict === 'outside') || share(b) - share(a),
    );
}
