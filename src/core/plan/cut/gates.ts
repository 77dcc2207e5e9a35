import { braceState } from '../../findings/brace-pull';
import { didItMove } from '../../findings/movement';
import { judgeRound } from '../../round/judge/judge-round';
import type { RoundJudgement } from '../../round/judge/judgement';
import type { WorkEvent } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { lossesBeforeCut } from '../../walk/before-cut';
import { nodeWord } from '../../structure/shell-model';
import { blastings, unreadBlastings } from './blasting';
import { supportsAfter, type CutModel } from './cut-model';
import { bracesIn } from './stages';

/** What is looked at before metal comes out. The program sees some of it itself; the rest somebody ticks. */
export const GATE_KEYS = [
  'asFound',
  'openings',
  'newPanel',
  'braces',
  'braced',
  'references',
  'blasting',
  'cutLines',
  'support',
  'oneSide',
  'stress',
  'lines',
  'charges',
  'tank',
  'struts',
  'glass',
  'stands',
  'inside',
  'identity',
] as const;
export type GateKey = (typeof GATE_KEYS)[number];

export interface Gate {
  readonly key: GateKey;
  /** Done; open; open but passed over for a reason. */
  readonly state: 'done' | 'open' | 'passed';
  /** Somebody ticks it; otherwise the program sees it done. */
  readonly byHand: boolean;
  /** What is still open of it: codes of dimensions, braces, points, lines, mounts. */
  readonly open: readonly string[];
  readonly last?: Pick<WorkEvent, 'author' | 'at' | 'reason'>;
}

/** A line read back differs from what was meant by more than a scriber's width, mm. */
const READ_BACK = 1;
/** Fewer than three mounts hold no shell. */
const HOLDS = 3;

/** The gates before a stage, in the order they are looked at. */
export function gatesBefore(job: Job, cut: CutModel, stage: number): Gate[] {
  const { id, panels } = cut.stages[stage]!;
  const events = job.rows.workEvents.filter(({ itemId }) => itemId === id);
  const told = (key: GateKey) => events.findLast((event) => event.key === key);
  const seen = seenBefore(job, cut, stage);
  const stressed = panels.some((panel) => panel.stressed);
  const asked: Partial<Record<GateKey, boolean>> = { stress: stressed, blasting: blastings(job).length > 0 };
  return GATE_KEYS.filter((key) => asked[key] ?? true).flatMap((key): Gate[] => {
    const last = told(key);
    const open = seen[key];
    const byHand = open === undefined;
    const done = byHand ? last?.kind === 'ticked' : open !== 'untold' && open.length === 0;
    const state = done ? 'done' : last?.kind === 'passed' ? 'passed' : 'open';
    return [
      {
        ...{ key, state, byHand, open: Array.isArray(open) ? open : [] },
        ...(last && state !== 'open' ? { last: { author: last.author, at: last.at, reason: last.reason } } : {}),
      },
    ];
  });
}

/** What the program sees of a gate: what is open of it, or that nothing tells it yet. */
type Seen = { readonly [K in GateKey]?: readonly string[] | 'untold' };

function seenBefore(job: Job, cut: CutModel, stage: number): Seen {
  const { latest, stages } = cut;
  const { panels } = stages[stage]!;
  const own = new Set(panels.map(({ id }) => id));
  const rounds = job.ownRounds;
  const asFound = rounds.find(
    (round) => job.stateOf(round).kind === 'asFound' && job.standingReadings(round).length > 0,
  );
  const lines = job.rows.cutLines.filter(({ panelId }) => own.has(panelId));
  const left = supportsAfter(cut, stage);
  return {
    asFound: asFound ? [] : 'untold',
    openings: latest ? openingsOff(latest) : 'untold',
    braces: bracesIn(cut.braces, stages, stage).flatMap(({ brace }) =>
      braceState(job, brace) === 'fitted' ? [] : [brace.code],
    ),
    braced: bracedRound(job, asFound && judgeRound(job, asFound)),
    references: latest
      ? lossesBeforeCut(job, latest)
          .filter(({ panelId }) => own.has(panelId))
          .flatMap(({ points }) =>
            points.flatMap((point) => (point.outcome === 'recorded' ? [] : [job.code(point.pointId)])),
          )
      : 'untold',
    blasting: unreadBlastings(job).map(({ item }) => item.name),
    cutLines: lines.flatMap(({ label, distance, readBack }) =>
      readBack === null || Math.abs(readBack - distance) > READ_BACK ? [label] : [],
    ),
    support:
      left.length >= HOLDS
        ? []
        : cut.stands.supports
            .filter((support) => !left.includes(support))
            .map(({ node }) => nodeWord(cut.structure.model.nodes[node]!)),
    oneSide: openSides(cut, stage),
  };
}

/** Dimensions that the last round found outside their limits, or cannot decide: bracing freezes them so. */
const openingsOff = ({ dimensions }: RoundJudgement): string[] =>
  dimensions.flatMap(({ dimension, judged }) => (judged && judged.verdict !== 'inside' ? [dimension.code] : []));

/** Whether a round was taken after the last brace was fitted, and which lengths bracing itself moved. */
function bracedRound(job: Job, asFound: RoundJudgement | undefined): readonly string[] | 'untold' {
  const fitted = job.braceEvents.filter(({ kind }) => kind === 'fitted').at(-1);
  if (!fitted) return job.braces.length === 0 ? [] : 'untold';
  const braced = job.ownRounds.findLast(
    (round) =>
      job.stateOf(round).kind === 'braced' && job.standingReadings(round).some(({ takenAt }) => takenAt >= fitted.at),
  );
  if (!braced || !asFound) return 'untold';
  const { lengths } = didItMove(job, asFound, judgeRound(job, braced));
  return lengths.flatMap(({ dimension, moved }) => (moved ? [dimension.code] : []));
}

/** Sides that are open at once: one side is finished before the other is begun. */
function openSides({ stages }: CutModel, stage: number): string[] {
  const open = stages.slice(0, stage + 1).filter(({ state }) => state !== 'in');
  const sides = new Set(
    open.flatMap(({ panels }) => panels.map(({ side }) => side)).filter((side) => side !== 'centre'),
  );
  return sides.size > 1 ? [...sides] : [];
}
