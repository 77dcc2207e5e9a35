import type { RecordDocument } from '@/core/shell/record-document';
import { UNCERTAINTY_STATEMENT } from '@/core/report/statement';
import { conformityPart } from '@/formats/record-made';
import {
  entryHead,
  entryText,
  hashLine,
  signedBy,
  toldParts,
  workLines,
  type Signature,
} from '@/formats/record-tables';
import { useFormat } from '../shell/preferences-context';
import { Part } from './part';

export function Work({ record }: { record: RecordDocument }) {
  const lines = workLines(record, useFormat());
  if (lines.length === 0) return null;
  return (
    <Part title="Braces and pulls">
      <ul className="text-sm">
        {lines.map(({ code, text }) => (
          <li key={code}>
            {code}: {text}
          </li>
        ))}
      </ul>
    </Part>
  );
}

export function Log({ record: { log } }: { record: RecordDocument }) {
  const format = useFormat();
  if (log.length === 0) return null;
  return (
    <Part title="Findings and decisions">
      <ol className="text-sm">
        {log.map((entry, i) => (
          <li key={i} className="border-b border-faint py-1">
            <span className="text-soft">{entryHead(entry, format)}</span>
            <br />
            <span data-typed>{entryText(entry, format)}</span>
          </li>
        ))}
      </ol>
    </Part>
  );
}

/** Whether the shell conforms, what was accepted, and what is in the way of saying so. */
export function Conformity({ record: { conformity } }: { record: RecordDocument }) {
  const format = useFormat();
  if (!conformity) return null;
  const { title, lines, accepted } = conformityPart(conformity, format);
  return (
    <Part title={title}>
      <ul data-conformity={conformity.verdict}>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
        {accepted.map(({ what, reason }) => (
          <li key={what}>
            {what} <span data-typed>{reason}</span>
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** What is told in lines: doubts, steps, mornings, parts, what was taken back, what is open. */
export function Told({ record, signed }: { record: RecordDocument; signed: boolean }) {
  const parts = toldParts(record, useFormat(), signed);
  return parts.map(({ title, lines }) => (
    <Part key={title} title={title}>
      <ul className="text-sm">
        {lines.map((line, i) => (
          <li key={i}>{line}</li>
        ))}
      </ul>
    </Part>
  ));
}

export function Photographs({ record: { photographs } }: { record: RecordDocument }) {
  const format = useFormat();
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
              {format.name(photograph.name)}, {photograph.author}
            </figcaption>
          </figure>
        ))}
      </div>
    </Part>
  );
}

export function Statement({ record, signature }: { record: RecordDocument; signature?: Signature }) {
  const format = useFormat();
  const hash = hashLine(signature);
  return (
    <Part title="How sure this is, and who signs">
      <p className="text-sm">{UNCERTAINTY_STATEMENT}</p>
      {hash ? <p className="num text-sm break-words">{hash}</p> : null}
      <div className="mt-8 grid grid-cols-2 gap-8">
        <p className="border-t border-ink pt-1 text-sm">
          {signedBy(signature, format)}
          <br />
          <span className="text-soft">for {record.job.shop || 'the shop'}</span>
        </p>
        <p className="border-t border-ink pt-1 text-sm text-soft">received by the owner</p>
      </div>
    </Part>
  );
}
