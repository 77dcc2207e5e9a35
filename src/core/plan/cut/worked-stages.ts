import { onceFor } from '../../maths/once';
import { sagOf, slackOf, stageStiffness, stageTimesAsStiff, type StageResult } from '../../structure/slack';
import { frameAfter, type CutModel } from './cut-model';
import { bracesIn } from './stages';

/** Somebody leaning on the shell while it is worked at, N. */
export const HANDLING = 200;

/** How far a length gives, mm: under the hand as it pushes or anywhere pulls, and under the shell's own weight. */
export interface Give {
  readonly hand: number;
  readonly sag: number;
}

/** How far every length of the model gives; undefined where an end of it is gone. */
type Gives = readonly (Give | undefined)[];

/**
 * The stages of a cut model factorised, and how its lengths give in them, each worked out once. Where no brace is in, the shell
 * is one at every stiffness: everything it gives goes by one over it.
 */
class WorkedStages {
  private readonly results = new Map<string, StageResult>();
  private readonly gives = new Map<string, Gives | undefined>();

  constructor(private readonly cut: CutModel) {}

  after(stage: number, stiffness: number, braced: boolean): StageResult {
    const { braces, stages } = this.cut;
    const struts = braced ? bracesIn(braces, stages, stage).map(({ strut }) => strut) : [];
    if (struts.length > 0)
      return once(this.results, `${stage} ${stiffness} braced`, () =>
        stageStiffness(frameAfter(this.cut, stage, stiffness), [], struts),
      );
    return once(this.results, `${stage} ${stiffness}`, () => {
      const base = once(this.results, `${stage}`, () => stageStiffness(frameAfter(this.cut, stage, 1), []));
      return base.ok ? { ok: true, value: stageTimesAsStiff(base.value, stiffness) } : base;
    });
  }

  givesAfter(stage: number, stiffness: number, braced: boolean): Gives | undefined {
    if (braced && bracesIn(this.cut.braces, this.cut.stages, stage).length > 0)
      return once(this.gives, `${stage} ${stiffness}`, () => this.workedOut(stage, stiffness, true));
    const base = once(this.gives, `${stage}`, () => this.workedOut(stage, 1, false));
    return base?.map((give) => give && { hand: give.hand / stiffness, sag: give.sag / stiffness });
  }

  private workedOut(stage: number, stiffness: number, braced: boolean): Gives | undefined {
    const { cut } = this;
    const of = this.after(stage, stiffness, braced);
    if (!of.ok) return undefined;
    const gone = cut.stages[stage]?.goneIds;
    const { nodes } = cut.structure.model;
    const uncut = uncutSags(cut, stiffness);
    return cut.lengths.map((length, d): Give | undefined => {
      // Where an end left with the metal there is no length any more, though the place still moves.
      if ([length.from, length.to].some((node) => gone?.has(nodes[node]!.pointId ?? ''))) return undefined;
      const slack = slackOf(of.value, length, HANDLING, uncut[d]!);
      return slack && { hand: Math.max(Math.abs(slack.push), Math.abs(slack.worst)), sag: slack.sag };
    });
  }
}

const workedStages = onceFor((cut: CutModel) => new WorkedStages(cut));

function once<Value>(known: Map<string, Value>, key: string, make: () => Value): Value {
  if (!known.has(key)) known.set(key, make());
  return known.get(key)!;
}

/**
 * The shell after a stage, with the braces that are in or with none.
 *
 * @param stage     by its place; −1 is the shell before anything is cut
 * @param stiffness factor on the stiffness of everything but the braces
 */
export const stiffnessAfter = (cut: CutModel, stage: number, stiffness: number, braced: boolean): StageResult =>
  workedStages(cut).after(stage, stiffness, braced);

/** How far every length gives after a stage; undefined where the shell is a mechanism then. */
export const givesAfter = (cut: CutModel, stage: number, stiffness: number, braced: boolean): Gives | undefined =>
  workedStages(cut).givesAfter(stage, stiffness, braced);

/** How far every length of the uncut shell sags, mm. */
export function uncutSags(cut: CutModel, stiffness: number): number[] {
  const whole = stiffnessAfter(cut, -1, stiffness, false);
  return whole.ok ? sagOf(whole.value, cut.lengths) : cut.lengths.map(() => 0);
}
