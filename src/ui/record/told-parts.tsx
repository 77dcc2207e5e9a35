import type { RecordDocument } from '@/core/shell/record-document';
import { UNCERTAINTY_STATEMENT } from '@/core/report/statement';
import { BRACE_WORD } from '@/core/report/vocabulary/words';
import { useFormat } from '../shell/preferences-context';
import { Part, type Signature } from './part';

export function Work({ record: { braces, pulls } }: { record: RecordDocument }) {
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

export function Log({ record: { log } }: { record: RecordDocument }) {
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

export function Photographs({ record: { photographs } }: { record: RecordDocument }) {
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

export function Statement({ record, signature }: { record: RecordDocument; signature?: Signature }) {
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
