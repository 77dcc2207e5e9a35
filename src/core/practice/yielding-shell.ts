import { along, loadOf, type PullAt } from '../plan/pulls/try-pull';
import type { Vector } from '../maths/geometry/vector';
import type { Random } from '../maths/random/seeded';
import { HardeningFrame } from '../structure/hardening';
import { hingesAt } from '../structure/model-hinges';
import type { FrameSupport, NodeVector, ShellFrame } from '../structure/shell-frame';
import { frameOf, type ModelMember, type ShellModel } from '../structure/shell-model';
import { factorise } from '../structure/stiffness';

/** A made-up shell that yields when it is pulled, for practising: what it has turned so far is handed in and out. */
export interface YieldingShell {
  readonly frame: ShellFrame;
  readonly yielding: HardeningFrame;
}

/** The same shell, clamped at further nodes where it rests now; let go of them, it is the first again. */
export function clampedBesides(
  { frame, yielding }: YieldingShell,
  turned: Turned,
  nodes: readonly number[],
): YieldingShell | undefined {
  const clamps = nodes.map((node): FrameSupport => ({ node, fix: ['x', 'y', 'z'] }));
  const supports = [...frame.supports.filter(({ node }) => !nodes.includes(node)), ...clamps];
  const held = { ...frame, supports };
  const result = factorise(held);
  return result.ok
    ? { frame: held, yielding: yielding.heldAnew(result.stiffness, turned ?? yielding.untouched) }
    : undefined;
}

/** Where a shell comes to rest with nothing on it, and what its hinges have turned then. */
export function atRest({ frame, yielding }: YieldingShell, turned: Turned): Omit<Stroked, 'loaded'> {
  const { released, turns } = yielding.load(new Float64Array(6 * frame.nodes.length)).under(0, turned);
  return { rested: released, turned: turns };
}

/** What its hinges have turned; nothing before the first stroke. */
export type Turned = readonly number[] | undefined;

/** One stroke: where everything stands under load and let go, from before the first stroke of all, six freedoms a node, mm and rad. */
export interface Stroked {
  readonly loaded: NodeVector;
  readonly rested: NodeVector;
  readonly turned: readonly number[];
}

/** It differs from any structure made of the same picture by up to this share, part by part. */
const OFF = 0.3;
/** Its strength besides, and how much of it bent metal has left: from … to. */
const STRENGTH = [0.7, 1.3] as const;
const LEFT_OF_BENT = [0.2, 0.6] as const;
/** Bent sheet folds: so much of its stiffness is left. */
const FOLDED = [0.02, 0.08] as const;
/** The middles of its members stand off the straight line by so much, mm. */
const BOWED = 8;
const HARDEST = 1_500_000;

/**
 * A shell like a model but not the model: every member has a node more at its middle, off the line, and its own stiffness; where
 * it was bent it has a hidden strength.
 *
 * @param bent places that are out: the metal that joins there was bent
 * @returns undefined where nothing holds it
 */
export function yieldingShell(
  model: ShellModel,
  supports: readonly FrameSupport[],
  bent: ReadonlySet<number>,
  random: Random,
): YieldingShell | undefined {
  const between = (from: number, to: number) => from + (to - from) * random.next();
  const off = () => between(1 - OFF, 1 + OFF);
  const isBent = (nodes: readonly number[]) => nodes.some((node) => bent.has(node));
  const nodes = [...model.nodes];
  const strength = new Map<string, number>();
  const members = model.members.flatMap((member): ModelMember[] => {
    const middle = nodes.length;
    const [a, b] = [nodes[member.from]!.at, nodes[member.to]!.at];
    const at = a.map((value, k) => (value + b[k]!) / 2 + BOWED * (2 * random.next() - 1)) as unknown as Vector;
    nodes.push({ code: `${member.code} middle`, name: '', at, pointId: null });
    const wall = Math.min(member.wall * off(), 0.45 * Math.min(member.width, member.height));
    const halves: ModelMember[] = [
      { ...member, code: `${member.code} 1`, to: middle, wall },
      { ...member, code: `${member.code} 2`, from: middle, wall },
    ];
    const touches = isBent([member.from, member.to]);
    for (const { code } of halves) strength.set(code, between(...STRENGTH) * (touches ? between(...LEFT_OF_BENT) : 1));
    return halves;
  });
  const sheets = model.sheets.map((sheet) => ({
    ...sheet,
    thickness: sheet.thickness * off(),
    condition: sheet.condition * (isBent(sheet.nodes) ? between(...FOLDED) : 1),
  }));
  const frame = frameOf({ nodes, members, sheets }, supports, undefined, off());
  const result = factorise(frame);
  if (!result.ok) return undefined;
  const near = new Set(
    model.members.filter(({ from, to }) => isBent([from, to])).flatMap(({ from, to }) => [from, to]),
  );
  const mayYield = new Set(
    model.members.flatMap(({ code, from, to }) => (near.has(from) || near.has(to) ? [`${code} 1`, `${code} 2`] : [])),
  );
  const hinges = hingesAt({ members }, frame, (code) => (mayYield.has(code) ? strength.get(code) : undefined));
  return { frame, yielding: new HardeningFrame(result.stiffness, hinges) };
}

/**
 * Pulls until the place stands so far along the pull, and lets go.
 *
 * @param target mm along `measured`, from before the first stroke of all
 */
export function strokeTo(
  shell: YieldingShell,
  turned: Turned,
  pull: PullAt,
  target: number,
  measured: Vector = pull.direction,
): Stroked {
  const load = shell.yielding.load(loadOf(shell, pull));
  const from = turned ?? shell.yielding.untouched;
  const reached = (force: number) => along(load.under(force, from).loaded, { ...pull, direction: measured });
  let [low, high] = [0, 5_000];
  while (reached(high) < target && high < HARDEST) [low, high] = [high, 2 * high];
  for (let i = 0; i < 40 && high - low > 1; i++) {
    const middle = (low + high) / 2;
    if (reached(middle) < target) low = middle;
    else high = middle;
  }
  const { loaded, released, turns } = load.under(high, from);
  return { loaded, rested: released, turned: turns };
}
