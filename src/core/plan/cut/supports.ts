import type { SetUp } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import type { FrameSupport } from '../../structure/shell-frame';
import type { ShellModel } from '../../structure/shell-model';
import { nearestNode } from './structure-of';

/** What the shell stands on as the structure has it. */
export interface ModelSupports {
  readonly supports: readonly FrameSupport[];
  /** As the set-up is planned, or four places of the sills because none is. */
  readonly from: 'setUp' | 'usual';
}

/**
 * What holds the shell: heads and clamps fix their point in all three directions; stands under the metal carry it, and where
 * nothing else holds it sideways and lengthwise, one of them does both and the one opposite to it the length, so that the shell
 * is held and no more.
 */
export function supportsOf(
  job: Job,
  model: ShellModel,
  // As it is to stand while it is cut: the last that was planned.
  setUp: SetUp | undefined = job.setUps.at(-1),
): ModelSupports {
  const mounts = setUp ? job.rows.mounts.filter(({ setUpId }) => setUpId === setUp.id) : [];
  const nodes = mounts.flatMap(({ pointId, x, y, z }) => {
    const tied = pointId === null ? -1 : model.nodes.findIndex((node) => node.pointId === pointId);
    if (tied >= 0) return [tied];
    return x !== null && y !== null && z !== null ? [nearestNode(model, [x, y, z])] : [];
  });
  const distinct = [...new Set(nodes)];
  if (distinct.length < 3) return { supports: usual(model).map(clamped), from: 'usual' };
  const version = job.rows.benchVersions.find(({ id }) => id === setUp!.benchVersionId);
  const kind = job.rows.benches.find(({ id }) => id === version?.benchId)?.kind;
  return { supports: kind === 'stands' ? stood(model, distinct) : distinct.map(clamped), from: 'setUp' };
}

const clamped = (node: number): FrameSupport => ({ node, fix: ['x', 'y', 'z'] });

function stood({ nodes }: ShellModel, under: readonly number[]): FrameSupport[] {
  const [first] = under;
  const at = (node: number) => nodes[node]!.at;
  const across = under.reduce((best, node) =>
    Math.abs(at(node)[1] - at(first!)[1]) > Math.abs(at(best)[1] - at(first!)[1]) ? node : best,
  );
  return under.map((node) => ({
    node,
    fix: node === first ? ['x', 'y', 'z'] : node === across ? ['x', 'z'] : ['z'],
  }));
}

/** Low, outside, at the ends of the middle of the shell: where sills are usually stood on. */
function usual({ nodes }: ShellModel): number[] {
  const [x, y, z] = [0, 1, 2].map((k) => nodes.map(({ at }) => at[k]!)) as [number[], number[], number[]];
  const [front, rear, wide, low] = [Math.min(...x), Math.max(...x), Math.max(...y.map(Math.abs)), Math.min(...z)];
  const within = (share: number) => front + share * (rear - front);
  const side = (sign: 1 | -1) => {
    const sill = nodes.flatMap(({ at }, i) =>
      sign * at[1] > 0.6 * wide && at[2] < low + 200 && at[0] > within(0.2) && at[0] < within(0.75) ? [i] : [],
    );
    const by = sill.toSorted((a, b) => nodes[a]!.at[0] - nodes[b]!.at[0]);
    return by.length > 1 ? [by[0]!, by.at(-1)!] : [];
  };
  const found = [...side(-1), ...side(1)];
  if (found.length === 4) return found;
  // Any four that stand wide apart.
  const corner = (sx: number, sy: number) =>
    nodes.reduce((best, { at }, i) => {
      const value = (p: readonly number[]) => sx * p[0]! + sy * p[1]! - p[2]!;
      return value(at) > value(nodes[best]!.at) ? i : best;
    }, 0);
  return [...new Set([corner(-1, -1), corner(-1, 1), corner(1, -1), corner(1, 1)])];
}
