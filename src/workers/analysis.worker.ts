import type { JobRows } from '@/core/shell/job/job-rows';
import { analyseRound, type Agree, type RoundAnalysis } from '@/core/findings/analysis';
import { judgeRound } from '@/core/round/judge/judgement';

/** What the sheet asks beyond single figures. */
export interface AnalysisRequest {
  readonly rows: JobRows;
  readonly roundId: string;
  readonly agree: Agree;
}

export interface AnalysisAnswer {
  readonly analysis: RoundAnalysis;
  /** How long the whole took, the judging included, ms. */
  readonly milliseconds: number;
}

addEventListener('message', ({ data }: MessageEvent<AnalysisRequest>) => {
  const { rows, roundId, agree } = data;
  const round = rows.rounds.find((each) => each.id === roundId)!;
  const begun = performance.now();
  const analysis = analyseRound(rows, judgeRound(rows, round), agree);
  const answer: AnalysisAnswer = { analysis, milliseconds: performance.now() - begun };
  postMessage(answer);
});
