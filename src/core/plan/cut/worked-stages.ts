import { once, onceFor, onceForSame } from '../../maths/once';
import { propped, type Propped } from '../../structure/props';
import { apart, type ShellFrame, type Strut } from '../../structure/shell-frame';
import {
  sagOf,
  slackOf,
  stageStiffness,
  stageTimesAsStiff,
  withBraces,
  type CriticalLength,
  type StageResult,
  type StageStiffness,
} from '../../structure/slack';
import { frameOf, type Left } from '../../structure/shell-model';
import { largestInBars } from '../../structure/stiffness';
import { frameAfter, type CutModel } from './cut-model';
import { bracesIn, strutsOf, type PlacedBrace } from './stages';

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
  private readonly props = new Map<string, Propped | undefined>();

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
    const propped = braced ? this.propsAfter(stage, stiffness) : undefined;
    if (propped) return this.there(stage, (_, d) => propped.gives[d]);
    if (braced && this.strutsIn(stage).length > 0)
      return once(this.gives, `${stage} ${stiffness}`, () => {
        const of = this.after(stage, stiffness, true);
        return of.ok ? this.givesIn(of.value, stage, uncutSags(this.cut, stiffness)) : undefined;
      });
    return this.bareAfter(stage)?.map((give) => give && { hand: give.hand / stiffness, sag: give.sag / stiffness });
  }

  /** The stage with its props, besides what else holds it; undefined where it has none, or is a mechanism without them. */
  propsAfter(stage: number, stiffness: number): Propped | undefined {
    return once(this.props, `${stage} ${stiffness}`, () => {
      const held = this.after(stage, stiffness, true);
      const props = this.propsIn(stage);
      if (props.length === 0 || !held.ok) return undefined;
      const whole = this.after(-1, stiffness, false);
      const uncut = uncutSags(this.cut, stiffness);
      const placed = props.map(({ strut, brace }) => ({
        ...{ strut, pressed: brace.force ?? 0 },
        // It was put in where the weight had brought its ends before anything was cut.
        stood: whole.ok ? apart(whole.value.frame, strut.from, strut.to, whole.value.sagged) : 0,
      }));
      return propped(held.value, placed, this.cut.lengths, HANDLING, uncut);
    });
  }

  private propsIn(stage: number): readonly PlacedBrace[] {
    const held = this.after(stage, 1, false);
    return bracesIn(this.cut.braces, this.cut.stages, stage).filter(
      ({ brace, from, to }) => brace.kind === 'prop' && held.ok && held.value.stands[from] && held.value.stands[to],
    );
  }

  private base(stage: number): StageResult {
    return once(this.results, `${stage}`, () => bareStage(frameAfter(this.cut, stage, 1)));
  }

  private strutsIn(stage: number): readonly Strut[] {
    return strutsOf(bracesIn(this.cut.braces, this.cut.stages, stage));
  }

  private bareAfter(stage: number): Gives | undefined {
    const of = this.base(stage);
    if (!of.ok) return undefined;
    const gone = [...(this.cut.stages[stage]?.goneIds ?? [])];
    return keptGives(this.cut, of.value, gone, (uncut) => this.givesIn(of.value, stage, uncut));
  }

  private givesIn(of: StageStiffness, stage: number, uncut: readonly number[]): Gives {
    return this.there(stage, (length, d) => giveIn(of, length, uncut[d]!));
  }

  /** Of every length: where an end left with the metal there is none any more, though the place still moves. */
  private there(stage: number, give: (length: CriticalLength, d: number) => Give | undefined): Gives {
    const { stages, structure, lengths } = this.cut;
    const gone = stages[stage]?.goneIds;
    const isThere = (node: number) => !gone?.has(structure.model.nodes[node]!.pointId ?? '');
    return lengths.map((length, d) => (isThere(length.from) && isThere(length.to) ? give(length, d) : undefined));
  }
}

/** How lengths give in a bare stage, kept with it: whatever braces are planned, it gives the same. */
function keptGives(
  cut: CutModel,
  of: StageStiffness,
  gone: readonly string[],
  gives: (uncut: readonly number[]) => Gives,
): Gives {
  const uncut = uncutSags(cut, 1);
  const key = JSON.stringify([cut.lengths.map(({ from, to }) => [from, to]), gone, uncut]);
  return once(bareGives(of), key, () => gives(uncut));
}

/** How every length gives, at the stiffness of the sheet, where so much is left of the metal and no brace is in. */
export function givesOfMetal(cut: CutModel, left: Left): Gives | undefined {
  const of = bareStage(frameOf(cut.structure.model, cut.stands.supports, left));
  if (!of.ok) return undefined;
  return keptGives(cut, of.value, [], (uncut) => cut.lengths.map((length, d) => giveIn(of.value, length, uncut[d]!)));
}

/** How a length gives in a stage without props. */
export function giveIn(of: StageStiffness, length: CriticalLength, uncut: number): Give | undefined {
  const slack = slackOf(of, length, HANDLING, uncut);
  return slack && { hand: Math.max(Math.abs(slack.push), Math.abs(slack.worst)), sag: slack.sag };
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

/** What the hand brings into a brace after a stage, N; of a prop what it carries at rest, and what is left of that wherever it pulls. */
export interface BraceForce {
  readonly braceId: string;
  readonly hand: number;
  readonly carries?: number;
  readonly least?: number;
}

/** The forces in the braces that are in after a stage, at the stiffness that is likeliest. */
export function braceForces(cut: CutModel, stage: number): BraceForce[] {
  const stages = workedStages(cut);
  const { usual } = cut.stiffness;
  const held = stages.after(stage, usual, true);
  if (!held.ok) return [];
  const { stands, stiffness } = held.value;
  const inNow = bracesIn(cut.braces, cut.stages, stage).filter(({ from, to }) => stands[from] && stands[to]);
  const largest = largestInBars(stiffness, HANDLING);
  const props = stages.propsAfter(stage, usual);
  const of = (isProp: boolean) => inNow.filter(({ brace }) => (brace.kind === 'prop') === isProp);
  return [
    ...of(false).map(({ brace }, i) => ({ braceId: brace.id, hand: largest[i] ?? 0 })),
    ...of(true).map(({ brace }, i) => {
      const [carries, least] = [props?.carries[i] ?? 0, props?.least[i] ?? 0];
      return { braceId: brace.id, hand: carries - least, carries, least };
    }),
  ];
}

/** How far every length gives after a stage; undefined where the shell is a mechanism then. */
export const givesAfter = (cut: CutModel, stage: number, stiffness: number, braced: boolean): Gives | undefined =>
  workedStages(cut).givesAfter(stage, stiffness, braced);

/** How far every length of the uncut shell sags, mm. */
export function uncutSags(cut: CutModel, stiffness: number): number[] {
  const whole = stiffnessAfter(cut, -1, stiffness, false);
  return whole.ok ? sagOf(whole.value, cut.lengths) : cut.lengths.map(() => 0);
}
