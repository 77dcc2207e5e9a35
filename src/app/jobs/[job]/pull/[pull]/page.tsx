import { notFound } from 'next/navigation';
import { recordItemEvent, setStroke, withdraw } from '@/server/actions/work';
import { jobAnd, rowsForRounds } from '@/server/views';
import { Pump } from '@/ui/pull/pump';

interface Props {
  readonly params: Promise<{ readonly job: string; readonly pull: string }>;
}

/** One pull at the pump: stroke by stroke. */
export default async function Page({ params }: Props) {
  const { job, pull: pullId } = await params;
  const { rows, made } = await jobAnd(job, 'pulling', undefined);
  const view = made.pulls.find(({ pull }) => pull.id === pullId) ?? notFound();
  return (
    <Pump
      rows={rowsForRounds(
        rows,
        rows.rounds.map(({ id }) => id),
      )}
      view={view}
      points={made.points}
      nodes={made.picture?.nodes ?? []}
      actions={{ recordItemEvent, setStroke, withdraw }}
    />
  );
}
