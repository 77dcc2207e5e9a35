'use client';

import type { JobRows } from '@/core/shell/job/job-rows';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import { otherVerdicts } from '@/core/round/judge/other-references';
import { REFERENCE_WORD } from '@/core/report/vocabulary/words';
import type { Choice } from '@/formats/inputs/references';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { VerdictMark } from './mark';
import type { Subject } from './subject';

/** The reference that was used, how far it is trusted, and what the others would say. */
export function ReferencesOf({
  subject,
  judgement,
  rows,
  chooseReference,
}: {
  subject: Subject;
  judgement: RoundJudgement;
  rows: JobRows;
  chooseReference: Action<Choice>;
}) {
  const format = useFormat();
  const { run, faults, pending } = useAction(chooseReference);
  const { references } = judgement;
  const chosen = subject.kind === 'point' ? references.points.get(subject.id) : references.dimensions.get(subject.id);
  if (!chosen) return <p className="text-soft">No reference covers it.</p>;
  const others = otherVerdicts(judgement, subject.kind, subject.id);
  const choose = (referenceId: string | null) =>
    run({
      id: crypto.randomUUID(),
      jobId: rows.jobs[0]!.id,
      reason: '',
      referenceId,
      pointId: subject.kind === 'point' ? subject.id : null,
      dimensionId: subject.kind === 'dimension' ? subject.id : null,
    });
  return (
    <div className="pt-1">
      <p className="text-sm">
        Reference: <strong>{chosen.reference.name}</strong> ({REFERENCE_WORD[chosen.reference.kind]}
        {chosen.reference.edition > 1 ? `, edition ${chosen.reference.edition}` : ''}), trusted to{' '}
        {format.plusMinus(2 * chosen.sd)} {format.unit}
        {chosen.byHand ? '; chosen for this one by hand' : ''}.{' '}
        {chosen.byHand ? (
          <Button look="quiet" disabled={pending} onClick={() => choose(null)}>
            Go by the ranks again
          </Button>
        ) : null}
      </p>
      {others.length > 0 ? (
        <ul aria-label="What the other references would say">
          {others.map(({ reference, deviation, plusMinus, verdict }) => (
            <li key={reference.id} className="flex flex-wrap items-center gap-2 text-sm" data-other={reference.kind}>
              <VerdictMark verdict={verdict} />
              <span>
                {reference.name} would say{' '}
                <span className="figures">{deviation.map((value) => format.difference(value)).join(' / ')}</span>{' '}
                {format.plusMinus(plusMinus)}: {verdict}
              </span>
              <Button look="quiet" disabled={pending} onClick={() => choose(reference.id)}>
                Judge this one by it
              </Button>
            </li>
          ))}
        </ul>
      ) : null}
      <Faults faults={faults} />
    </div>
  );
}
