import type { SheetPoint } from '@/core/report/drawing/points';
import type { Verdict } from '@/core/maths/statistics/verdict';

/** Marks carry meaning by shape: ring, disc, half-filled disc; a diamond is read but not judged yet, a cross not read; a square is held as reference. */
export function Mark({ point, r = 5 }: { point: Pick<SheetPoint, 'verdict' | 'control' | 'read'>; r?: number }) {
  const { verdict, control, read } = point;
  if (!verdict && !control && read)
    return <path d={`M0 ${-r}L${r} 0L0 ${r}L${-r} 0Z`} fill="var(--sheet)" stroke="currentColor" strokeWidth={1.3} />;
  if (!verdict && !control)
    return (
      <path
        d={`M${-r * 0.6} ${-r * 0.6}L${r * 0.6} ${r * 0.6}M${r * 0.6} ${-r * 0.6}L${-r * 0.6} ${r * 0.6}`}
        stroke="currentColor"
        strokeWidth={1.2}
      />
    );
  const fill = verdict === 'outside' ? 'currentColor' : 'var(--sheet)';
  const shape = control ? (
    <rect x={-r} y={-r} width={2 * r} height={2 * r} fill={fill} stroke="currentColor" strokeWidth={1.5} />
  ) : (
    <circle r={r} fill={fill} stroke="currentColor" strokeWidth={1.5} />
  );
  if (verdict !== 'undecided') return shape;
  return (
    <>
      {shape}
      {control ? (
        <rect x={-r} y={0} width={2 * r} height={r} fill="currentColor" />
      ) : (
        <path d={`M${-r} 0A${r} ${r} 0 0 0 ${r} 0Z`} fill="currentColor" />
      )}
    </>
  );
}

/** The same mark beside a row of a list, with its meaning as text for those who cannot see it. */
export function VerdictMark({
  verdict,
  control = false,
  lacking,
  read = false,
}: {
  verdict?: Verdict;
  control?: boolean;
  lacking?: string;
  read?: boolean;
}) {
  const words =
    lacking ?? `${verdict ?? (read ? 'read, not judged yet' : 'not measured')}${control ? ', control point' : ''}`;
  return (
    <svg
      viewBox="-8 -8 16 16"
      width="18"
      height="18"
      role="img"
      aria-label={words}
      className="inline-block shrink-0 align-middle"
    >
      <Mark point={{ verdict, control, read }} r={5.5} />
    </svg>
  );
}
