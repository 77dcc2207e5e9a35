import type { Dimension, StateKind } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { judgeRound } from '../round/judge/judge-round';

/** One dimension as each round found it. */
export interface LengthSeries {
  readonly dimension: Dimension;
  readonly reference?: number;
  readonly limit?: number;
  /** In the order of the rounds; rounds that did not measure it are left out. */
  readonly values: readonly { readonly roundId: string; readonly value: number; readonly sd: number }[];
  /** Largest change between any two rounds by what both are known to: the telling ones have most. */
  readonly telling: number;
}

export interface TimeRound {
  readonly id: string;
  readonly number: number;
  readonly name: string;
  readonly state: StateKind;
  readonly at: string;
}

/** Something done to the shell between rounds. */
export interface TimeEvent {
  readonly at: string;
  readonly kind: 'braced' | 'unbraced' | 'pulled' | 'cut' | 'welded' | 'decided';
  readonly text: string;
}

export interface ThroughTime {
  readonly rounds: readonly TimeRound[];
  readonly series: readonly LengthSeries[];
  readonly events: readonly TimeEvent[];
}

/** As measured last it is farther off its reference than its limit. */
const isOutside = ({ values, reference, limit }: LengthSeries): boolean =>
  reference !== undefined && limit !== undefined && Math.abs(values.at(-1)!.value - reference) > limit;

/** Every length of the shell through its rounds, what is outside first, then the telling ones, with what was done in between. */
export function lengthsThroughTime(job: Job): ThroughTime {
  const read = new Set(job.rows.readings.map(({ roundId }) => roundId));
  const rounds = job.ownRounds.filter(({ id }) => read.has(id));
  const judged = rounds.map((round) => judgeRound(job, round));
  const series = job.rows.dimensions.flatMap((dimension): LengthSeries[] => {
    const found = judged.map(({ dimensions }) => dimensions.find((each) => each.dimension.id === dimension.id));
    const values = found.flatMap((each, i) =>
      each?.measured ? [{ roundId: rounds[i]!.id, value: each.measured.value, sd: each.measured.sd }] : [],
    );
    if (values.length === 0) return [];
    const known = found.find((each) => each?.judged)?.judged;
    const telling = Math.max(
      0,
      ...values.flatMap((a, i) => values.slice(i + 1).map((b) => Math.abs(b.value - a.value) / Math.hypot(a.sd, b.sd))),
    );
    return [{ dimension, values, telling, ...(known ? { reference: known.reference, limit: known.limit } : {}) }];
  });
  return {
    rounds: rounds.map((round) => ({
      id: round.id,
      number: round.number,
      name: round.name,
      state: job.stateOf(round).kind,
      at: round.startedAt,
    })),
    series: series.sort(
      (a, b) =>
        Number(isOutside(b)) - Number(isOutside(a)) || b.telling - a.telling || b.values.length - a.values.length,
    ),
    events: eventsOf(job),
  };
}

function eventsOf(job: Job): TimeEvent[] {
  const code = (list: readonly { id: string; code: string }[], id: string) =>
    list.find((each) => each.id === id)?.code ?? '';
  const braces = job.braceEvents.flatMap(({ at, kind, braceId }): TimeEvent[] =>
    kind === 'planned'
      ? []
      : [
          {
            at,
            kind: kind === 'fitted' ? 'braced' : 'unbraced',
            text: `brace ${code(job.braces, braceId)} ${kind}`,
          },
        ],
  );
  const pulls = job.pullEvents.flatMap(({ at, kind, pullId }): TimeEvent[] =>
    kind === 'done' || kind === 'loaded'
      ? [{ at, kind: 'pulled', text: `pull ${code(job.pulls, pullId)} ${kind}` }]
      : [],
  );
  const steps = job.stepEvents.flatMap(({ at, kind, stepId }): TimeEvent[] => {
    const step = job.rows.steps.find(({ id }) => id === stepId);
    if (kind !== 'done' || !step || (step.rung !== 'cut' && step.rung !== 'weld')) return [];
    return [{ at, kind: step.rung === 'cut' ? 'cut' : 'welded', text: step.title }];
  });
  return [...braces, ...pulls, ...steps].sort((a, b) => a.at.localeCompare(b.at));
}
