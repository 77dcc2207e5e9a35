import * as chart from '@/server/actions/chart';
import { jobRows, rowsForRounds } from '@/server/views';
import { ChartPage } from '@/ui/chart/chart-page';

export default async function Page({ params }: { params: Promise<{ job: string }> }) {
  const rows = rowsForRounds(await jobRows((await params).job), []);
  const { importChart, addPoint, savePoint, removePoint, addDimension, saveDimension, removeDimension } = chart;
  return (
    <ChartPage
      rows={rows}
      actions={{
        importChart,
        addPoint,
        savePoint,
        removePoint,
        addDimension,
        saveDimension,
        removeDimension,
      }}
    />
  );
}
