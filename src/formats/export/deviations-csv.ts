import type { JobRows } from '@/core/shell/job/job-rows';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import { writeCsv } from '../csv';

/** Every point of a judged round with its deviation, ±, limit, verdict and reference: millimetres. */
export function deviationsCsv(rows: JobRows, { points, references }: RoundJudgement): string {
  const nameOf = new Map(rows.references.map(({ id, name }) => [id, name]));
  const round = (value: number | undefined) => (value === undefined ? '' : Math.round(value * 1000) / 1000);
  return writeCsv(
    points.map(({ point, judged, lacking, control }) => {
      const row = references.points.get(point.id)?.row;
      const axis = (name: 'x' | 'y' | 'z') => round(judged?.axes[name].plusMinus);
      return {
        point: point.code,
        name: point.name,
        side: point.side,
        reference_x: round(row?.x),
        reference_y: round(row?.y),
        reference_z: round(row?.z),
        dx: round(judged?.deviation.by[0]),
        dy: round(judged?.deviation.by[1]),
        dz: round(judged?.deviation.by[2]),
        distance: round(judged?.deviation.d),
        plus_minus_x: axis('x'),
        plus_minus_y: axis('y'),
        plus_minus_z: axis('z'),
        limit: round(judged?.limit),
        verdict: judged?.verdict ?? lacking ?? '',
        control: control ? 'yes' : '',
        reference: nameOf.get(judged?.referenceId ?? '') ?? '',
      };
    }),
  );
}
