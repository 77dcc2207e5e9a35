import { only } from '@/core/shell/job/job-rows';
import { Link } from '@/ui/kit/link';
import { Job } from '@/core/shell/job/job';
import { acceptedSubjects } from '@/core/report/record/accepted';
import { runTask } from '@/server/tasks';
import { elsewhere, jobRows } from '@/server/views';
import { buttonClass } from '@/ui/kit/button';
import { readAxles } from '@/server/actions/welding';
import { Axles } from '@/ui/verify/axles';
import { Board } from '@/ui/verify/board';
import { Compare, type CompareView } from '@/ui/work/compare';
import { RungPage, type JobParams } from '../rung-page';

type Query = { readonly searchParams: Promise<{ from?: string; to?: string }> };

export default async function Page({ params, searchParams }: JobParams & Query) {
  const rows = await jobRows((await params).job);
  const { from, to } = await searchParams;
  const job = Job.of(rows);
  const rounds = job.ownRounds.filter((round) => rows.readings.some(({ roundId }) => roundId === round.id));
  const later = rounds.find((round) => round.id === to) ?? rounds.at(-1);
  const earlier = rounds.find((round) => round.id === from) ?? rounds.filter((round) => round !== later).at(-1);
  const compared = earlier && later && (await runTask('compare', rows, { earlierId: earlier.id, laterId: later.id }));
  const view: CompareView | undefined =
    later && compared ? { ...compared, accepted: [...acceptedSubjects(job, later)] } : undefined;
  const board = await runTask('verification', rows, await elsewhere(job.row.id));
  return (
    <RungPage
      rows={rows}
      rung="verify"
      place={
        <>
          <Board jobId={job.row.id} board={board} />
          {later ? (
            <Axles
              {...(board.axles ? { read: board.axles } : {})}
              job={job.row}
              rounds={rounds.map(({ id, number, name }) => ({ id, number, name }))}
              readAxles={readAxles}
            />
          ) : null}
        </>
      }
    >
      <Compare rows={only(rows, 'jobs', 'rounds', 'points')} view={view} />
      <p>
        <Link className={buttonClass('main')} href={`/jobs/${job.row.id}/record`}>
          To the record
        </Link>
      </p>
    </RungPage>
  );
}
