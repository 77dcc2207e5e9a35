'use client';

import type { DimensionJudgement, PointJudgement } from '@/core/round/judge/judgement';
import { AXIS_WORD, LACKING_WORD } from '@/core/report/vocabulary/words';
import { memo } from 'react';
import { useFormat } from '../shell/preferences-context';
import { VerdictMark } from './mark';

/** Every point with its deviation along the three axes, and whether it is held. */
export const PointList = memo(function PointList({
  points,
  selected,
  control,
  onSelect,
  onHold,
}: {
  points: readonly PointJudgement[];
  selected?: string;
  control: readonly string[];
  onSelect: (code: string) => void;
  onHold: (id: string) => void;
}) {
  const format = useFormat();
  if (points.length === 0) return <p className="py-3 text-soft">No point is left by the filter.</p>;
  return (
    <table className="ruled">
      <thead className="sticky top-0 bg-paper">
        <tr>
          <th>Point</th>
          <th className="num">Length</th>
          <th className="num">Width</th>
          <th className="num">Height {format.unit}</th>
          <th className="num">Worst ±</th>
          <th>Held</th>
        </tr>
      </thead>
      <tbody>
        {points.map((each) => (
          <PointRow
            key={each.point.id}
            judged={each}
            lit={selected === each.point.code}
            held={control.includes(each.point.id)}
            onSelect={() => onSelect(each.point.code)}
            onHold={() => onHold(each.point.id)}
          />
        ))}
      </tbody>
    </table>
  );
});

/** Every charted length against its reference. */
export const DimensionList = memo(function DimensionList({
  dimensions,
  selected,
  onSelect,
}: {
  dimensions: readonly DimensionJudgement[];
  selected?: string;
  onSelect: (code: string) => void;
}) {
  const format = useFormat();
  if (dimensions.length === 0) return <p className="py-3 text-soft">No dimension is left by the filter.</p>;
  return (
    <table className="ruled">
      <thead className="sticky top-0 bg-paper">
        <tr>
          <th>Dimension</th>
          <th className="num">Reference</th>
          <th className="num">Measured</th>
          <th className="num">Deviation {format.unit}</th>
          <th className="num">±</th>
        </tr>
      </thead>
      <tbody>
        {dimensions.map((each) => (
          <DimensionRow
            key={each.dimension.id}
            judged={each}
            lit={selected === each.dimension.code}
            onSelect={() => onSelect(each.dimension.code)}
          />
        ))}
      </tbody>
    </table>
  );
});

const rowButton = 'flex min-h-11 w-full items-center gap-2 text-left';

function PointRow({
  judged: each,
  lit,
  held,
  onSelect,
  onHold,
}: {
  judged: PointJudgement;
  lit: boolean;
  held: boolean;
  onSelect: () => void;
  onHold: () => void;
}) {
  const format = useFormat();
  const { judged, point, lacking, read, advice } = each;
  return (
    <tr className={lit ? 'bg-lit' : ''} data-code={point.code} data-verdict={judged?.verdict ?? lacking}>
      <td className="py-0!">
        <button
          type="button"
          className={rowButton}
          onClick={onSelect}
          aria-pressed={lit}
          title={format.name(point.name)}
        >
          <VerdictMark
            verdict={judged?.verdict}
            control={held}
            read={lacking !== undefined && lacking !== 'notMeasured'}
            lacking={lacking ? LACKING_WORD[lacking] : undefined}
          />
          {point.code}
        </button>
      </td>
      {judged ? (
        <>
          {judged.deviation.by.map((component, axis) => (
            <td key={axis} className="num">
              {format.difference(component)}
            </td>
          ))}
          <td className="num text-soft">{format.uncertainty(judged.axes[judged.worstAxis].plusMinus)}</td>
        </>
      ) : (
        <td colSpan={4} className="text-soft">
          {lacking ? LACKING_WORD[lacking] : ''}
          {lacking === 'notLocated'
            ? `: ${advice ?? `only ${read.map((axis) => AXIS_WORD[axis]).join(' and ')} read`}`
            : ''}
        </td>
      )}
      <td className="py-0!">
        <label className="flex min-h-11 min-w-11 items-center justify-center">
          <input
            type="checkbox"
            checked={held}
            onChange={onHold}
            aria-label={`Hold ${point.code} as control point`}
            className="h-5 w-5"
          />
        </label>
      </td>
    </tr>
  );
}

function DimensionRow({
  judged: each,
  lit,
  onSelect,
}: {
  judged: DimensionJudgement;
  lit: boolean;
  onSelect: () => void;
}) {
  const format = useFormat();
  const { dimension, measured, judged, lacking } = each;
  return (
    <tr className={lit ? 'bg-lit' : ''} data-code={dimension.code} data-verdict={judged?.verdict ?? lacking}>
      <td className="py-0!">
        <button
          type="button"
          className={rowButton}
          onClick={onSelect}
          aria-pressed={lit}
          title={format.name(dimension.name)}
        >
          <VerdictMark
            verdict={judged?.verdict}
            read={lacking !== undefined && lacking !== 'notMeasured'}
            lacking={lacking ? LACKING_WORD[lacking] : undefined}
          />
          {dimension.code}
        </button>
      </td>
      <td className="num">{judged ? format.length(judged.reference) : ''}</td>
      <td className="num">
        {measured ? format.length(measured.value) : <span className="text-soft">not measured</span>}
      </td>
      <td className="num">{judged ? format.difference(judged.deviation) : ''}</td>
      <td className="num text-soft">{judged ? format.uncertainty(judged.plusMinus) : ''}</td>
    </tr>
  );
}
