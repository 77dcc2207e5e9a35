import type { Vector } from '@/core/maths/geometry/vector';
import { NOTHING } from '@/core/shell/shorthand/line';
import type { Reading, Round } from '@/core/shell/job/entities';
import { versionId, type JobBuilder } from './builder';

/** How a head or a hole of a part was found: what was typed, and what it says. */
type GaugeLine = Pick<Reading, 'fit' | 'toward' | 'value'> & {
  readonly point: string;
  readonly said: string;
  readonly hole?: string;
};

/** A real part whose holes stand over points of the shell, straight, in axes that begin at its first hole. */
export function gaugePart(
  job: JobBuilder,
  { code, name }: { readonly code: string; readonly name: string },
  holes: Readonly<Record<string, Vector>>,
): ReadonlyMap<string, string> {
  const part = job.add('gaugeParts', { id: job.later.uuid(), jobId: job.jobId, code, name, sd: 0.3, version: 1 });
  const codes = Object.keys(holes);
  const [x0, y0, z0] = holes[codes[0]!]!;
  const ids = new Map<string, string>();
  codes.forEach((point, i) => {
    const [x, y, z] = holes[point]!;
    const hole = { id: job.later.uuid(), gaugePartId: part.id, code: String(i + 1), clearance: 0.5 };
    job.add('partHoles', { ...hole, x: x - x0, y: y - y0, z: z - z0 });
    ids.set(point, hole.id);
  });
  codes.forEach((from, i) => {
    const to = codes[(i + 1) % codes.length]!;
    const value = Math.hypot(...[0, 1, 2].map((k) => holes[to]![k]! - holes[from]![k]!));
    job.add('partChecks', {
      ...{ id: job.later.uuid(), gaugePartId: part.id, fromHoleId: ids.get(from)!, toHoleId: ids.get(to)! },
      value: Math.round((value + 0.4 * job.later.normal()) * 10) / 10,
    });
  });
  return ids;
}

/** Lines of gauges read at the end of a round. */
export function readGauges(job: JobBuilder, round: Round, lines: readonly GaugeLine[]): void {
  lines.forEach(({ point, said, hole, ...found }, i) => {
    const id = job.later.uuid();
    job.add('readings', {
      ...{ ...NOTHING, ...found, id, lineId: job.later.uuid(), roundId: round.id, sequence: 900 + i },
      ...{
        instrumentVersionId: versionId('heads'),
        author: round.author,
        takenAt: round.startedAt,
        receivedAt: round.startedAt,
      },
      ...{ raw: `${point} ${said}`, quantity: 'fixture', phase: 'none', stationId: null, pullId: null },
      ...{ pointId: job.point(point), partHoleId: hole ?? null },
    });
  });
}
