import { theJob } from '@/core/shell/job/job-rows';
import { fileName } from '@/formats/file-name';
import { formatterFor } from '@/formats/formatter';
import { renderRecordPdf } from '@/formats/pdf/record-pdf';
import { readPreferences } from '@/formats/preferences';
import { machineZone } from '@/formats/shop-time';
import { preferencesCookie } from '@/server/preferences';
import { recordOf } from '@/server/record';
import { jobRows, photographPreviews } from '@/server/views';

/** The record as a PDF, A4 or Letter, in the reader's units and words. */
export async function GET(request: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const query = new URL(request.url).searchParams;
  const rows = await jobRows((await params).job);
  const { record, signature } = await recordOf(rows, query.get('record'));
  const pdf = await renderRecordPdf({
    record,
    signature,
    paper: query.get('paper') === 'letter' ? 'LETTER' : 'A4',
    format: formatterFor(readPreferences(await preferencesCookie()), machineZone()),
    previews: await photographPreviews(record.photographs.map((photograph) => photograph.id)),
  });
  return new Response(new Uint8Array(pdf), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(fileName(theJob(rows).name))}-record.pdf`,
    },
  });
}
