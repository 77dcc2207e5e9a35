import { useCallback, useMemo, useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { Control } from '@/formats/inputs/rounds';
import { useAction, type Action } from '../kit/use-action';

/** The points held as control: shown at once, saved behind. */
export function useControl(rows: JobRows, roundId: string, setControl: Action<Control>) {
  const [control, setChosen] = useState(() =>
    rows.roundControls.filter((each) => each.roundId === roundId).map((each) => each.pointId),
  );
  const shown = useMemo(
    () => ({
      ...rows,
      roundControls: [
        ...rows.roundControls.filter((each) => each.roundId !== roundId),
        ...control.map((pointId) => ({ roundId, pointId })),
      ],
    }),
    [rows, roundId, control],
  );
  const { run, faults } = useAction(setControl);
  const hold = useCallback(
    (next: readonly string[]) => {
      setChosen([...next]);
      void run({ roundId, pointIds: [...next] });
    },
    [run, roundId],
  );
  const toggle = useCallback(
    (id: string) => hold(control.includes(id) ? control.filter((each) => each !== id) : [...control, id]),
    [hold, control],
  );
  return { control, shown, hold, toggle, faults };
}
