import { FileDown, Printer } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import type { Signing } from '@/formats/inputs/log';
import { Button, buttonClass } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { useAction, type Action } from '../kit/use-action';
import { useFormat, usePreferences } from '../shell/preferences-context';
import type { Signature } from '@/formats/record-tables';

/** What can be done with the record: print, take along, sign. */
export function Toolbar({
  jobId,
  signature,
  signatures,
  signRecord,
}: {
  jobId: string;
  signature?: Signature;
  signatures: readonly Signature[];
  signRecord: Action<Signing, { number: number }>;
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
