import type { Vector } from '@/core/maths/geometry/vector';
import { seeded } from '@/core/maths/random/seeded';
import { setUpPage } from '@/core/report/pages/set-up';
import { Job } from '@/core/shell/job/job';
import type { Bench, BenchVersion, SetUp, ShelfItem } from '@/core/shell/job/entities';
import type { JobBuilder } from './builder';

const id = (series: number, number: number): string =>
  `00000000-0000-4000-8000-000000${String(series).padStart(3, '0')}${String(number).padStart(3, '0')}`;

type Lying = Pick<ShelfItem, 'code' | 'kind' | 'height' | 'count'> & Partial<ShelfItem>;

interface DemoBench {
  readonly bench: Bench;
  readonly version: BenchVersion;
  readonly items: readonly ShelfItem[];
}

function bench(
  number: number,
  name: string,
  kind: Bench['kind'],
  figures: Partial<BenchVersion>,
  lying: readonly Lying[],
): DemoBench {
  const [benchId, versionId] = [id(3, number), id(4, number)];
  return {
    bench: { id: benchId, name, kind },
    version: {
      ...{ id: versionId, benchId, number: 1, rails: 0, pitch: 100, firstHole: 50, span: 1500, beamWidth: 80 },
      ...{ beamTop: 0, beams: 0, reach: 60, footprint: 90, note: '', validFrom: '2026-01-05T08:00:00.000Z' },
      ...figures,
    },
    items: lying.map((item, i) => ({
      ...{ id: id(10 + number, i + 1), benchVersionId: versionId, travel: 0, threadPitch: null },
      ...{ fitsLeast: null, fitsMost: null, clearance: 0, rating: null },
      ...item,
    })),
  };
}

const towers = (...list: readonly (readonly [height: number, count: number])[]): Lying[] =>
  list.map(([height, count]) => ({ code: `${height < 50 ? 'S' : 'T'}${height}`, kind: 'piece', height, count }));

/** The shop's benches, all made up. */
export const BENCHES = {
  rails: bench(
    1,
    'Rail bench',
    'fixture',
    { rails: 4200, beamTop: 120, beams: 6, note: 'Welded in the shop in 2019' },
    [
      ...towers([320, 2], [240, 4], [200, 4], [160, 6], [120, 4], [80, 8], [40, 8], [20, 8], [10, 6]),
      {
        code: 'cone 10–24',
        kind: 'head',
        height: 55,
        count: 10,
        travel: 24,
        threadPitch: 2,
        fitsLeast: 9,
        fitsMost: 24,
        clearance: 0.3,
        rating: 400,
      },
      {
        code: 'cup',
        kind: 'head',
        height: 40,
        count: 4,
        travel: 16,
        threadPitch: 2,
        fitsLeast: 24,
        fitsMost: 80,
        clearance: 0.5,
        rating: 400,
      },
    ],
  ),
  clamps: bench(
    2,
    'Flange clamps on the rails',
    'clamps',
    { rails: 4200, beamTop: 120, beams: 4, note: 'Each clamp has its own screw' },
    [
      ...towers([200, 4], [80, 4], [40, 4], [10, 8]),
      { code: 'clamp', kind: 'clamp', height: 140, count: 4, travel: 40, threadPitch: 3, rating: 600 },
    ],
  ),
  stands: bench(3, 'Stands and packers', 'stands', { note: 'The floor was never mapped' }, [
    ...towers([40, 6], [20, 8], [10, 8], [5, 8]),
    { code: 'stand', kind: 'stand', height: 290, count: 6, travel: 130, threadPitch: 6, rating: 1500 },
  ]),
} as const;

interface Planned {
  readonly suspension: SetUp['suspension'];
  readonly place: Vector;
  readonly kilograms?: number;
  /** A point's code, or a name with its place in chart axes. */
  readonly mounts: readonly (string | readonly [name: string, at: Vector])[];
  readonly tickedBy?: string;
  /** What it is called, where it is not by its bench. */
  readonly name?: string;
}

/** Plans how a shell stands, and ticks off what was built. */
export function setUpOn(job: JobBuilder, { bench: own, version, items }: DemoBench, planned: Planned): void {
  const { later } = job;
  if (!job.rows.benches.some(({ id: there }) => there === own.id)) {
    job.add('benches', own);
    job.add('benchVersions', version);
    for (const item of items) job.add('shelfItems', item);
  }
  const itemId = later.uuid();
  const code = job.rows.setUps.length === 0 ? 'set-up' : `set-up-${job.rows.setUps.length + 1}`;
  const [x, y, z] = planned.place;
  job.add('workItems', {
    id: itemId,
    jobId: job.jobId,
    kind: 'setUp',
    code,
    name: planned.name ?? own.name,
    version: 1,
  });
  job.add('setUps', {
    ...{ id: itemId, jobId: job.jobId, benchVersionId: version.id, suspension: planned.suspension },
    ...{ kilograms: planned.kilograms ?? null, centreX: null, centreY: null, x, y, z, version: 1 },
    ...{ turnX: 0, turnY: 0, turnZ: 0, flange: null, lineFromId: null, lineToId: null },
  });
  planned.mounts.forEach((mount, ordinal) => {
    const [name, at] = typeof mount === 'string' ? ['', undefined] : mount;
    const made = job.add('mounts', {
      ...{ id: later.uuid(), setUpId: itemId, ordinal, name, hole: null, floor: null, headId: null, lift: null },
      pointId: typeof mount === 'string' ? job.point(mount) : null,
      ...{ x: at?.[0] ?? null, y: at?.[1] ?? null, z: at?.[2] ?? null },
    });
    if (planned.tickedBy)
      job.add('workEvents', {
        ...{ id: later.uuid(), itemId, kind: 'ticked', key: made.id, reason: '', value: null },
        ...{ at: job.now(), author: planned.tickedBy },
      });
  });
  if (planned.tickedBy) buildAsPlanned(job, itemId);
}

/** Every mount of a set-up is built of what is planned for it. */
function buildAsPlanned(job: JobBuilder, setUpId: string): void {
  // A stream of its own: what is drawn after it stays what it was.
  const random = seeded(Number.parseInt(setUpId.slice(0, 7), 16));
  const { built } = setUpPage(Job.of(job.rows), setUpId).planned!;
  for (const { id, headId, lift, pieceIds } of built.mounts) {
    if (headId === undefined) continue;
    const i = job.rows.mounts.findIndex((mount) => mount.id === id);
    job.rows.mounts[i] = { ...job.rows.mounts[i]!, headId, lift: Math.round(10 * lift!) / 10 };
    for (const [ordinal, shelfItemId] of pieceIds!.entries())
      job.add('mountPieces', { id: random.uuid(), mountId: id, ordinal, shelfItemId });
  }
}
