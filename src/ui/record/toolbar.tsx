import { Printer } from 'lucide-react';
import Link from 'next/link';
import type { Signing } from '@/formats/inputs/log';
import type { RecordOpen } from '@/core/shell/record-document';
import { SignDialog } from './sign-dialog';
import { Button, buttonClass } from '../kit/button';
import { FetchedDownload } from '../kit/fetched-download';
import type { Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import type { Signature } from '@/formats/record-tables';

/** What can be done with the record: print, take along, sign. */
export function Toolbar({
  jobId,
  signature,
  signatures,
  open,
  signRecord,
}: {
  jobId: string;
  signature?: Signature;
  signatures: readonly Signature[];
  /** What is open in the record shown. */
  open: readonly RecordOpen[];
  signRecord: Action<Signing, { number: number }>;
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
        {signature ? null : <SignDialog jobId={jobId} open={open} signRecord={signRecord} />}
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
