import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, beforeEach, inject } from 'vitest';
import type { Dimension, Point, ReferenceDimension, ReferencePoint } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { chartOf } from '@/core/shell/references/chosen';
import { loadJob } from '@/db/jobs';
import type { Outcome } from '@/formats/outcome';
import { importChart } from '@/server/actions/import-chart';
import * as jobs from '@/server/actions/jobs';
import * as rounds from '@/server/actions/rounds';
import { makeShop } from '@/server/shops/shops';
import { store } from '@/server/store';
import { createDatabase } from './postgres';
import { removeAll } from './remove';

const POINTS = `id;name;side;x;y;z;tolerance
F1L;Front leg hole;left;0;-400;540;3
F1R;Front leg hole;right;0;400;540;3
S1L;Sill hole;left;760;-690;150;3
S1R;Sill hole;right;760;690;150;3
R1L;Rear leg hole;left;3240;-420;330;3
R1R;Rear leg hole;right;3240;420;330;3
`;
const DIMENSIONS = `from;to;value;tolerance;tip to tip or level
F1L;F1R;800;2;tip
S1L;S1R;1380;2;tip
`;

/** What a use case answered, where it did what was asked. */
export function valueOf<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.faults));
  return outcome.value;
}
/** What it was refused for. */
export const faultsOf = (outcome: Outcome<unknown>) => (outcome.ok ? [] : outcome.faults);

/** A job with its chart, as a new user would have made it. */
export class Bench {
  readonly jobId = randomUUID();

  static async withChart(): Promise<Bench> {
    const bench = new Bench();
    valueOf(await jobs.createJob(bench.fields()));
    const files = [
      { name: 'points.csv', text: POINTS },
      { name: 'dimensions.csv', text: DIMENSIONS },
    ];
    valueOf(await importChart({ jobId: bench.jobId, files, unit: 'mm' }));
    return bench;
  }

  fields() {
    const empty = { shell: '', identityNumber: '', owner: '', shop: '', bench: '' };
    return { id: this.jobId, name: 'Solbris', driverSide: 'left' as const, ...empty };
  }

  async rows(): Promise<JobRows> {
    return (await loadJob((await store()).database, this.jobId))!;
  }

  async point(code: string): Promise<{ point: Point; reference: ReferencePoint }> {
    const rows = await this.rows();
    const point = rows.points.find((each) => each.code === code)!;
    const inUse = chartOf(rows)!.id;
    const reference = rows.referencePoints.find((row) => row.pointId === point.id && row.referenceId === inUse)!;
    return { point, reference };
  }

  async dimension(from: string): Promise<{ dimension: Dimension; reference: ReferenceDimension }> {
    const rows = await this.rows();
    const start = rows.points.find((each) => each.code === from)!.id;
    const dimension = rows.dimensions.find((each) => each.fromPointId === start)!;
    const inUse = chartOf(rows)!.id;
    const reference = rows.referenceDimensions.find(
      (row) => row.dimensionId === dimension.id && row.referenceId === inUse,
    )!;
    return { dimension, reference };
  }

  async openRound(name: string): Promise<string> {
    const { jobId } = this;
    const [tape] = (await this.rows()).instrumentVersions;
    const ids = { id: randomUUID(), jobId };
    const { roundId } = valueOf(
      await rounds.openRound({
        round: {
          ...{ ...ids, name, stateId: ids.id, supportId: ids.id, instrumentVersionId: tape!.id },
          ...{ temperature: 18, shell: '' },
        },
        state: { ...ids, kind: 'asFound', note: '' },
        support: { ...ids, kind: 'stands', suspension: 'off', note: '' },
        control: [],
      }),
    );
    return roundId;
  }

  async closeRound(roundId: string): Promise<void> {
    const round = (await this.rows()).rounds.find(({ id }) => id === roundId)!;
    valueOf(await rounds.recordRoundEvent({ id: randomUUID(), roundId: round.id, kind: 'closed', reason: '' }));
  }

  /** An entry of the tape with one height. */
  async height(roundId: string, code: string, value: number, raw = `${code} h ${value}`) {
    const [tape] = (await this.rows()).instrumentVersions;
    const { point } = await this.point(code);
    const reading = {
      ...{ id: randomUUID(), lineId: randomUUID(), instrumentVersionId: tape!.id, author: 'Ronja', raw },
      ...{ takenAt: new Date().toISOString(), quantity: 'height', value, phase: 'none', measure: null },
      ...{ pointId: point.id, toPointId: null, stationId: null, pullId: null },
      ...{ pointerFrom: null, pointerTo: null, fit: null, partHoleId: null, toward: null },
    };
    return { roundId, readings: [reading], strike: null };
  }
}

/** Opens a data folder of its own for the use cases of one test file, and a job with its chart before each test. */
export function benchPerTest(): () => Bench {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-use-cases-'));
  let bench: Bench;
  beforeAll(async () => {
    process.env.VINKEL_DATA = folder;
    const server = inject('server');
    // What a developer has named for themselves is nothing a test writes to.
    delete process.env.VINKEL_DATABASE;
    if (server) {
      // One of two shops there: what holds for it holds within the walls that the database keeps.
      const owner = await createDatabase(server);
      const [north] = await makeShop(owner, 'North');
      await makeShop(owner, 'South');
      process.env.VINKEL_DATABASE = north!.url;
    }
  });
  afterAll(async () => {
    await (await store()).close();
    removeAll(folder);
  });
  beforeEach(async () => {
    bench = await Bench.withChart();
  });
  return () => bench;
}
