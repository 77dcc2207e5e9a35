import type { JobRows } from '@/core/shell/job/job-rows';
import { judgeRound, type RoundJudgement } from '@/core/round/judge/judgement';
import { coordinatesOf } from '@/core/round/net/net';
import { helpfulTargets, walkTargets, type Aim, type Target } from '@/core/walk/targets';

/** What the measuring screen asks: the round judged, and what to measure next. */
export interface JudgeRequest {
  readonly rows: JobRows;
  readonly roundId: string;
  /** Spread of the instruments in hand: distance = constant + share · length in metres, mm. */
  readonly hands: {
    readonly constant: number;
    readonly perMetre: number;
    readonly height: number;
  };
  readonly aim: Aim;
  /** The walk is planned anew when this changes. */
  readonly planKey: string;
}

export type JudgeAnswer =
  | { readonly kind: 'judged'; readonly judgement: RoundJudgement; readonly milliseconds: number }
  | { readonly kind: 'helpful' | 'walk'; readonly targets: readonly Target[] };

const PROPOSALS = 6;
/** What to measure next is worked out when no newer reading has come for so long, ms. */
const PAUSE = 60;

let last: { roundId: string; coordinates: ReadonlyMap<string, readonly number[]> } | undefined;
let planned = '';
let pause: ReturnType<typeof setTimeout> | undefined;

const answer = (message: JudgeAnswer) => postMessage(message);

addEventListener('message', ({ data: request }: MessageEvent<JudgeRequest>) => {
  clearTimeout(pause);
  const { rows, roundId } = request;
  const round = rows.rounds.find((each) => each.id === roundId)!;
  const begun = performance.now();
  const warm = last?.roundId === roundId ? last.coordinates : undefined;
  const judgement = judgeRound(rows, round, warm);
  const { solution } = judgement.net;
  last = solution && { roundId, coordinates: coordinatesOf(solution) };
  answer({ kind: 'judged', judgement, milliseconds: performance.now() - begun });
  pause = setTimeout(() => plan(request, judgement), PAUSE);
});

function plan({ rows, hands, aim, planKey }: JudgeRequest, judgement: RoundJudgement): void {
  const { constant, perMetre, height } = hands;
  const spread = { height, distance: (length: number) => constant + (perMetre * length) / 1000 };
  if (planned !== planKey) {
    planned = planKey;
    answer({
      kind: 'walk',
      targets: walkTargets(rows, judgement.round, judgement.references, spread),
    });
  }
  answer({ kind: 'helpful', targets: helpfulTargets(rows, judgement, spread, aim, PROPOSALS) });
}
