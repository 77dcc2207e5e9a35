import { useState } from 'react';
import { directionOf } from '@/core/findings/strokes';
import type { Vector } from '@/core/maths/geometry/vector';
import { anchorFrom, chainTo, onFloor } from '@/core/plan/pulls/anchor';
import type { PullView } from '@/core/report/pages/pulling';
import type { JobRows } from '@/core/shell/job/job-rows';
import { useAction } from '../kit/use-action';
import { useTask } from '../kit/use-task';
import type { PullActions } from './actions';

/** Another direction of a pull that is not kept yet, and with a chain how long that is then, mm. */
interface Draft {
  readonly of: PullView;
  readonly direction: Vector;
  readonly chain: number | null;
}

/** The pull in hand and where it was turned to, for as long as that is not kept. */
export function useTurning(rows: JobRows, open: readonly PullView[], actions: Pick<PullActions, 'correctPull'>) {
  const [picked, pick] = useState<string>();
  const [draft, setDraft] = useState<Draft>();
  const keeping = useAction(actions.correctPull);
  const view = open.find(({ pull }) => pull.id === picked) ?? open[0];
  // Once the page comes again with the pull as it was kept, there is nothing to keep any more.
  const own = draft && draft.of === view ? draft : undefined;
  const exact = useTask('tryPull', rows, own && view ? { pullId: view.pull.id, direction: own.direction } : null, 250);
  const turn = (id: string, direction: Vector) => {
    const of = open.find(({ pull }) => pull.id === id);
    if (!of) return;
    pick(id);
    setDraft({ of, ...turned(of, direction, draft?.of === of ? draft : undefined) });
  };
  const moveAnchor = (id: string, anchor: Vector) => {
    const of = open.find(({ pull }) => pull.id === id);
    const to = chainTo(anchor);
    if (!of || !to) return;
    pick(id);
    setDraft({ of, ...to });
  };
  const keep = () => {
    if (!view || !own) return;
    const { code: _, ...pull } = view.pull;
    const [dirX, dirY, dirZ] = own.direction;
    void keeping.run({ item: view.item, pull: { ...pull, dirX, dirY, dirZ, chain: own.chain } });
  };
  return {
    view,
    draft: own?.direction,
    direction: own?.direction ?? (view && directionOf(view.pull)),
    chain: own ? own.chain : (view?.pull.chain ?? null),
    /** What the model says of the draft, once it has reckoned. */
    exact: own && !exact.busy && exact.value ? exact.value : undefined,
    busy: exact.busy,
    ...{ pick, turn, moveAnchor, keep },
    drop: () => setDraft(undefined),
    faults: keeping.faults,
    pending: keeping.pending,
  };
}

export type Turned = ReturnType<typeof useTurning>;

/** Turned that way: an anchor in the floor stays on the floor, a tower takes the same chain higher or lower. */
function turned({ pull }: PullView, direction: Vector, draft: Draft | undefined): Omit<Draft, 'of'> {
  const chain = draft ? draft.chain : pull.chain;
  if (chain === null || pull.anchor !== 'floor') return { direction, chain };
  const [, , height] = anchorFrom({ direction: draft?.direction ?? directionOf(pull), chain });
  return height === 0 ? { direction, chain } : onFloor(direction, height);
}
