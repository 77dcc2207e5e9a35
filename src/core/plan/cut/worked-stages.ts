import { once, onceFor, onceForSame } from '../../maths/once';
import type { ShellFrame, Strut } from '../../structure/shell-frame';
import {
  sagOf,
  slackOf,
  stageStiffness,
  stageTimesAsStiff,
  withBraces,
  type StageResult,
  type StageStiffness,
} from '../../structure/slack';
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

/** Stages kept without their braces: those of a few jobs. */
const STAGES_KEPT = 24;

/** A shell at the stiffness of its sheet, with no brace in; the same one for the same shell, whatever braces are planned. */
const bareStage = onceForSame(STAGES_KEPT, (frame: ShellFrame): StageResult => stageStiffness(frame, []));

/** How lengths give in a bare stage, by these lengths and by how they sag in the uncut shell. */
const bareGives = onceFor((_: StageStiffness) => new Map<string, Gives>());

/**
 * The stages of a cut model factorised, and how its lengths give in them, each worked out once. Where no brace is in, the shell
 * is one at every stiffness: everything it gives goes by one over it.
 */
class WorkedStages {
  private readonly results = new Map<string, StageResult>();
  private readonly gives = new Map<string, Gives | undefined>();

  constructor(private readonly cut: CutModel) {}

  after(stage: number, stiffness: number, braced: boolean): StageResult {
    const struts = braced ? this.strutsIn(stage) : [];
    const base = this.base(stage);
    // At its own stiffness it is the same one, and what was worked out of it is known.
    const bare = once(this.results, `${stage} ${stiffness}`, (): StageResult =>
      base.ok && stiffness !== 1 ? { ok: true, value: stageTimesAsStiff(base.value, stiffness) } : base,
    );
    if (struts.length === 0) return bare;
    return once(this.results, `${stage} ${stiffness} braced`, (): StageResult => {
      const value = bare.ok ? withBraces(bare.value, struts) : undefined;
      return value ? { ok: true, value } : stageStiffness(frameAfter(this.cut, stage, stiffness), [], struts);
    });
  }

  givesAfter(stage: number, stiffness: number, braced: boolean): Gives | undefined {
    if (braced && this.strutsIn(stage).length > 0)
      return once(this.gives, `${stage} ${stiffness}`, () => {
        const of = this.after(stage, stiffness, true);
        return of.ok ? this.givesIn(of.value, stage, uncutSags(this.cut, stiffness)) : undefined;
      });
    return this.bareAfter(stage)?.map((give) => give && { hand: give.hand / stiffness, sag: give.sag / stiffness });
  }

  private base(stage: number): StageResult {
    return once(this.results, `${stage}`, () => bareStage(frameAfter(this.cut, stage, 1)));
  }

  private strutsIn(stage: number): readonly Strut[] {
    return bracesIn(this.cut.braces, this.cut.stages, stage).map(({ strut }) => strut);
  }

  private bareAfter(stage: number): Gives | undefined {
    const of = this.base(stage);
    if (!of.ok) return undefined;
    const uncut = uncutSags(this.cut, 1);
    const gone = [...(this.cut.stages[stage]?.goneIds ?? [])];
    const key = JSON.stringify([this.cut.lengths.map(({ from, to }) => [from, to]), gone, uncut]);
    return once(bareGives(of.value), key, () => this.givesIn(of.value, stage, uncut));
  }

  private givesIn(of: StageStiffness, stage: number, uncut: readonly number[]): Gives {
    const { cut } = this;
    const gone = cut.stages[stage]?.goneIds;
    const { nodes } = cut.structure.model;
    return cut.lengths.map((length, d): Give | undefined => {
      // Where an end left with the metal there is no length any more, though the place still moves.
      if ([length.from, length.to].some((node) => gone?.has(nodes[node]!.pointId ?? ''))) return undefined;
      const slack = slackOf(of, length, HANDLING, uncut[d]!);
      return slack && { hand: Math.max(Math.abs(slack.push), Math.abs(slack.worst)), sag: slack.sag };
    });
  }
}

const workedStages = onceFor((cut: CutModel) => new WorkedStages(cut));

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
