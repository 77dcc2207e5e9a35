'use client';

import { useState } from 'react';
import type { Mount, MountPiece } from '@/core/shell/job/entities';
import type { PlannedSetUp } from '@/core/report/pages/set-up';
import type { Fault } from '@/formats/faults';
import type { MountsInput } from '@/formats/inputs/set-up';
import { useAction, type Action } from '../kit/use-action';

/** The mounts in hand: changed here at once, written with every change, and every change can be undone. */
export interface MountPlan {
  readonly mounts: readonly Mount[];
  /** What those that are built stand on. */
  readonly pieces: readonly MountPiece[];
  /** They are as they stand in the page. */
  readonly saved: boolean;
  readonly faults: readonly Fault[];
  readonly pending: boolean;
  /** Puts other mounts in their place; what is built stays built of what it is. */
  set(mounts: readonly Mount[]): void;
  /** Shows other mounts without writing them: while something is dragged. */
  show(mounts: readonly Mount[] | undefined): void;
  readonly undo: (() => void) | undefined;
  readonly redo: (() => void) | undefined;
}

interface Kept {
  readonly mounts: readonly Mount[];
  readonly pieces: readonly MountPiece[];
}

/** A plan of before, with what has been built since: that is no plan that could be undone. */
function asBuilt({ mounts, pieces }: Kept, now: Kept): Kept {
  const there = new Map(now.mounts.map((mount) => [mount.id, mount]));
  return {
    mounts: mounts.map((mount) => {
      const { headId, lift } = there.get(mount.id) ?? mount;
      return { ...mount, headId, lift };
    }),
    pieces: mounts.flatMap(({ id }) =>
      (there.has(id) ? now : { pieces }).pieces.filter((piece) => piece.mountId === id),
    ),
  };
}

export function usePlan(planned: PlannedSetUp, setMounts: Action<MountsInput>): MountPlan {
  const { run, faults, pending } = useAction(setMounts);
  const [past, setPast] = useState<readonly Kept[]>([]);
  const [future, setFuture] = useState<readonly Kept[]>([]);
  const [draft, setDraft] = useState<{ readonly of: readonly Mount[]; readonly kept: Kept }>();
  const [shown, setShown] = useState<readonly Mount[]>();
  const now: Kept = draft?.of === planned.mounts ? draft.kept : planned;
  const write = (kept: Kept) => {
    setShown(undefined);
    setDraft({ of: planned.mounts, kept });
    void run({ setUpId: planned.setUp.id, mounts: [...kept.mounts], pieces: [...kept.pieces] }).then((outcome) => {
      if (!outcome.ok) setDraft(undefined);
    });
  };
  const step = (from: readonly Kept[], setFrom: typeof setPast, setTo: typeof setPast) => {
    const kept = from.at(-1);
    if (!kept) return undefined;
    return () => {
      setFrom(from.slice(0, -1));
      setTo((others) => [...others, { mounts: now.mounts, pieces: now.pieces }]);
      write(asBuilt(kept, now));
    };
  };
  return {
    mounts: shown ?? now.mounts,
    pieces: now.pieces,
    saved: shown === undefined && draft?.of !== planned.mounts,
    faults,
    pending,
    set: (mounts) => {
      setPast([...past, { mounts: now.mounts, pieces: now.pieces }]);
      setFuture([]);
      write(asBuilt({ mounts: mounts.map((mount, ordinal) => ({ ...mount, ordinal })), pieces: [] }, now));
    },
    show: setShown,
    undo: step(past, setPast, setFuture),
    redo: step(future, setFuture, setPast),
  };
}

/** A mount on a point, nothing decided of it yet. */
export const mountOn = (setUpId: string, pointId: string): Mount => ({
  ...{ id: crypto.randomUUID(), setUpId, ordinal: 0, pointId, name: '' },
  ...{ x: null, y: null, z: null, hole: null, floor: null, headId: null, lift: null },
});
