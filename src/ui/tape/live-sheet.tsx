import { Job } from '@/core/shell/job/job';
import { useMemo } from 'react';
import { sheetFigure } from '@/core/report/drawing/points';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import { sameList, useSame } from '../kit/use-same';
import { Sheet } from '../sheet/sheet';

/** Exaggeration of the live sheet. */
const LIVE_FACTOR = 10;

/** The shell as the round knows it so far, what is being read lit. */
export function LiveSheet({
  rows,
  judgement,
  lit,
  title,
}: {
  rows: JobRows;
  judgement?: RoundJudgement;
  lit: readonly string[];
  title: string;
}) {
  // A reading more leaves the drawing as it is until the round is judged by it.
  const drawnFrom = useSame(rows, (a, b) => a.points === b.points && a.memberLines === b.memberLines);
  const figure = useMemo(() => judgement && sheetFigure(Job.of(drawnFrom), judgement), [drawnFrom, judgement]);
  const codes = useSame(lit, sameList);
  const ids = useMemo(() => codes.flatMap((code) => Job.of(drawnFrom).pointCalled(code)?.id ?? []), [codes, drawnFrom]);
  const pairs = useMemo(() => (ids.length === 2 ? [{ from: ids[0]!, to: ids[1]!, strong: true }] : []), [ids]);
  const drawn = useMemo(
    () => figure && { ...{ figure, pairs, factor: LIVE_FACTOR, title: [title] } },
    [figure, pairs, title],
  );
  if (!figure || !drawn) return null;
  if (figure.points.length === 0)
    return (
      <p className="text-soft">
        There is no chart to draw from yet, and too few readings to make a shape of; they are kept all the same.
      </p>
    );
  return (
    <div className="own-layer">
      <Sheet drawn={drawn} selected={ids} />
    </div>
  );
}
