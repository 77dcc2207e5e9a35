'use client';

import { useState } from 'react';
import type { JobRows } from '@/core/shell/job/job-rows';
import { lengthBetween, type RoundJudgement } from '@/core/round/judge/judgement';
import { useFormat } from '../shell/preferences-context';
import { Select } from '../kit/select';

/** The length between any two points the round has located, measured or not. */
export function BetweenAnyTwo({ rows, judgement }: { rows: JobRows; judgement: RoundJudgement }) {
  const format = useFormat();
  const located = rows.points.filter(({ id }) => judgement.located.has(id));
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [measure, setMeasure] = useState<'tip' | 'level'>('tip');
  if (located.length < 2) return null;
  const known =
    from && to && from !== to ? lengthBetween(judgement, { fromPointId: from, toPointId: to, measure }) : undefined;
  const choose = (label: string, value: string, set: (id: string) => void) => (
    <Select
      aria-label={label}
      value={value}
      onChange={(event) => set(event.target.value)}
      options={[['', '–'], ...located.map(({ id, code }) => [id, code] as const)]}
    />
  );
  return (
    <p className="flex flex-wrap items-center gap-2">
      <span className="caps">Between</span> {choose('From', from, setFrom)} and {choose('To', to, setTo)}
      <Select
        aria-label="How"
        value={measure}
        onChange={(event) => setMeasure(event.target.value as 'tip' | 'level')}
        options={[
          ['tip', 'tip to tip'],
          ['level', 'level'],
        ]}
      />
      <strong className="figures" role="status">
        {known ? `${format.length(known.value)} ${format.plusMinus(2 * known.sd)} ${format.unit}` : ''}
      </strong>
    </p>
  );
}
