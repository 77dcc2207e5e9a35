import { notFound } from 'next/navigation';
import { templatesOf } from '@/core/report/pages/cutting';
import { Job } from '@/core/shell/job/job';
import { downloadHeaders, fileName } from '@/formats/file-name';
import { formatterFor } from '@/formats/formatter';
import { renderTemplatePdf } from '@/formats/pdf/template-pdf';
import { readPreferences } from '@/formats/preferences';
import { machineZone } from '@/formats/shop-time';
import { preferencesCookie } from '@/server/preferences';
import { jobRows } from '@/server/views';

/** A template at true scale, as a PDF on A4. */
export async function GET(
  _: Request,
  { params }: { params: Promise<{ job: string; template: string }> },
): Promise<Response> {
  const { job, template } = await params;
  const view = templatesOf(Job.of(await jobRows(job))).find((each) => each.template.id === template);
  if (!view) notFound();
  const format = formatterFor(readPreferences(await preferencesCookie()), machineZone());
  const pdf = await renderTemplatePdf({ view, format });
  return new Response(new Uint8Array(pdf), {
    headers: downloadHeaders('application/pdf', `${fileName(view.template.name)}.pdf`),
  });
}
