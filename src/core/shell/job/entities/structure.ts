import { z } from 'zod';
import { at, author, code, count, id, length, line, name, version, personId } from './fields';
import { BODY_TYPES } from './shell';

// The shell as a structure: where its members meet, what they are of and what stands between them; and what a press test said
// of all of it. Chart axes, mm.

/** A tube or bar the shop makes braces of. A section never changes: another size is another section. */
export const section = z.strictObject({
  id,
  name,
  /** Outside, mm; a tube that is as wide as high is square. */
  width: length.positive(),
  height: length.positive(),
  wall: length.positive(),
  material: z.enum(['mildSteel', 'highStrength']),
  /** The length of the bars it is bought in, mm; empty where nobody said. */
  stock: length.min(0).nullable(),
});

/** An edition of the structure; the last one holds, the others stay readable. Its rows never change. */
export const structure = z.strictObject({
  id,
  jobId: id,
  edition: z.int().min(1),
  /** What it was begun from: the picture of a body, the lines of the chart, or a file. */
  template: z.enum([...BODY_TYPES, 'lines', 'file']),
  at,
  author,
  personId,
});
export const node = z.strictObject({
  id,
  structureId: id,
  code,
  name: line,
  x: length,
  y: length,
  z: length,
  /** The point of the chart it stands at; empty where it has none. */
  pointId: id.nullable(),
});
/** Between 0 (rusted through) and 1 (sound). */
const condition = z.number().min(0.01).max(1);
/** A member as a closed box of sheet. */
export const member = z.strictObject({
  id,
  structureId: id,
  code,
  name: line,
  fromNodeId: id,
  toNodeId: id,
  width: length.positive(),
  height: length.positive(),
  /** Thickness of its sheet, mm. */
  wall: length.positive(),
  condition,
});
/** A sheet between four places, that carries shear. */
export const shearPanel = z.strictObject({
  id,
  structureId: id,
  code,
  name: line,
  aNodeId: id,
  bNodeId: id,
  cNodeId: id,
  dNodeId: id,
  thickness: length.positive(),
  condition,
});

/** A spring balance and a dial gauge across an opening: pushed apart by so much, it opened by so much. */
export const pressTest = z.strictObject({
  id,
  jobId: id,
  fromPointId: id,
  toPointId: id,
  /** N */
  force: length.positive(),
  /** mm, and one standard deviation of it. */
  opened: length.positive(),
  sd: length.positive(),
  at,
  author,
  personId,
});

// What is to be cut, in which order, and what holds meanwhile.

/** A stretch of the work in which some panels come out together. Its identity is its item's. */
export const stage = z.strictObject({ id, jobId: id, ordinal: count, version });
/** How much of a member or sheet of the structure goes with a panel: 1 where all of it does. */
export const panelPart = z.strictObject({
  panelId: id,
  /** Of the member or sheet, the same in every edition. */
  code,
  share: z.number().min(0.05).max(1),
});
export const JOINT_KINDS = ['spots', 'plugs', 'seam', 'brazed', 'leaded', 'bonded', 'bolted'] as const;
/** How a panel is joined to what lies beside it. Its identity is its item's. */
export const joint = z.strictObject({
  id,
  jobId: id,
  panelId: id,
  beside: name,
  kind: z.enum(JOINT_KINDS),
  /** Sheets that meet, mm. */
  thicknessA: length.positive().nullable(),
  thicknessB: length.positive().nullable(),
  factorySpots: count.max(10_000).nullable(),
  version,
});
/** A line to be cut, from an edge that stays; read back before the cut. */
export const cutLine = z.strictObject({
  id,
  panelId: id,
  label: code,
  /** The edge that stays, in words. */
  edge: name,
  distance: length,
  /** What was read of the marked line; empty until it was. */
  readBack: length.nullable(),
  /** Where a piece is spliced in: how wide the saw cuts it, and the gap left at the joint; empty where none is. */
  kerf: length.min(0).nullable(),
  gap: length.min(0).nullable(),
});
export const TEMPLATE_SOURCES = ['card', 'paper', 'goodPart'] as const;
/** A shape kept flat, to mark metal by at true scale. */
export const template = z.strictObject({
  id,
  jobId: id,
  /** The panel it is for; empty where it is for none in particular. */
  panelId: id.nullable(),
  name,
  /** What it was taken with, or from. */
  source: z.enum(TEMPLATE_SOURCES),
  /** Where from, in words. */
  takenFrom: line,
  /** The face of the metal it lies on. */
  face: z.enum(['outside', 'inside']),
  /** It is for the other side: turned over before it is marked from. */
  mirrored: z.boolean(),
  version,
});
/** A corner of its outline, in order round; mm from its own corner, to the right and up. */
export const templatePoint = z.strictObject({ id, templateId: id, ordinal: count, x: length, y: length });
/** Room that no brace may stand in: a door's swing, the way a new panel takes, a place to be reached. Chart axes, mm. */
export const keepOut = z.strictObject({
  id,
  jobId: id,
  name,
  /** The panel that takes this way in; empty where it is always so. */
  panelId: id.nullable(),
  minX: length,
  minY: length,
  minZ: length,
  maxX: length,
  maxY: length,
  maxZ: length,
  /** The straight move the box is swept along; nothing where it stands. */
  moveX: length,
  moveY: length,
  moveZ: length,
});
export const ADVICE_KINDS = ['brace', 'stage', 'gate', 'pull'] as const;
/** What was decided on something the program proposed, and on what it rested. */
export const adviceTaken = z.strictObject({
  id,
  jobId: id,
  kind: z.enum(ADVICE_KINDS),
  /** What it is about: for a brace the codes of its two ends, for a pull its point and which way. */
  key: line,
  /** What it rested on: round, edition. */
  basis: line,
  shown: line,
  choice: z.enum(['taken', 'declined', 'allowed']),
  reason: line,
  at,
  author,
  personId,
});

export const CHECK_AFTER = ['cut', 'bracesOut', 'offBench', 'onWheels'] as const;
export const DOOR_SHUTS = ['closes', 'drags', 'springsBack'] as const;
/** What was read in a minute after metal came out, or what held the shell did. */
export const removalCheck = z.strictObject({
  id,
  jobId: id,
  after: z.enum(CHECK_AFTER),
  /** The stage whose metal came out. */
  stageId: id.nullable(),
  /** How the door shuts, and its two gaps that say so, mm; empty where nobody tried. */
  door: z.enum(DOOR_SHUTS).nullable(),
  frontGap: length.nullable(),
  rearGap: length.nullable(),
  at,
  author,
  personId,
});
export const removalReading = z.strictObject({
  id,
  checkId: id,
  fromPointId: id,
  toPointId: id,
  /** Tip to tip, mm. */
  value: length.positive(),
  instrumentVersionId: id,
});

export type Section = z.infer<typeof section>;
export type Structure = z.infer<typeof structure>;
export type StructureNode = z.infer<typeof node>;
export type StructureMember = z.infer<typeof member>;
export type StructureSheet = z.infer<typeof shearPanel>;
export type PressTest = z.infer<typeof pressTest>;
export type CutStage = z.infer<typeof stage>;
export type PanelPart = z.infer<typeof panelPart>;
export type Joint = z.infer<typeof joint>;
export type CutLine = z.infer<typeof cutLine>;
export type Template = z.infer<typeof template>;
export type TemplatePoint = z.infer<typeof templatePoint>;
export type KeepOutRow = z.infer<typeof keepOut>;
export type AdviceTaken = z.infer<typeof adviceTaken>;
export type RemovalCheck = z.infer<typeof removalCheck>;
export type RemovalReading = z.infer<typeof removalReading>;
