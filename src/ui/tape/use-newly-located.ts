import { useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { RoundJudgement } from '@/core/round/judge/judgement';

/** Points located now that were not a reading ago. */
export function useNewlyLocated(rows: JobRows, judgement: RoundJudgement | undefined): readonly string[] {
  const [state, setState] = useState<{ known: ReadonlySet<string>; newly: readonly string[]; of?: RoundJudgement }>({
    known: new Set(),
    newly: [],
  });
  if (judgement && judgement !== state.of) {
    const now = [...judgement.located.keys()];
    const newly = state.of ? now.filter((id) => !state.known.has(id)) : [];
    const codes = newly.flatMap((id) => rows.points.filter((point) => point.id === id).map(({ code }) => code));
    setState({ known: new Set(now), newly: codes, of: judgement });
  }
  return state.newly;
}
