'use client';

import { byCode } from '@/core/shell/by-code';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import { worstKnown } from '@/core/round/net/spread';
import { counted, listed, listedUpTo } from '@/core/report/vocabulary/words';
import { useFormat } from '../shell/preferences-context';

/** How the round stands: one line that follows each reading. */
export function Standing({
  rows,
  judgement,
  newly,
}: {
  rows: JobRows;
  judgement?: RoundJudgement;
  /** Points that the last reading has determined. */
  newly: readonly string[];
}) {
  const format = useFormat();
  if (!judgement)
    return (
      <p role="status" className="text-sm text-soft">
        Solving …
      </p>
    );
  const { net } = judgement;
  const job = Job.of(rows);
  const codes = (ids: readonly string[]) => ids.map((id) => job.code(id)).join(', ');
  const worst = worstKnown(net);
  const measured = judgement.dimensions.filter((each) => each.measured).length;
  return (
    <div role="status" data-standing data-readings={net.solution?.survey.readings.length ?? 0} className="text-sm">
      <p>
        <strong>{judgement.located.size}</strong> of {rows.points.length} points located, <strong>{measured}</strong> of{' '}
        {rows.dimensions.length} dimensions known
        {worst
          ? `; the least sure is ${job.code(worst.pointId)}, ${format.plusMinus(2 * worst.sd)} ${format.unit} ${worst.direction}`
          : ''}
        {net.unchecked.length > 0 ? `; ${counted(net.unchecked.length, 'point')} not checked yet` : ''}.
      </p>
      <InPlan net={net} more={judgement.located.size > 0} code={(id) => job.code(id)} />
      {judgement.located.size === 0 && net.inPlan.length === 0 && net.loose.length > 0 && net.heightsWanted > 0 ? (
        <p className="font-medium">
          Lengths alone do not say which way is up: with {counted(net.heightsWanted, 'height')} more, such as{' '}
          {job.code(net.loose[0]!.id)} h {format.length(215)}, a shape can be made of them.
        </p>
      ) : null}
      {newly.length > 0 ? <p className="font-medium">Newly located: {listedUpTo(8, newly)}.</p> : null}
      {net.loose.length > 0 ? (
        <details>
          <summary className="flex min-h-11 cursor-pointer items-center">
            Still loose:{' '}
            {listedUpTo(
              6,
              net.loose.map(({ id }) => job.code(id)),
            )}
          </summary>
          <ul className="pl-4 text-soft">
            {net.loose.map(({ id, advice }) => (
              <li key={id}>
                {job.code(id)}: {advice}
              </li>
            ))}
          </ul>
        </details>
      ) : null}
      {net.apart.map((ids) => (
        <p key={ids.join()} className="text-soft">
          {codes(ids)} hang together, but not with the rest yet.
        </p>
      ))}
      {net.notEntering.length > 0 ? (
        <p className="font-medium">
          A head does not enter at {codes(net.notEntering)}: that point is out; put it into the log.
        </p>
      ) : null}
      {net.rough && judgement.located.size > 0 ? (
        <p className="text-soft">
          No chart gives positions: this shape is made from the readings alone
          {net.rough.handedness === 'unknown'
            ? '. Nothing says which side is left: it may be its own mirror image. Give the points their sides'
            : ''}
          {net.rough.mirrored.length > 0
            ? `. ${codes(net.rough.mirrored)} could as well stand on the other side: take one more length to each`
            : ''}
          .
        </p>
      ) : null}
    </div>
  );
}

/** What is known in plan while its height is not, and the heights that are missing, by name. */
function InPlan({
  net: { inPlan },
  more,
  code,
}: {
  net: RoundJudgement['net'];
  /** There are points located altogether, besides these. */
  more: boolean;
  code: (id: string) => string;
}) {
  const format = useFormat();
  if (inPlan.length === 0) return null;
  const worst = Math.max(...inPlan.map(({ sd }) => sd));
  const missing = inPlan
    .filter(({ heightMissing }) => heightMissing)
    .map(({ id }) => code(id))
    .sort(byCode);
  return (
    <p data-in-plan={inPlan.length}>
      <strong>{inPlan.length}</strong> {more ? 'more ' : ''}located in plan only, to {format.plusMinus(2 * worst)}{' '}
      {format.unit} or better
      {missing.length > 0 ? `: the heights are missing at ${listed(missing)}` : ''}.
    </p>
  );
}
