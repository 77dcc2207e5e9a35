import { NEW_BRACE, NEW_PANEL, type Brace, type Panel, type Section } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { demoRows } from './demo-rows';

/** Tubes a shop has. */
export const TUBES: readonly Section[] = [
  [25, 2],
  [40, 3],
].map(([size, wall]) => ({
  ...{ id: `tube ${size}`, name: `square tube ${size}×${size}×${wall}`, width: size!, height: size!, wall: wall! },
  ...{ material: 'mildSteel', stock: 6000 },
}));

/** A demo job with its own cuts and braces taken out, and others put in. */
export class Cutting {
  rows: JobRows;

  constructor(name: 'solbris' | 'maake' | 'lodd' = 'solbris') {
    const rows = demoRows(name);
    this.rows = {
      ...rows,
      sections: TUBES,
      ...{ panels: [], panelPoints: [], panelParts: [], stages: [], joints: [], cutLines: [], keepOuts: [] },
      ...{ weldSeams: [], weldStretches: [], weldMarks: [], cracks: [], stiffeners: [] },
      ...{ braces: [], braceDimensions: [], adviceTaken: [], removalChecks: [], removalReadings: [], pressTests: [] },
      workItems: rows.workItems.filter(({ kind }) => ['setUp', 'pull', 'hung'].includes(kind)),
      workEvents: [],
    };
  }

  private get jobId(): string {
    return this.rows.jobs[0]!.id;
  }

  point(code: string): string {
    return this.rows.points.find((point) => point.code === code)!.id;
  }

  private item(id: string, kind: 'panel' | 'stage' | 'brace'): void {
    const item = { id, jobId: this.jobId, kind, code: id, name: id, version: 1 };
    this.rows = { ...this.rows, workItems: [...this.rows.workItems, item] };
  }

  stage(id: string): this {
    this.item(id, 'stage');
    const row = { id, jobId: this.jobId, ordinal: this.rows.stages.length, version: 1 };
    this.rows = { ...this.rows, stages: [...this.rows.stages, row] };
    return this;
  }

  /** A panel that takes parts of the structure, and points, with it. */
  panel(
    id: string,
    stageId: string,
    parts: readonly string[],
    points: readonly string[] = [],
    more: Partial<Panel> = {},
  ): this {
    this.item(id, 'panel');
    const panel = { ...NEW_PANEL, id, jobId: this.jobId, part: id, side: 'left' as const, stageId, ...more };
    this.rows = {
      ...this.rows,
      panels: [...this.rows.panels, panel],
      panelParts: [...this.rows.panelParts, ...parts.map((code) => ({ panelId: id, code, share: 1 }))],
      panelPoints: [
        ...this.rows.panelPoints,
        ...points.map((code) => ({ panelId: id, pointId: this.point(code), fate: 'goes' as const })),
      ],
    };
    return this;
  }

  brace(id: string, from: string, to: string, more: Partial<Brace> = {}): this {
    this.item(id, 'brace');
    const row = {
      ...{ id, jobId: this.jobId, fromPointId: this.point(from), toPointId: this.point(to) },
      ...{ kind: 'weldedTube' as const, ...NEW_BRACE, sectionId: 'tube 25', version: 1, ...more },
    };
    this.rows = { ...this.rows, braces: [...this.rows.braces, row] };
    return this;
  }

  /** Stood on these points instead, on stands. */
  stoodOn(...codes: readonly string[]): this {
    const { rows } = this;
    const [like] = rows.mounts;
    const setUpId = rows.setUps.at(-1)!.id;
    this.rows = {
      ...rows,
      setUps: rows.setUps.slice(-1),
      mounts: codes.map((code, i) => ({ ...like!, id: `m${i}`, setUpId, pointId: this.point(code) })),
    };
    return this;
  }
}

/** The left sill and the floor beside it, out in two stages. */
export const leftSideOut = (name?: 'solbris'): Cutting =>
  new Cutting(name)
    .stage('sill')
    .panel('left sill', 'sill', ['S1L-S2L', 'S2L-S3L'], ['S2L', 'S3L'])
    .stage('floor')
    .panel('left floor', 'floor', ['T2-S2L-S3L-C1L', 'S3L-T2', 'S3L-C1L']);
