'use client';

import { Job } from '@/core/shell/job/job';
import { Link } from '../kit/link';
import { memo, useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import { AXES } from '@/core/maths/geometry/vector';
import { decisionsAbout } from '@/core/round/judge/behind';
import { controlSentence, settleNames, settlingSentence, stepText } from '@/core/report/settle-words';
import type { DimensionJudgement, PointJudgement, RoundJudgement } from '@/core/round/judge/judgement';
import { knownTo } from '@/core/round/net/spread';
import { AXIS_WORD, directionWord, LACKING_WORD } from '@/core/report/vocabulary/words';
import type { Choice } from '@/formats/inputs/references';
import { Button, buttonClass } from '../kit/button';
import type { Action } from '../kit/use-action';
import { useTask } from '../kit/use-task';
import { useFormat } from '../shell/preferences-context';
import { useSettleWords } from './use-settle-words';
import { ReadingsBehind } from './why-readings';
import { ReferencesOf } from './why-references';
import type { Subject } from './subject';

interface WhyProps {
  readonly subject: Subject | undefined;
  readonly judgement: RoundJudgement;
  readonly rows: JobRows;
  readonly acceptHref: string;
  readonly onToggleControl: (pointId: string) => void;
  readonly chooseReference: Action<Choice>;
}

/** Why a figure is what it is: its readings, its reference, the alignment, the uncertainty, what was decided. */
export const Why = memo(function Why(props: WhyProps) {
  const { subject, judgement } = props;
  if (!subject) return <p className="text-soft">Choose a point or a dimension to see why its figure is what it is.</p>;
  const common = { ...props, subject };
  if (subject.kind === 'point') {
    const each = judgement.points.find(({ point }) => point.id === subject.id)!;
    return <PointWhy {...common} each={each} />;
  }
  const each = judgement.dimensions.find(({ dimension }) => dimension.id === subject.id)!;
  return <DimensionWhy {...common} each={each} />;
});

type Shown = Omit<WhyProps, 'subject'> & { readonly subject: Subject };

function DimensionWhy({ each, ...props }: Shown & { each: DimensionJudgement }) {
  const format = useFormat();
  const { dimension, judged, measured, lacking } = each;
  return (
    <section aria-label="Why" className="border-t-2 border-ink pt-2">
      <h2 className="text-lg">
        {dimension.code} · {format.name(dimension.name)}{' '}
        <span className="text-soft">({dimension.measure === 'tip' ? 'tip to tip' : 'level'})</span>
      </h2>
      {judged && measured ? (
        <>
          <p>
            Measured {format.length(measured.value)}, reference {format.length(judged.reference)}:{' '}
            <strong>{format.difference(judged.deviation)}</strong> {format.plusMinus(judged.plusMinus)} {format.unit},
            limit {format.length(judged.limit)}: <strong>{judged.verdict}</strong>.
            {judged.tooCoarse ? ' As it is read now, it is too coarse for the limit.' : ''}
          </p>
          <p className="text-sm text-soft">
            {measured.from === 'readings'
              ? 'From its own readings alone.'
              : 'From the whole net of the round; no alignment enters a length.'}
          </p>
        </>
      ) : (
        <p className="text-soft">{lacking ? LACKING_WORD[lacking] : ''}</p>
      )}
      <Rest
        shown={props}
        verdict={judged?.verdict}
        acceptQuery={`&dimension=${dimension.id}`}
        pointIds={[dimension.fromPointId, dimension.toPointId]}
      />
    </section>
  );
}

function PointWhy({ each, ...props }: Shown & { each: PointJudgement }) {
  const format = useFormat();
  const { judgement, rows, onToggleControl } = props;
  const { point, judged, lacking, advice, control } = each;
  const components = judged ? judged.deviation.by : [];
  const { alignment } = judgement;
  const codes = alignment.ok
    ? alignment.controlIds.map((id) => rows.points.find((other) => other.id === id)!.code)
    : [];
  return (
    <section aria-label="Why" className="border-t-2 border-ink pt-2">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-lg">
          {point.code} · {format.name(point.name)}
        </h2>
        <Button onClick={() => onToggleControl(point.id)}>
          {control ? 'Do not hold it as control' : 'Hold it as control'}
        </Button>
      </div>
      {judged ? (
        <ul>
          {AXES.map((axis, i) => (
            <li key={axis}>
              {AXIS_WORD[axis]} <strong className="figures">{format.difference(components[i]!)}</strong>{' '}
              {format.plusMinus(judged.axes[axis].plusMinus)} {format.unit}
              {Math.abs(components[i]!) >= 0.05 ? `, ${directionWord(axis, components[i]!)}` : ''}:{' '}
              {judged.axes[axis].verdict}
              {judged.axes[axis].tooCoarse ? ' (read too coarsely for the limit)' : ''}
            </li>
          ))}
          <li className="text-sm text-soft">
            Limit {format.length(judged.limit)} on each axis. Control points: {codes.join(', ')}. The ± holds the
            readings’ spread, the reference’s and the alignment’s: it grows away from the control points.
          </li>
        </ul>
      ) : (
        <p className="text-soft">
          {lacking ? LACKING_WORD[lacking] : ''}
          {advice ? `: ${advice}` : ''}
        </p>
      )}
      <KnownTo judgement={judgement} pointId={point.id} />
      <Rest shown={props} verdict={judged?.verdict} acceptQuery={`&point=${point.id}`} pointIds={[point.id]} />
    </section>
  );
}

interface RestProps {
  readonly shown: Shown;
  readonly verdict?: string;
  readonly acceptQuery: string;
  readonly pointIds: readonly string[];
}

/** What every subject answers with alike: what decides it, its references, its readings, its history. */
function Rest({ shown, verdict, acceptQuery, pointIds }: RestProps) {
  const { subject, judgement, rows, acceptHref, chooseReference } = shown;
  return (
    <>
      <div className="flex flex-wrap gap-2 py-1">
        {verdict && verdict !== 'inside' ? (
          <Link className={buttonClass()} href={acceptHref + acceptQuery}>
            Accept this deviation with a reason
          </Link>
        ) : null}
        {verdict === 'undecided' ? (
          <WhatDecides key={`${subject.id}${judgement.round.id}`} {...{ subject, judgement, rows }} />
        ) : null}
      </div>
      <ReferencesOf {...{ subject, judgement, rows, chooseReference }} />
      <ReadingsBehind {...{ judgement, rows, pointIds }} />
      <History rows={rows} subject={subject} />
    </>
  );
}

/** What to measure so that an undecided figure is decided; asked for, since it takes a moment. */
function WhatDecides({ subject, judgement, rows }: { subject: Subject; judgement: RoundJudgement; rows: JobRows }) {
  const format = useFormat();
  const words = useSettleWords(settleNames(Job.of(rows)));
  const [asked, ask] = useState(false);
  const control = judgement.points.flatMap(({ point, control: held }) => (held ? [point.id] : []));
  const { value: proposal, failure } = useTask(
    'settle',
    rows,
    asked ? { roundId: judgement.round.id, control, subject } : null,
  );
  if (!asked) return <Button onClick={() => ask(true)}>What would decide it?</Button>;
  if (!proposal) return <p role="status">{failure ?? 'Working out what would decide it …'}</p>;
  const { what } = proposal;
  const decided = proposal.why.find((each) => each.kind === 'decidedAt');
  const steps = 'steps' in what ? what.steps : [];
  const further = controlSentence(proposal, words);
  return (
    <div role="status" data-decides={what.kind} className="basis-full border-l-4 border-ink bg-sheet px-3 py-2">
      <p>
        {decided
          ? `It is decided at ${words.plusMinus(decided.needed)}; now it is ${words.plusMinus(decided.now)}. `
          : ''}
        {settlingSentence(proposal)}
      </p>
      <ol className="list-decimal pl-6 font-mono text-sm">
        {steps.map(({ target, plusMinus }, i) => (
          <li key={i}>
            {stepText(target, words)} → {format.plusMinus(plusMinus)} {format.unit}
          </li>
        ))}
      </ol>
      {further ? <p>{further}</p> : null}
    </div>
  );
}

/** How well the round itself knows a point, in one plain sentence. */
function KnownTo({ judgement, pointId }: { judgement: RoundJudgement; pointId: string }) {
  const format = useFormat();
  const located = judgement.located.get(pointId);
  if (!located) return null;
  const { sd, direction } = knownTo(located.covariance);
  const unchecked = judgement.net.unchecked.includes(pointId);
  return (
    <p>
      Known to {format.plusMinus(2 * sd)} {format.unit}, worst {direction}
      {unchecked ? '; some reading of it is checked by no other: a mistake there would not show' : ''}.
    </p>
  );
}

function History({ rows, subject }: { rows: JobRows; subject: Subject }) {
  const format = useFormat();
  const steps = decisionsAbout(Job.of(rows), subject);
  if (steps.length === 0) return null;
  return (
    <div className="pt-2">
      <h3 className="caps">Found and decided</h3>
      <ul>
        {steps.map(({ at, author, text, reason, round }) => (
          <li key={at + text}>
            <span className="text-sm text-soft">
              {format.day(at)}, {author}
              {round ? `, round ${round.number}` : ''}:
            </span>{' '}
            {format.name(text)}
            {reason ? <span className="text-soft"> Because: {format.name(reason)}</span> : null}
          </li>
        ))}
      </ul>
    </div>
  );
}
