import { Printer } from 'lucide-react';
import { Link } from '../kit/link';
import type { RecordOpen } from '@/core/shell/record-document';
import { SignDialog, type RecordSigning } from './sign-dialog';
import { Button, buttonClass } from '../kit/button';
import { FetchedDownload } from '../kit/fetched-download';
import { useFormat } from '../shell/preferences-context';
import type { Signature } from '@/formats/record-tables';

/** What can be done with the record: print, take along, sign. */
export function Toolbar({
  jobId,
  signature,
  signatures,
  open,
  signing,
}: {
  jobId: string;
  signature?: Signature;
  signatures: readonly Signature[];
  /** What is open in the record shown. */
  open: readonly RecordOpen[];
  signing: RecordSigning;
}) {
  const format = useFormat();
  const which = `&record=${signature?.number ?? 'now'}`;
  return (
    <div className="no-print flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-2">
        <Button onClick={() => window.print()}>
          <Printer size={18} aria-hidden /> Print
        </Button>
        <FetchedDownload href={`/api/jobs/${jobId}/record?paper=a4${which}`}>PDF, A4</FetchedDownload>
        <FetchedDownload href={`/api/jobs/${jobId}/record?paper=letter${which}`}>PDF, Letter</FetchedDownload>
        <a className={buttonClass()} href={`/api/jobs/${jobId}/readings`}>
          Readings, CSV
        </a>
        <a className={buttonClass()} href={`/api/jobs/${jobId}/archive`}>
          Whole job, zip
        </a>
        {signature?.hash ? (
          <a className={buttonClass()} href={`/api/jobs/${jobId}/record/signed?record=${signature.number}`}>
            Signed record
          </a>
        ) : null}
        <Link className={buttonClass('quiet')} href="/check">
          Check a record
        </Link>
        {signature ? null : <SignDialog jobId={jobId} open={open} signing={signing} />}
      </div>
      {signatures.length > 0 ? (
        <nav aria-label="Signed records" className="flex flex-wrap gap-2">
          <Link
            className={buttonClass('quiet')}
            href={`/jobs/${jobId}/record?record=now`}
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
