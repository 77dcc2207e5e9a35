import { once } from '../../maths/once';
import type { Panel } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { frameOf } from '../../structure/shell-model';
import { stageStiffness } from '../../structure/slack';
import { AS_BEFORE } from './brace-advice';
import type { CutModel } from './cut-model';
import { bracesIn, goneWith, leftAfter, strutsOf } from './stages';
import { giveIn, givesAfter, uncutSags } from './worked-stages';

/** The order in which the panels of a stage are best taken out. */
export interface RemovalOrder {
  readonly panels: readonly {
    readonly panelId: string;
    readonly part: string;
    /** The largest share of what it may give that a length gives once this one is out; Infinity where a part comes loose. */
    readonly looseness: number;
    readonly lengthId?: string;
  }[];
  /** As the panels stand in their stage now, it is as good. */
  readonly asPlanned: boolean;
}

/** How loose the shell is with some of a stage's panels out. */
interface Loose {
  readonly ratio: number;
  readonly lengthId?: string;
}

/** Of more panels than this not every order is looked at, but each next panel is the one that leaves the shell tightest. */
const ALL_ORDERS = 5;

/**
 * The order of a stage's panels in which the shell stays as tight as it can for as long as it can, with the braces in that are
 * planned: the loosest state on the way is as tight as possible, then the sum over all of them as small. What is loose is a state
 * of the panels that are out, whichever came first, so that the best way to each set of them is the best to one fewer and one more
 * (Held and Karp 1962).
 *
 * @returns undefined where there is nothing to order
 */
export function removalOrder(
  job: Job,
  cut: CutModel,
  stage: number,
  progress: (share: number) => void = () => undefined,
): RemovalOrder | undefined {
  const { panels } = cut.stages[stage]!;
  if (panels.length < 2) return undefined;
  const looseWith = looseness(job, cut, stage);
  const ways = panels.length <= ALL_ORDERS ? bestWay(panels, looseWith, progress) : nextTightest(panels, looseWith);
  const costOf = (order: readonly Panel[]) => costAlong(order, looseWith);
  const [best, planned] = [costOf(ways), costOf(panels)];
  const asPlanned = !isLess(best, planned);
  const order = asPlanned ? panels : ways;
  return {
    asPlanned,
    panels: order.map((panel, i) => {
      const { ratio, lengthId } = looseWith(order.slice(0, i + 1));
      return { panelId: panel.id, part: panel.part, looseness: ratio, ...(lengthId ? { lengthId } : {}) };
    }),
  };
}

type LooseWith = (out: readonly Panel[]) => Loose;

function looseness(job: Job, cut: CutModel, stage: number): LooseWith {
  const { before } = cut.stages[stage]!;
  const { model } = cut.structure;
  const soft = cut.stiffness.low;
  const struts = strutsOf(bracesIn(cut.braces, cut.stages, stage));
  const sags = uncutSags(cut, soft);
  // What gave as much in the uncut shell is none of the order's doing.
  const uncut = givesAfter(cut, -1, soft, false);
  const limits = cut.lengths.map(({ limit }, d) => Math.max(limit, AS_BEFORE * (uncut?.[d]?.hand ?? 0)));
  const known = new Map<string, Loose>();
  const keyOf = (out: readonly Panel[]) =>
    out
      .map(({ id }) => id)
      .toSorted()
      .join();
  return (out) =>
    once(known, keyOf(out), (): Loose => {
      const metal = [...before, ...out.map((panel) => ({ panel }))];
      const gone = goneWith(job, metal);
      const isThere = (node: number) => !gone.has(model.nodes[node]!.pointId ?? '');
      const supports = cut.stands.supports.filter(({ node }) => isThere(node));
      const of = stageStiffness(frameOf(model, supports, leftAfter(job, model, metal), soft), [], struts);
      if (!of.ok) return { ratio: Number.POSITIVE_INFINITY };
      let worst: Loose = { ratio: 0 };
      cut.lengths.forEach((length, d) => {
        const give = isThere(length.from) && isThere(length.to) ? giveIn(of.value, length, sags[d]!) : undefined;
        const ratio = give ? Math.max(give.hand, Math.abs(give.sag)) / limits[d]! : 0;
        if (ratio > worst.ratio) worst = { ratio, lengthId: length.id };
      });
      return worst;
    });
}

/** The loosest state before the last panel is out, and the sum over all of these. */
type Cost = readonly [loosest: number, sum: number];

const NOTHING_MORE = 1e-9;
const isLess = ([a, b]: Cost, [c, d]: Cost): boolean =>
  a < c * (1 - NOTHING_MORE) || (a <= c * (1 + NOTHING_MORE) && b < d * (1 - NOTHING_MORE));

const costAlong = (order: readonly Panel[], looseWith: LooseWith): Cost =>
  order.slice(1).reduce<Cost>(
    ([loosest, sum], _, i) => {
      const { ratio } = looseWith(order.slice(0, i + 1));
      return [Math.max(loosest, ratio), sum + ratio];
    },
    [0, 0],
  );

function bestWay(panels: readonly Panel[], looseWith: LooseWith, progress: (share: number) => void): readonly Panel[] {
  const whole = 2 ** panels.length - 1;
  const ways = new Map<number, { readonly order: readonly Panel[]; readonly cost: Cost }>();
  ways.set(0, { order: [], cost: [0, 0] });
  for (let set = 1; set <= whole; set++) {
    const members = panels.filter((_, i) => set & (1 << i));
    const ratio = set === whole ? 0 : looseWith(members).ratio;
    for (const [i, panel] of panels.entries()) {
      if (!(set & (1 << i))) continue;
      const { order, cost } = ways.get(set ^ (1 << i))!;
      const next: Cost = [Math.max(cost[0], ratio), cost[1] + ratio];
      const known = ways.get(set);
      if (!known || isLess(next, known.cost)) ways.set(set, { order: [...order, panel], cost: next });
    }
    progress(set / whole);
  }
  return ways.get(whole)!.order;
}

function nextTightest(panels: readonly Panel[], looseWith: LooseWith): readonly Panel[] {
  let out: readonly Panel[] = [];
  while (out.length < panels.length) {
    const left = panels.filter((panel) => !out.includes(panel));
    const after = left.map((panel) => looseWith([...out, panel]).ratio);
    out = [...out, left[after.indexOf(Math.min(...after))]!];
  }
  return out;
}
