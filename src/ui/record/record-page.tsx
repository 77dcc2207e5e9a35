'use client';

import { FileDown, Printer } from 'lucide-react';
import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import { suggestFactor } from '@/core/drawing/sheet';
import { norm } from '@/core/geometry/vector';
import type { RecordDocument } from '@/core/record/document';
import { figureOfRecord } from '@/core/record/record';
import { UNCERTAINTY_STATEMENT } from '@/core/tolerance/statement';
import { Button, buttonClass } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { usePreferences, useFormat } from '../shell/preferences-context';
import { layoutOf, Sheet } from '../sheet/sheet';
import {
  BRACE_WORD,
  CAUTION_WORD,
  REFERENCE_WORD,
  STATE_WORD,
  SUPPORT_WORD,
  SUSPENSION_WORD,
} from '@/core/vocabulary/words';

export interface Signature {
  readonly number: number;
  readonly signedBy: string;
  readonly signedAt: string;
}

/** The record as a page that prints well on A4 and on Letter. */
export function RecordPage({
  jobId,
  record,
  signature,
  signatures,
  signRecord,
}: {
  jobId: string;
  record: RecordDocument;
  /** Present where a signed snapshot is shown, absent for the job as it stands. */
  signature?: Signature;
  signatures: readonly Signature[];
  signRecord: Action<unknown, { number: number }>;
}) {
  const format = useFormat();
  const { job } = record;
  return (
    <article className="mx-auto flex max-w-4xl flex-col gap-6">
      <Toolbar jobId={jobId} signature={signature} signatures={signatures} signRecord={signRecord} />
      <header className="border-b-2 border-ink pb-3">
        <p className="caps">Record of a car body</p>
        <h1 className="text-3xl">{job.name}</h1>
        <dl className="mt-2 grid grid-cols-2 gap-x-6 text-sm sm:grid-cols-3">
          <Fact term="Shell">{job.shell}</Fact>
          <Fact term="Identity number">{job.identityNumber || '–'}</Fact>
          <Fact term="Owner">{job.owner || '–'}</Fact>
          <Fact term="Shop">{job.shop || '–'}</Fact>
          <Fact term="Bench">{job.bench || '–'}</Fact>
          <Fact term="Driver sits on the">{job.driverSide}</Fact>
          <Fact term="Begun">{format.day(job.startedAt)}</Fact>
          <Fact term={signature ? `Record ${signature.number}, signed` : 'As it stands on'}>
            {format.day(record.madeAt)}
          </Fact>
          <Fact term="Judged by">
            {record.references
              .map((each) => `${each.name} (${REFERENCE_WORD[each.kind as 'chart'] ?? each.kind})`)
              .join('; ')}
          </Fact>
        </dl>
      </header>
      <Rounds record={record} />
      <Final record={record} />
      <Changes record={record} />
      <Gaps record={record} />
      <Work record={record} />
      <Log record={record} />
      <Photographs record={record} />
      <Statement record={record} signature={signature} />
    </article>
  );
}

const Fact = ({ term, children }: { term: string; children: ReactNode }) => (
  <div>
    <dt className="caps">{term}</dt>
    <dd>{children}</dd>
  </div>
);

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section className="break-inside-auto">
    <h2 className="mb-1 text-xl">{title}</h2>
    {children}
  </section>
);

function Toolbar({
  jobId,
  signature,
  signatures,
  signRecord,
}: {
  jobId: string;
  signature?: Signature;
  signatures: readonly Signature[];
  signRecord: Action<unknown, { number: number }>;
}) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState(preferences.person);
  const { run, faults, pending } = useAction(signRecord);
  const which = signature ? `&record=${signature.number}` : '';
  return (
    <div className="no-print flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-2">
        <Button onClick={() => window.print()}>
          <Printer size={18} aria-hidden /> Print
        </Button>
        <a className={buttonClass()} href={`/api/jobs/${jobId}/record?paper=a4${which}`}>
          <FileDown size={18} aria-hidden /> PDF, A4
        </a>
        <a className={buttonClass()} href={`/api/jobs/${jobId}/record?paper=letter${which}`}>
          PDF, Letter
        </a>
        <a className={buttonClass()} href={`/api/jobs/${jobId}/readings`}>
          Readings, CSV
        </a>
        <a className={buttonClass()} href={`/api/jobs/${jobId}/archive`}>
          Whole job, zip
        </a>
        <Dialog
          title="Sign the record"
          description="A snapshot of what is true now; it is kept as it is, whatever is measured later"
          open={open}
          onOpenChange={setOpen}
          trigger={
            <Button look="main" className="ml-auto">
              Sign …
            </Button>
          }
        >
          <TextField label="Who signs" value={name} onChange={(event) => setName(event.target.value)} />
          <Faults faults={faults} />
          <Button
            look="main"
            className="self-start"
            disabled={pending || !name.trim()}
            onClick={async () => {
              if ((await run({ id: crypto.randomUUID(), jobId, signedBy: name })).ok) setOpen(false);
            }}
          >
            Sign it
          </Button>
        </Dialog>
      </div>
      {signatures.length > 0 ? (
        <nav aria-label="Signed records" className="flex flex-wrap gap-2">
          <Link
            className={buttonClass('quiet')}
            href={`/jobs/${jobId}/record`}
            aria-current={signature ? undefined : 'page'}
          >
            As it stands
          </Link>
          {signatures.map((each) => (
            <Link
              key={each.number}
              className={buttonClass('quiet')}
              href={`/jobs/${jobId}/record?record=${each.number}`}
              aria-current={signature?.number === each.number ? 'page' : undefined}
            >
              Record {each.number}: {each.signedBy}, {format.day(each.signedAt)}
            </Link>
          ))}
        </nav>
      ) : null}
    </div>
  );
}

function Rounds({ record }: { record: RecordDocument }) {
  const format = useFormat();
  return (
    <Part title="Rounds of measuring">
      <table className="ruled text-sm">
        <thead>
          <tr>
            <th>Round</th>
            <th>State, support</th>
            <th>Instruments</th>
            <th>When, who</th>
            <th className="num">Readings</th>
            <th>Aligned on</th>
          </tr>
        </thead>
        <tbody>
          {record.rounds.map((round) => (
            <tr key={round.number}>
              <td>
                {round.number}. {round.name}
              </td>
              <td>
                {STATE_WORD[round.state as 'cold'] ?? round.state};{' '}
                {SUPPORT_WORD[round.support as 'stands'] ?? round.support},{' '}
                {SUSPENSION_WORD[round.suspension as 'off'] ?? round.suspension}
                {round.temperature === null ? '' : `; ${round.temperature} °C`}
              </td>
              <td>{round.instruments.join(', ')}</td>
              <td>
                {format.day(round.startedAt)}, {round.author}
              </td>
              <td className="num">
                {round.readings}
                {round.struck > 0 ? `, ${round.struck} struck` : ''}
              </td>
              <td>
                {round.control.join(', ') || '–'}
                {round.rms === undefined ? '' : ` (${format.length(round.rms)} ${format.unit} rms)`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Part>
  );
}

function Final({ record }: { record: RecordDocument }) {
  const format = useFormat();
  const { final } = record;
  if (!final) return null;
  const figure = figureOfRecord(record);
  const factor =
    figure.points.length > 0
      ? suggestFactor(
          figure.points.map((point) => norm(point.movement!)),
          layoutOf(figure),
        )
      : 1;
  return (
    <Part title={`Where the shell is: round ${final.round}`}>
      {figure.points.length > 0 ? (
        <Sheet figure={figure} factor={factor} title={[record.job.name, `Round ${final.round}`]} />
      ) : null}
      <table className="ruled mt-3 text-sm">
        <thead>
          <tr>
            <th>Dimension</th>
            <th>Name</th>
            <th className="num">Reference</th>
            <th className="num">Measured</th>
            <th className="num">Deviation</th>
            <th className="num">±</th>
            <th className="num">Limit {format.unit}</th>
            <th>Verdict</th>
          </tr>
        </thead>
        <tbody>
          {final.dimensions.map((row) => (
            <tr key={row.code}>
              <td>{row.code}</td>
              <td>
                {format.name(row.name)}{' '}
                <span className="text-soft">
                  {row.ends}
                  {row.measure === 'level' ? ', level' : ''}
                </span>
              </td>
              <td className="num">{format.length(row.reference)}</td>
              <td className="num">{format.length(row.measured)}</td>
              <td className="num font-medium">{format.difference(row.deviation)}</td>
              <td className="num">{format.length(row.plusMinus)}</td>
              <td className="num">{format.length(row.limit)}</td>
              <td>
                {row.verdict}
                {row.accepted ? ', accepted' : ''}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {final.points.length > 0 ? (
        <table className="ruled mt-3 text-sm">
          <thead>
            <tr>
              <th>Point</th>
              <th className="num">Length</th>
              <th className="num">Width</th>
              <th className="num">Height {format.unit}</th>
              <th className="num">Worst ±</th>
              <th className="num">Limit</th>
              <th>Verdict</th>
            </tr>
          </thead>
          <tbody>
            {final.points.map((row) => (
              <tr key={row.code}>
                <td>
                  {row.code} <span className="text-soft">{format.name(row.name)}</span>
                </td>
                {row.deviation.map((value, i) => (
                  <td key={i} className="num">
                    {format.difference(value)}
                  </td>
                ))}
                <td className="num">{format.length(Math.max(...row.plusMinus))}</td>
                <td className="num">{format.length(row.limit)}</td>
                <td>
                  {row.verdict}
                  {row.control ? ', control' : ''}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </Part>
  );
}

function Changes({ record: { changes } }: { record: RecordDocument }) {
  const format = useFormat();
  if (!changes || changes.rows.length === 0) return null;
  return (
    <Part title={`What changed from round ${changes.earlier} to round ${changes.later}`}>
      {changes.cautions.map((caution) => (
        <p key={caution}>{CAUTION_WORD[caution]}</p>
      ))}
      <table className="ruled text-sm">
        <tbody>
          {changes.rows.map((row) => (
            <tr key={row.code}>
              <td>{row.code}</td>
              <td className="text-soft">{format.name(row.name)}</td>
              <td className="num font-medium">{format.difference(row.change)}</td>
              <td className="num">{format.plusMinus(row.plusMinus)}</td>
              <td>{row.verdict}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Part>
  );
}

function Gaps({ record: { final } }: { record: RecordDocument }) {
  const format = useFormat();
  if (!final || final.gaps.length === 0) return null;
  return (
    <Part title="Gaps and flushness">
      <table className="ruled text-sm">
        <tbody>
          {final.gaps.map((gap) => (
            <tr key={`${gap.seam}${gap.station}${gap.quantity}`}>
              <td>
                {gap.seam}.{gap.station} {gap.quantity}
              </td>
              <td className="text-soft">
                {format.name(gap.name)}, {gap.side}
              </td>
              <td className="num">
                {gap.quantity === 'flush' ? format.difference(gap.measured) : format.length(gap.measured)}
              </td>
              <td className="num text-soft">wanted {format.length(gap.target)}</td>
              <td className="num">{format.plusMinus(gap.plusMinus)}</td>
              <td>{gap.verdict}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Part>
  );
}

function Work({ record: { braces, pulls } }: { record: RecordDocument }) {
  const format = useFormat();
  if (braces.length + pulls.length === 0) return null;
  return (
    <Part title="Braces and pulls">
      <ul className="text-sm">
        {braces.map((brace) => (
          <li key={brace.code}>
            {brace.code}: {brace.ends}, {BRACE_WORD[brace.kind]}, {brace.section}
            {brace.length === undefined ? '' : `, ${format.length(brace.length)} ${format.unit}`}; held{' '}
            {brace.holds.join(', ') || 'nothing named'}; {brace.state}
          </li>
        ))}
        {pulls.map((pull) => (
          <li key={pull.code}>
            {pull.code} at {pull.point}: {format.length(pull.distance)} {format.unit} wanted; held:{' '}
            {pull.heldAt || 'not said'}
            {pull.springBacks.length > 0
              ? `; sprang back ${pull.springBacks.map(format.difference).join(', ')} ${format.unit}`
              : ''}
          </li>
        ))}
      </ul>
    </Part>
  );
}

function Log({ record: { log } }: { record: RecordDocument }) {
  const format = useFormat();
  if (log.length === 0) return null;
  return (
    <Part title="Findings and decisions">
      <ol className="text-sm">
        {log.map((entry, i) => (
          <li key={i} className="border-b border-faint py-1">
            <span className="caps">{entry.kind}</span> {format.day(entry.at)}, {entry.author}
            {entry.about.length > 0 ? ` · ${entry.about.join(', ')}` : ''}
            <br />
            {format.name(entry.text)}
            {entry.reason ? ` Because: ${format.name(entry.reason)}` : ''}
          </li>
        ))}
      </ol>
    </Part>
  );
}

function Photographs({ record: { photographs } }: { record: RecordDocument }) {
  if (photographs.length === 0) return null;
  return (
    <Part title="Photographs">
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        {photographs.map((photograph) => (
          <figure key={photograph.id} className="break-inside-avoid">
            <img
              src={`/api/photographs/${photograph.id}?preview`}
              alt={photograph.name}
              className="w-full border border-rule"
            />
            <figcaption className="text-sm text-soft">
              {photograph.name}, {photograph.author}
            </figcaption>
          </figure>
        ))}
      </div>
    </Part>
  );
}

function Statement({ record, signature }: { record: RecordDocument; signature?: Signature }) {
  const format = useFormat();
  return (
    <Part title="How sure this is, and who signs">
      <p className="text-sm">{UNCERTAINTY_STATEMENT}</p>
      <div className="mt-8 grid grid-cols-2 gap-8">
        <p className="border-t border-ink pt-1 text-sm">
          {signature ? `${signature.signedBy}, ${format.day(signature.signedAt)}` : 'not signed yet'}
          <br />
          <span className="text-soft">for {record.job.shop || 'the shop'}</span>
        </p>
        <p className="border-t border-ink pt-1 text-sm text-soft">received by the owner</p>
      </div>
    </Part>
  );
}
