'use client';

import Link from 'next/link';
import { AXES } from '@/core/geometry/vector';
import { corrections, type Correction } from '@/core/round/corrections';
import { jointCovariance } from '@/core/round/net';
import { knownTo } from '@/core/round/spread';
import type { JobRows } from '@/core/job/job-rows';
import type { RoundJudgement } from '@/core/round/judgement';
import { distanceBetween, instrumentOf, readingSd } from '@/core/round/measured';
import { Button, buttonClass } from '../kit/button';
import { useFormat } from '../shell/preferences-context';
import { AXIS_WORD, LACKING_WORD, REFERENCE_WORD, directionWord } from '@/core/vocabulary/words';
import type { Selection } from './deviations';

/** Why a figure is what it is: its readings, its reference, the alignment, the uncertainty. */
export function Why({
  selection, judgement, rows, acceptHref, onToggleControl,
}: {
  selection: Selection;
  judgement: RoundJudgement;
  rows: JobRows;
  acceptHref: string;
  onToggleControl: (pointId: string) => void;
}) {
  const format = useFormat();
  if (!selection) return <p className="text-soft">Choose a point or a dimension to see why its figure is what it is.</p>;
  if (selection.kind === 'point') return <PointWhy id={selection.id} {...{ judgement, rows, acceptHref, onToggleControl }} />;
  const each = judgement.dimensions.find(({ dimension }) => dimension.id === selection.id)!;
  const { dimension, judged, measured } = each;
  const reference = rows.references.find(({ id }) => id === judged?.referenceId);
  return (
    <section aria-label="Why" className="border-t-2 border-ink pt-2">
      <h2 className="text-lg">
        {dimension.code} · {format.name(dimension.name)} <span className="text-soft">({dimension.measure === 'tip' ? 'tip to tip' : 'level'})</span>
      </h2>
      {judged && measured ? (
        <>
          <p>
            Measured {format.length(measured.value)}, reference {format.length(judged.reference)}:{' '}
            <strong>{format.difference(judged.deviation)}</strong> {format.plusMinus(judged.plusMinus)} {format.unit}, limit{' '}
            {format.length(judged.limit)}: <strong>{judged.verdict}</strong>.
            {judged.cannotDecide ? ' This instrument cannot decide.' : ''}
          </p>
          <p className="text-sm text-soft">
            {measured.from === 'readings' ? 'From its own readings alone.' : 'From the whole net of the round.'} Reference:{' '}
            {reference ? `${reference.name} (${REFERENCE_WORD[reference.kind]})` : ''}.
          </p>
          {judged.verdict === 'inside' ? null : (
            <Link className={`${buttonClass()} mt-2`} href={`${acceptHref}&dimension=${dimension.id}`}>
              Accept this deviation with a reason
            </Link>
          )}
        </>
      ) : (
        <p className="text-soft">{each.lacking ? LACKING_WORD[each.lacking] : ''}</p>
      )}
      <ReadingList rows={rows} ids={distanceBetween(judgement.measured, dimension)?.readingIds ?? []} />
    </section>
  );
} // prettier-ignore

function PointWhy({
  id, judgement, rows, acceptHref, onToggleControl,
}: { id: string; judgement: RoundJudgement; rows: JobRows; acceptHref: string; onToggleControl: (pointId: string) => void }) {
  const format = useFormat();
  const { point, judged, lacking, advice, control } = judgement.points.find((each) => each.point.id === id)!;
  const measurement = judgement.measured.points.get(id) ?? {};
  const reference = rows.references.find((each) => each.id === judged?.referenceId);
  const components = judged ? [judged.deviation.dx, judged.deviation.dy, judged.deviation.dz] : [];
  return (
    <section aria-label="Why" className="border-t-2 border-ink pt-2">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-lg">
          {point.code} · {format.name(point.name)}
        </h2>
        <Button onClick={() => onToggleControl(id)}>{control ? 'Do not hold it as control' : 'Hold it as control'}</Button>
        {judged && judged.verdict !== 'inside' ? (
          <Link className={buttonClass()} href={`${acceptHref}&point=${id}`}>
            Accept with a reason
          </Link>
        ) : null}
      </div>
      {judged ? (
        <ul>
          {AXES.map((axis, i) => (
            <li key={axis}>
              {AXIS_WORD[axis]} <strong className="figures">{format.difference(components[i]!)}</strong>{' '}
              {format.plusMinus(judged.axes[axis].plusMinus)} {format.unit}
              {Math.abs(components[i]!) >= 0.05 ? `, ${directionWord(axis, components[i]!)}` : ''}: {judged.axes[axis].verdict}
              {judged.axes[axis].cannotDecide ? ' (this instrument cannot decide)' : ''}
            </li>
          ))}
          <li className="text-sm text-soft">
            Limit {format.length(judged.limit)} on each axis; reference: {reference ? `${reference.name} (${REFERENCE_WORD[reference.kind]})` : ''}. The ±
            holds the readings’ spread and the alignment’s: it grows away from the control points.
          </li>
        </ul>
      ) : (
        <p className="text-soft">
          {lacking ? LACKING_WORD[lacking] : ''}
          {advice ? `: ${advice}` : ''}
        </p>
      )}
      <KnownTo judgement={judgement} code={point.code} />
      <ReadingList rows={rows} ids={AXES.flatMap((axis) => measurement[axis]?.readingIds ?? [])} />
    </section>
  );
} // prettier-ignore

/** How well the round itself knows a point, in one plain sentence. */
function KnownTo({ judgement, code }: { judgement: RoundJudgement; code: string }) {
  const format = useFormat();
  const { solution, unchecked } = judgement.net;
  if (!solution?.survey.points.some(({ id }) => id === code)) return null;
  const { sd, direction } = knownTo(jointCovariance(solution)(code, code));
  return (
    <p>
      Known to {format.plusMinus(2 * sd)} {format.unit}, worst {direction}
      {unchecked.includes(code)
        ? '; some reading of it is checked by no other: a mistake there would not show'
        : ''}
      .
    </p>
  );
}

const CORRECTION_WORD: Readonly<Record<Correction['kind'], string>> = {
  startMark: 'start mark', zeroOffset: 'zero offset', temperature: 'temperature',
}; // prettier-ignore

function ReadingList({ rows, ids }: { rows: JobRows; ids: readonly string[] }) {
  const format = useFormat();
  const versions = new Map(rows.instrumentVersions.map((version) => [version.id, version]));
  if (ids.length === 0) return null;
  const correctionText = (
    reading: JobRows['readings'][number],
    version: JobRows['instrumentVersions'][number],
  ) =>
    corrections(
      reading,
      version,
      rows.rounds.find(({ id }) => id === reading.roundId)?.temperature ?? null,
    )
      .map(({ kind, amount }) => `${format.difference(amount)} ${CORRECTION_WORD[kind]}`)
      .join(' ');
  return (
    <ul className="mt-1 font-mono text-sm">
      {ids.map((id) => {
        const reading = rows.readings.find((each) => each.id === id)!;
        const version = versions.get(reading.instrumentVersionId)!;
        return (
          <li key={id}>
            “{reading.raw}” {correctionText(reading, version)}{' '}
            {format.plusMinus(2 * readingSd(reading, version))} · {instrumentOf(rows, version).name}{' '}
            · {reading.author}, {format.day(reading.takenAt)} {format.time(reading.takenAt)}
          </li>
        );
      })}
    </ul>
  );
}
