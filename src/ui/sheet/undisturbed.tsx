'use client';

import { useMemo, useState } from 'react';
import { findUndisturbed } from '@/core/alignment/undisturbed';
import type { Position } from '@/core/geometry/vector';
import type { JobRows } from '@/core/job/job-rows';
import type { RoundJudgement } from '@/core/round/judgement';
import { Button } from '../kit/button';

/** Which points can be trusted: the largest set that agrees with the reference, offered and never imposed. */
export function Undisturbed({
  rows, judgement, onHold,
}: { rows: JobRows; judgement: RoundJudgement; onHold: (pointIds: readonly string[]) => void }) {
  const [agree, setAgree] = useState<number>();
  const result = useMemo(() => {
    if (agree === undefined) return undefined;
    const points = rows.points.flatMap(({ id }) => {
      const row = judgement.references.points.get(id)?.row;
      const measured = judgement.located.get(id)?.position;
      return row && measured ? [{ id, measured, reference: [row.x, row.y, row.z] as Position<'chart'> }] : [];
    });
    return findUndisturbed(points, agree);
  }, [rows, judgement, agree]);
  const codes = (ids: readonly string[]) => ids.flatMap((id) => rows.points.filter((point) => point.id === id).map(({ code }) => code)).join(', ');
  return (
    <section aria-label="Undisturbed points" className="flex flex-col gap-1">
      <p className="flex flex-wrap items-center gap-2">
        <span className="caps">Undisturbed points</span>
        <select aria-label="How far undisturbed points may be off" className="min-h-11 border border-rule bg-sheet px-2" value={agree ?? ''} onChange={(event) => setAgree(event.target.value ? Number(event.target.value) : undefined)}>
          <option value="">look for them …</option>
          {[2, 2.5, 3, 4, 5].map((each) => (
            <option key={each} value={each}>
              that agree within {each} mm
            </option>
          ))}
        </select>
        {result?.ok ? <Button onClick={() => onHold(result.used)}>Hold these {result.used.length} as control</Button> : null}
      </p>
      {result && !result.ok ? <p role="alert">{result.reason}</p> : null}
      {result?.ok ? (
        <p className="text-sm" data-undisturbed={result.used.length}>
          {result.used.length} of {result.used.length + result.moved.length} located points agree with the chart and each other
          {result.proven ? '; no larger set does' : '; a larger set could not be ruled out'}. Moved, if so: {codes(result.moved) || 'none'}.
          {result.rival.length >= 3 ? ` ${result.rival.length} of those agree among themselves too (${codes(result.rival)}): if they are what stood still, the others moved.` : ''}
        </p>
      ) : null}
    </section>
  );
} // prettier-ignore
