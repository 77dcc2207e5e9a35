import { judgeRound } from '@/core/round/judge/judgement';
import { openRound } from '@/server/actions/rounds';
import { jobRows, rowsForRounds } from '@/server/views';
import { Rounds, type ListedRound } from '@/ui/work/rounds';
import { RungPage, type JobParams } from '../rung-page';

export default async function Page({ params }: JobParams) {
  const rows = await jobRows((await params).job);
  const rounds = rows.rounds.map((round): ListedRound => {
    const { points, dimensions } = judgeRound(rows, round);
    const verdicts = [...points, ...dimensions].map((each) => each.judged?.verdict);
    const count = (verdict: string) => verdicts.filter((each) => each === verdict).length;
    return {
      round,
      readings: rows.readings.filter((reading) => reading.roundId === round.id).length,
      inside: count('inside'),
      outside: count('outside'),
      undecided: count('undecided'),
    };
  });
  return (
    <RungPage rows={rows} rung="measure">
      <Rounds rows={rowsForRounds(rows, [])} rounds={rounds} openRound={openRound} />
    </RungPage>
  );
}
