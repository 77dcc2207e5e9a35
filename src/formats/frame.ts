import { solveFrame } from '@/core/structure/frame';
import type { Computed } from './computed';
import { frameOf, nodeIndex, type ShellDocument } from './shell-file';

/** `vinkel.frame/1`. */
export interface FrameDocument {
  readonly format: 'vinkel.frame/1';
  readonly nodes: readonly {
    readonly id: string;
    readonly ux: number;
    readonly uy: number;
    readonly uz: number;
    readonly rx: number;
    readonly ry: number;
    readonly rz: number;
  }[];
  readonly reactions: readonly {
    readonly node: string;
    readonly force: readonly number[];
    readonly moment: readonly number[];
  }[];
  /** kg */
  readonly mass: number;
}

export const named = (ids: readonly string[]): string => ids.map((id) => `"${id}"`).join(', ');

/** Computes how a shell gives under its loads. */
export function computeFrame(document: ShellDocument): Computed<FrameDocument> {
  const frame = frameOf(document);
  const at = nodeIndex(document);
  const load = new Float64Array(6 * frame.nodes.length);
  for (const { node, force, moment = [0, 0, 0] } of document.loads)
    [...force, ...moment].forEach((value, k) => (load[6 * at.get(node)! + k]! += value));
  const result = solveFrame(frame, load, document.gravity ?? false);
  if (!result.ok)
    return {
      ok: false,
      reason:
        result.why === 'loose'
          ? `nothing holds ${named(result.nodes)}: add a support or a member there`
          : `nothing carries the moment on ${named(result.nodes)}: join a member there`,
    };
  const { moved, reactions, mass } = result.value;
  return {
    ok: true,
    value: {
      format: 'vinkel.frame/1',
      nodes: frame.nodes.map(({ id }, i) => {
        const [ux, uy, uz, rx, ry, rz] = moved.subarray(6 * i, 6 * i + 6) as unknown as [
          ...[number, number, number],
          ...[number, number, number],
        ];
        return { id, ux, uy, uz, rx, ry, rz };
      }),
      reactions: reactions.map((each, i) => ({
        node: document.supports[i]!.node,
        force: [...each.subarray(0, 3)],
        moment: [...each.subarray(3)],
      })),
      mass,
    },
  };
}
