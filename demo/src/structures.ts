import { knownPoints, latestRound, structureOf } from '@/core/plan/cut/structure-of';
import { NEW_PANEL, type BodyType, type Joint, type Panel } from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import type { JobBuilder } from './builder';

/** Which body a shell is: what its structure and its picture are taken from. */
export function bodyOf(job: JobBuilder, body: BodyType): void {
  job.rows.jobs[0] = { ...job.rows.jobs[0]!, body };
}

/** Keeps a structure of the shell, some of its parts weakened: what is left of each, 0 … 1, by the beginning of its code. */
export function weakened(job: JobBuilder, author: string, left: Readonly<Record<string, number>>): void {
  const { later, rows, jobId } = job;
  const now = Job.of({ ...rows });
  const { model, template } = structureOf(now, knownPoints(now, latestRound(now)))!;
  const structure = job.add('structures', { id: later.uuid(), jobId, edition: 1, template, at: job.now(), author });
  const ids = model.nodes.map(() => later.uuid());
  const round = (value: number) => Math.round(value * 10) / 10;
  model.nodes.forEach(({ code, name, at: [x, y, z], pointId }, i) =>
    job.add('nodes', {
      ...{ id: ids[i]!, structureId: structure.id, code, name, x: round(x), y: round(y), z: round(z), pointId },
    }),
  );
  const conditionOf = (code: string) => Object.entries(left).find(([from]) => code.startsWith(from))?.[1] ?? 1;
  for (const { from, to, ...member } of model.members)
    job.add('members', {
      ...member,
      ...{ id: later.uuid(), structureId: structure.id, fromNodeId: ids[from]!, toNodeId: ids[to]! },
      condition: conditionOf(member.code),
    });
  for (const {
    nodes: [a, b, c, d],
    ...sheet
  } of model.sheets)
    job.add('shearPanels', {
      ...sheet,
      ...{ id: later.uuid(), structureId: structure.id },
      ...{ aNodeId: ids[a]!, bNodeId: ids[b]!, cNodeId: ids[c]!, dNodeId: ids[d]! },
      condition: conditionOf(sheet.code),
    });
}

/** A stage of the cutting. */
export function stageOf(job: JobBuilder, name: string): string {
  const id = job.later.uuid();
  const { jobId } = job;
  job.add('workItems', { id, jobId, kind: 'stage', code: `stage-${job.rows.stages.length + 1}`, name, version: 1 });
  job.add('stages', { id, jobId, ordinal: job.rows.stages.length, version: 1 });
  return id;
}

interface PanelOut extends Partial<Panel> {
  readonly part: string;
  readonly side: Panel['side'];
  readonly codes?: readonly string[];
  /** Parts of the structure that go with it, and how much of each. */
  readonly parts?: readonly (readonly [code: string, share: number])[];
  readonly lines?: readonly (readonly [label: string, edge: string, distance: number, readBack: number | null])[];
  readonly joints?: readonly (readonly [
    beside: string,
    kind: Joint['kind'],
    a: number | null,
    b: number | null,
    spots: number | null,
  ])[];
}

/** Plans a panel to be replaced, with all that is known of it. */
export function panelOut(
  job: JobBuilder,
  { codes = [], parts = [], lines = [], joints = [], ...panel }: PanelOut,
): string {
  const { jobId, later } = job;
  const id = later.uuid();
  const code = `panel-${job.rows.panels.length + 1}`;
  job.add('workItems', { id, jobId, kind: 'panel', code, name: panel.part, version: 1 });
  const ordinal = job.rows.panels.filter(({ stageId }) => stageId === panel.stageId).length;
  job.add('panels', { ...NEW_PANEL, id, jobId, ordinal, ...panel });
  for (const point of codes) job.add('panelPoints', { panelId: id, pointId: job.point(point), fate: 'goes' });
  for (const [part, share] of parts) job.add('panelParts', { panelId: id, code: part, share });
  for (const [label, edge, distance, readBack] of lines)
    job.add('cutLines', { id: later.uuid(), panelId: id, label, edge, distance, readBack, kerf: 1, gap: 0.8 });
  for (const [beside, kind, thicknessA, thicknessB, factorySpots] of joints) {
    const jointId = later.uuid();
    job.add('workItems', {
      ...{ id: jointId, jobId, kind: 'joint', code: `joint-${job.rows.joints.length + 1}`, name: beside, version: 1 },
    });
    job.add('joints', {
      id: jointId,
      jobId,
      panelId: id,
      beside,
      kind,
      thicknessA,
      thicknessB,
      factorySpots,
      version: 1,
    });
  }
  return id;
}

/** The estate: its left sill, rear floor and rear leg end come out in three stages, on stands under the crossmembers. */
export function solbrisCuts(job: JobBuilder, author: string): void {
  const { later, jobId } = job;
  weakened(job, author, {
    ...{ 'S1L-S2L': 0.55, 'S2L-S3L': 0.35, 'S3L-C1L': 0.6 },
    ...{ 'T2-S2L-S3L-C1L': 0.5, 'C1L-R1L': 0.7 },
  });
  const [sill, floor, leg] = ['Left sill', 'Left rear floor', 'Left rear leg end'].map((name) => stageOf(job, name));
  const outer = panelOut(job, {
    ...{ part: 'Left sill, outer', side: 'left', stageId: sill!, choice: 'wholePanel', codes: ['S2L'] },
    ...{ reason: 'Rotten from the jacking hole back; a pressing is to be had.', joinedAt: 'on the factory flanges' },
    ...{ hours: 9, price: 190, ownersWord: 'yes, on the telephone' },
    parts: [
      ['S1L-S2L', 0.5],
      ['S2L-S3L', 0.5],
    ],
    lines: [
      ['A', 'front edge of the A post foot', 62, 62.4],
      ['B', 'rear edge of the B post foot', 48, null],
    ],
    joints: [
      ['A post foot', 'spots', 0.9, 1.2, 14],
      ['floor flange', 'spots', 0.9, 0.9, 46],
      ['rear wing', 'brazed', 0.9, 0.8, null],
    ],
  });
  panelOut(job, {
    ...{ part: 'Left sill, inner', side: 'left', stageId: sill!, choice: 'remade', codes: ['S3L'] },
    ...{
      reason: 'Nobody makes it: bent up from the old one.',
      joinedAt: 'on sound metal behind the front jacking hole',
    },
    ...{ hours: 11 },
    parts: [
      ['S1L-S2L', 0.5],
      ['S2L-S3L', 0.5],
    ],
    joints: [['floor', 'spots', 1.2, 0.9, 38]],
  });
  panelOut(job, {
    ...{ part: 'Left rear floor', side: 'left', stageId: floor!, choice: 'partPanel', hours: 7 },
    ...{
      reason: 'Cut small and look: the rust ends somewhere before the tunnel.',
      joinedAt: 'on the swage beside the tunnel',
    },
    parts: [
      ['T2-S2L-S3L-C1L', 1],
      ['T1-S1L-S2L-T2', 0.5],
      ['S3L-T2', 1],
      ['S3L-C1L', 1],
    ],
    joints: [['tunnel', 'spots', 0.9, 0.9, 32]],
  });
  panelOut(job, {
    ...{ part: 'Left rear leg end', side: 'left', stageId: leg!, choice: 'partPanel', codes: ['R4L'], stressed: true },
    ...{ reason: 'Bent when the corner was hit; pulled first, cut after.', joinedAt: 'behind the spring hanger' },
    parts: [['R1L-R4L 2', 1]],
  });
  const box = (
    name: string,
    panelId: string | null,
    from: readonly number[],
    to: readonly number[],
    move: readonly number[],
  ) =>
    job.add('keepOuts', {
      ...{ id: later.uuid(), jobId, name, panelId },
      ...{ minX: from[0]!, minY: from[1]!, minZ: from[2]!, maxX: to[0]!, maxY: to[1]!, maxZ: to[2]! },
      ...{ moveX: move[0]!, moveY: move[1]!, moveZ: move[2]! },
    });
  const templateId = later.uuid();
  job.add('templates', {
    ...{ id: templateId, jobId, panelId: outer, name: 'Sill end at the A post', source: 'card', face: 'outside' },
    ...{ takenFrom: 'the right side', mirrored: true, version: 1 },
  });
  const corners = [
    [0, 0],
    [210, 0],
    [196, 62],
    [128, 96],
    [0, 104],
  ] as const;
  corners.forEach(([x, y], ordinal) => job.add('templatePoints', { id: later.uuid(), templateId, ordinal, x, y }));
  // Hinges, striker and springs leave threaded holes.
  const bolts = new Set(['A1', 'A2', 'B2', 'R1', 'R2', 'R3']);
  job.rows.points = job.rows.points.map((point) =>
    bolts.has(point.code.slice(0, 2)) ? { ...point, kind: 'bolt' as const } : point,
  );
  // The upper diagonal of the door can be trimmed by the turn.
  const trimmed = job.rows.workItems.find(({ kind, code }) => kind === 'brace' && code === 'X2')!.id;
  job.rows.braces.splice(
    0,
    job.rows.braces.length,
    ...job.rows.braces.map((brace) =>
      brace.id === trimmed ? { ...brace, kind: 'adjustable' as const, threadPitch: 1.5, fromOff: 34 } : brace,
    ),
  );
  box('swing of the left door', null, [700, -1500, 230], [1740, -745, 1000], [0, 0, 0]);
  box('way in of the left sill', outer, [780, -1000, 100], [1980, -640, 215], [0, 0, 0]);
}
