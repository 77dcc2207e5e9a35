'use client';

import { useState } from 'react';
import { Job } from '@/core/shell/job/job';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { Link } from '../kit/link';
import type { Reference } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { inOrder } from '@/core/shell/references/chosen';
import { contradictions } from '@/core/shell/references/contradictions';
import { editionDifference, editionsOf } from '@/core/shell/references/editions';
import { counted, AXIS_WORD, REFERENCE_WORD } from '@/core/report/vocabulary/words';
import { typedUnit } from '@/formats/preferences';
import {
  trust,
  type NewReference,
  type Ranks,
  type SisterFileInput,
  type Trust,
  type Use,
} from '@/formats/inputs/references';
import { Button } from '../kit/button';
import { Empty, Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';

import { useFormat, usePreferences } from '../shell/preferences-context';
import { MakeReference } from './make-reference';
import { SisterImport } from './sister-import';
import { unpacked } from '../kit/unpacked';

export interface ReferenceActions {
  readonly makeReference: Action<NewReference, { referenceId: string }>;
  readonly rankReferences: Action<Ranks>;
  readonly trustReference: Action<Trust>;
  readonly putInUse: Action<Use>;
  readonly importSister: Action<SisterFileInput, { roundId: string; readings: number }>;
}

/** What is right: the references of the job in the order they are judged by, and where they contradict each other. */
export const ReferencesPage = unpacked(ReferencesPart);

function ReferencesPart({ rows, actions }: { rows: JobRows; actions: ReferenceActions }) {
  const jobId = rows.jobs[0]!.id;
  const ranking = useAction(actions.rankReferences);
  const used = rows.references.filter(({ inUse }) => inUse).sort(inOrder);
  const idle = rows.references.filter(
    (each) => !each.inUse && !used.some((other) => editionsOf(rows, other).includes(each)),
  );
  const swap = (i: number, by: 1 | -1) => {
    const ids = used.map(({ id }) => id);
    [ids[i], ids[i + by]] = [ids[i + by]!, ids[i]!];
    void ranking.run({ jobId, ids });
  };
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="grow text-2xl">References</h1>
        <SisterImport rows={rows} importSister={actions.importSister} />
        <MakeReference rows={rows} makeReference={actions.makeReference} />
      </div>
      <p className="max-w-prose">
        Every point and dimension is judged by the first reference of this list that covers it, unless another was
        chosen for it by hand. The others are shown beside every verdict with what they would say.
      </p>
      <Faults faults={ranking.faults} />
      {used.length === 0 ? (
        <Empty title="There is nothing to compare with">
          Make a reference of a sister car, of the good side mirrored, or of an earlier round.
        </Empty>
      ) : null}
      <ol className="flex flex-col">
        {used.map((reference, i) => (
          <ReferenceRow key={reference.id} rows={rows} reference={reference} actions={actions}>
            <span className="flex">
              <Button
                look="quiet"
                aria-label={`${reference.name} higher`}
                disabled={i === 0 || ranking.pending}
                onClick={() => swap(i, -1)}
              >
                <ArrowUp size={18} aria-hidden />
              </Button>
              <Button
                look="quiet"
                aria-label={`${reference.name} lower`}
                disabled={i === used.length - 1 || ranking.pending}
                onClick={() => swap(i, 1)}
              >
                <ArrowDown size={18} aria-hidden />
              </Button>
            </span>
          </ReferenceRow>
        ))}
      </ol>
      {idle.length > 0 ? (
        <section aria-label="Not in use">
          <h2 className="text-lg">Not in use</h2>
          <ol>
            {idle.map((reference) => (
              <ReferenceRow key={reference.id} rows={rows} reference={reference} actions={actions} />
            ))}
          </ol>
        </section>
      ) : null}
      <Contradictions rows={rows} />
      <SisterRounds rows={rows} />
    </div>
  );
}

function ReferenceRow({
  rows,
  reference,
  actions,
  children,
}: {
  rows: JobRows;
  reference: Reference;
  actions: ReferenceActions;
  children?: React.ReactNode;
}) {
  const format = useFormat();
  const using = useAction(actions.putInUse);
  const jobId = reference.jobId;
  const count = (list: readonly { referenceId: string }[]) =>
    list.filter(({ referenceId }) => referenceId === reference.id).length;
  const editions = editionsOf(rows, reference).filter(({ id }) => id !== reference.id);
  const take = (id: string, inUse: boolean) => using.run({ jobId, id, inUse });
  return (
    <li
      className="grid items-start gap-x-4 gap-y-1 border-b border-rule py-2 sm:grid-cols-[5.5rem_1fr_auto]"
      data-reference={reference.kind}
    >
      {children ?? <span />}
      <div className="min-w-0">
        <p>
          <strong>{format.name(reference.name)}</strong>{' '}
          <span className="text-soft">
            ({REFERENCE_WORD[reference.kind]}
            {reference.edition > 1 || editions.length > 0
              ? `, edition ${reference.edition} of ${format.day(reference.createdAt)}`
              : ''}
            )
          </span>
        </p>
        <p className="text-sm text-soft">
          {counted(count(rows.referencePoints), 'point')}, {counted(count(rows.referenceDimensions), 'dimension')}
          {count(rows.referenceStations) > 0 ? `, ${counted(count(rows.referenceStations), 'gap target')}` : ''}.{' '}
          {format.name(reference.source)}
        </p>
        {editions.map((edition) => {
          const { changed, added, removed } = editionDifference(rows, edition, reference);
          return (
            <p key={edition.id} className="flex flex-wrap items-center gap-2 text-sm">
              Edition {edition.edition} of {format.day(edition.createdAt)}: {changed} figures differ, {added} only here,{' '}
              {removed} only there.
              <Button look="quiet" disabled={using.pending} onClick={() => take(edition.id, true)}>
                Judge by edition {edition.edition}
              </Button>
            </p>
          );
        })}
        <Faults faults={using.faults} />
      </div>
      <div className="flex flex-wrap items-end gap-2">
        <Trust reference={reference} trustReference={actions.trustReference} />
        <Button look="quiet" disabled={using.pending} onClick={() => take(reference.id, !reference.inUse)}>
          {reference.inUse ? 'Take out of use' : 'Use it again'}
        </Button>
      </div>
    </li>
  );
}

/** How far a reference is trusted, typed as ±. */
function Trust({ reference, trustReference }: { reference: Reference; trustReference: Action<Trust> }) {
  const format = useFormat();
  const { preferences } = usePreferences();
  const [asked, ask] = useState(false);
  const shown = format.uncertainty(2 * reference.trust);
  const form = useEntryForm({
    schema: trust,
    action: trustReference,
    defaults: { trust: shown },
    read: (values, faults) => {
      const typed = lengthsOf(values, typedUnit(preferences), faults)('trust') / 2;
      // Nothing measured is known to the last digit: nought is asked about once.
      if (typed === 0 && faults.length === 0 && !asked) {
        ask(true);
        faults.push({
          path: 'trust',
          message: '± 0 says its figures are right by definition. Enter again takes it so.',
        });
      }
      return { id: reference.id, trust: typed };
    },
  });
  const { error, ...field } = form.field('trust');
  const save = () => void (form.watch('trust') !== shown && form.submit());
  return (
    <label className="flex items-center gap-1">
      <span className="caps">Trusted ±</span>
      <input
        aria-label={`${format.name(reference.name)} is trusted to ±`}
        aria-invalid={error ? true : undefined}
        title={error}
        className="min-h-11 w-20 border border-rule bg-sheet px-2 text-right font-mono aria-invalid:border-2 aria-invalid:border-minus"
        {...field}
        onBlur={save}
        onKeyDown={(event) => event.key === 'Enter' && save()}
      />
      <span>{format.unit}</span>
      {error ? (
        <span role="alert" className="text-sm text-minus">
          {error}
        </span>
      ) : null}
    </label>
  );
}

function Contradictions({ rows }: { rows: JobRows }) {
  const format = useFormat();
  const found = contradictions(Job.of(rows));
  const name = (id: string) => rows.references.find((each) => each.id === id)!.name;
  const code = (id: string) => [...rows.points, ...rows.dimensions].find((each) => each.id === id)!.code;
  if (rows.references.filter(({ inUse }) => inUse).length < 2) return null;
  return (
    <section aria-label="Contradictions" className="flex flex-col gap-1">
      <h2 className="text-lg">Where the references contradict each other ({found.length})</h2>
      {found.length === 0 ? <p className="text-soft">Nowhere beyond what both are trusted to.</p> : null}
      {found.length > 0 ? (
        <table className="ruled max-w-4xl">
          <thead>
            <tr>
              <th>What</th>
              <th>Judged by</th>
              <th>Contradicted by</th>
              <th className="num">Difference</th>
              <th className="num">Trusted together ± {format.unit}</th>
            </tr>
          </thead>
          <tbody>
            {found.slice(0, 40).map(({ pointId, dimensionId, axis, used, other, difference, sd }) => (
              <tr key={`${pointId ?? dimensionId}${axis}${other}`} data-contradiction={code((pointId ?? dimensionId)!)}>
                <td>
                  {code((pointId ?? dimensionId)!)} {axis ? AXIS_WORD[axis] : ''}
                </td>
                <td>{format.name(name(used))}</td>
                <td>{format.name(name(other))}</td>
                <td className="num">{format.difference(difference)}</td>
                <td className="num text-soft">{format.uncertainty(2 * sd)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {found.length > 40 ? <p className="text-soft">and {found.length - 40} more, smaller by their trust.</p> : null}
    </section>
  );
}

function SisterRounds({ rows }: { rows: JobRows }) {
  const rounds = rows.rounds.filter(({ shell }) => shell !== '');
  return (
    <section aria-label="Sister cars" className="flex flex-col gap-1">
      <h2 className="text-lg">Rounds of sister cars</h2>
      {rounds.length === 0 ? (
        <p className="max-w-prose text-soft">
          None yet. Bring one in from a file, or open a round under Measure and say there that it is of another shell:
          it is measured like your own and never mixed with it.
        </p>
      ) : (
        <ul>
          {rounds.map((round) => (
            <li key={round.id}>
              <Link className="flex min-h-11 items-center underline" href={`/jobs/${round.jobId}/rounds/${round.id}`}>
                {round.number}. {round.shell}: {round.name}
              </Link>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
