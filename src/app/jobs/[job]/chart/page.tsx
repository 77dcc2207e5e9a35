import { chartOf } from '@/core/shell/references/chosen';
import { isSealed } from '@/core/shell/references/editions';
import { only } from '@/core/shell/job/job-rows';
import * as chart from '@/server/actions/chart';
import { importChart } from '@/server/actions/import-chart';
import { jobRows } from '@/server/views';
import { ChartPage } from '@/ui/chart/chart-page';

export default async function Page({ params }: { params: Promise<{ job: string }> }) {
  const rows = await jobRows((await params).job);
  const reference = chartOf(rows);
  const { addPoint, savePoint, removePoint, restorePoint, pointUses } = chart;
  const { addDimension, saveDimension, removeDimension } = chart;
  return (
    <ChartPage
      rows={only(
        rows,
        ...(['jobs', 'points', 'dimensions', 'memberLines', 'seams', 'seamStations', 'references'] as const),
        ...(['referencePoints', 'referenceDimensions', 'referenceStations'] as const),
      )}
      sealed={reference !== undefined && isSealed(reference, rows)}
      actions={{
        importChart,
        addPoint,
        savePoint,
        removePoint,
        restorePoint,
        pointUses,
        addDimension,
        saveDimension,
        removeDimension,
      }}
    />
  );
}
