import { z } from 'zod';
import { at, author, count, id, length, limit, line, name, side, text, version, personId } from './fields';

// Panels that are hung or set against their neighbours: how they can be moved, what was read of them, what holds them.

export const HUNG_KINDS = ['door', 'bonnet', 'bootLid', 'tailgate', 'wing', 'skin'] as const;
export const EDGES = ['front', 'rear', 'top', 'bottom', 'left', 'right'] as const;
/** A panel that is fitted. Its identity is its item's. */
export const hungPanel = z.strictObject({
  id,
  jobId: id,
  kind: z.enum(HUNG_KINDS),
  side,
  /** From edge to edge over its middle, mm: along the car, or across it where the panel lies across; and the other way. */
  long: length.positive(),
  high: length.positive(),
  /** The edge its hinges are on; empty where it is bolted or set. */
  hungAt: z.enum(EDGES).nullable(),
  /** No gap gets smaller than this through the swing, mm. */
  leastGap: length.min(0),
  /** It is not the one that stays: its gaps open again when the final one comes. */
  standIn: z.boolean(),
  /** Its mountings say for certain where it belongs, or it is known good: others are judged by it. */
  sure: z.boolean(),
  /** It is left loose until this other panel is set. */
  floatsUntilId: id.nullable(),
  note: text,
  version,
});
/** A seam that runs along an edge of a panel. */
export const panelSeam = z.strictObject({
  hungId: id,
  seamId: id,
  edge: z.enum(EDGES),
  /** Its first station is at the far end: the rear, the top or the right one. */
  turned: z.boolean(),
});
export const SETTING_KINDS = ['slot', 'shims', 'bend', 'hold'] as const;
export const SETTING_WAYS = ['long', 'high', 'out'] as const;
/** A place at which a panel can be set, or at which it is held. */
export const panelSetting = z.strictObject({
  id,
  hungId: id,
  ordinal: count,
  name,
  kind: z.enum(SETTING_KINDS),
  /** Where on the panel, from its middle along its length and its height, mm. */
  x: length,
  y: length,
  /** The way it moves that place; empty where it moves no rigid panel and its effect was read. */
  way: z.enum(SETTING_WAYS).nullable(),
  /** From where it hangs now, mm or turns; of a hold nothing. */
  least: length,
  most: length,
  /** Empty where anything between is possible; of shims what the shelf has is possible. */
  step: length.positive().nullable(),
  /** What is in there now beyond what the maker puts there, mm; negative where some is left out. */
  inNow: length,
});
/** What one of a setting does to a gap and a flush, as one trial was read, mm. */
export const settingEffect = z.strictObject({ settingId: id, stationId: id, gap: length, flush: length });
/** A place under a body that stands on a frame of its own, where it can be packed up: it moves every gap of the shell, mm. */
export const bodyPacker = z.strictObject({
  id,
  jobId: id,
  name,
  /** The whole pack, from the thinnest to the thickest that is allowed there. */
  least: length,
  most: length,
  /** Empty where it is made of the shims on the shelf, or of anything where there are none. */
  step: length.positive().nullable(),
  inNow: length,
});
/** What one more millimetre under a body did to a gap and a flush, as one trial was read, mm. */
export const packerEffect = z.strictObject({ packerId: id, stationId: id, gap: length, flush: length });
/** Shims and washers on the shelf, of one thickness, mm. */
export const shim = z.strictObject({ id, jobId: id, thickness: limit, pieces: count.max(1000) });
export const MEASURED_THINGS = ['panel', 'opening'] as const;
export const SHAPE_LENGTHS = ['low', 'highUp', 'front', 'rear', 'down', 'up', 'twist'] as const;
/** A length of a panel or of the opening it goes into, with what it should be, mm. */
export const panelMeasure = z.strictObject({
  id,
  hungId: id,
  thing: z.enum(MEASURED_THINGS),
  what: z.enum(SHAPE_LENGTHS),
  wanted: length,
  value: length,
  /** One standard deviation of what is read less what is wanted. */
  sd: limit,
  at,
  author,
  personId,
});
export const OPENING_CORNERS = ['firstLow', 'lastLow', 'lastHigh', 'firstHigh'] as const;
/** A datum point that stands for a corner of the opening a panel goes into. */
export const openingCorner = z.strictObject({ hungId: id, corner: z.enum(OPENING_CORNERS), pointId: id });
/** Something that is not fitted yet and will change gaps when it is, mm. */
export const allowance = z.strictObject({
  id,
  jobId: id,
  /** Empty where it is of every seam. */
  seamId: id.nullable(),
  name,
  /** What is added to the gap, and to the flush, once it is there. */
  gap: length,
  flush: length,
  fitted: z.boolean(),
});
/** A place at which a panel is joined to what lies beside it; every one goes up the holding ladder by itself. */
export const panelJoint = z.strictObject({
  hungId: id,
  /** Its name is what it is known by: one panel has no two of a name. */
  name,
  /** The edge of the panel it runs along; empty where it is along none. */
  edge: z.enum(EDGES).nullable(),
  /** The joint of the cut plan that it is; empty where it was never cut. */
  jointId: id.nullable(),
});
/** How far a joint springs with its clamp off, mm. */
export const letGo = z.strictObject({
  id,
  hungId: id,
  /** The name of the joint. */
  place: name,
  sprung: length,
  /** More than this is relieved before it is tacked. */
  most: limit,
  at,
  author,
  personId,
});
export const FIXING_KINDS = ['dowel', 'screw', 'pin', 'hole', 'tack', 'tab'] as const;
/** What is put in for a while, or says where the panel goes back to; on the close-out list until it is welded or ground. */
export const fixing = z.strictObject({
  id,
  hungId: id,
  kind: z.enum(FIXING_KINDS),
  name,
  /** The name of the joint it is at; empty where it is of the whole panel. */
  joint: name.nullable(),
  place: line,
  closedAt: at.nullable(),
  closedBy: line,
});
/** One panel lies over another at a lap, or over something that must be done first. */
export const lap = z.strictObject({
  id,
  jobId: id,
  overId: id,
  /** Empty where it is no panel: a bracket, a face that wants paint. */
  underId: id.nullable(),
  what: line,
  /** What is under it is done. */
  done: z.boolean(),
});

// prettier-ignore
export const CHECK_KINDS = [
  'offset', 'angle', 'profile', 'swage', 'jointStep', 'latch', 'lamp', 'bumper', 'lidSeal', 'screenWidth', 'screenDiagonal',
] as const;
/** Something that is read besides gap and flush, or needs the whole: with what is wanted and how far it may be under and over. */
export const fitCheck = z.strictObject({
  id,
  jobId: id,
  /** The panel it is of; empty where it is of the shell. */
  hungId: id.nullable(),
  kind: z.enum(CHECK_KINDS),
  place: name,
  /** mm; of an angle degrees. */
  wanted: length,
  under: length.min(0),
  over: length.min(0),
});
/** A reading of it; the last one holds. */
export const fitReading = z.strictObject({ id, checkId: id, value: length, sd: limit, at, author, personId });
export const TRIM_KINDS = ['edge', 'hole', 'bead', 'spot'] as const;
/** Where an edge, a hole or a spot of a new panel is and where it must be, from an edge that stays, mm. */
export const trim = z.strictObject({
  id,
  hungId: id,
  kind: z.enum(TRIM_KINDS),
  place: name,
  edge: name,
  isAt: length,
  mustBe: length,
  done: z.boolean(),
});

export type HungPanel = z.infer<typeof hungPanel>;
/** A panel with what it is called. */
export type CalledPanel = HungPanel & { readonly code: string; readonly name: string };
export type PanelEdge = (typeof EDGES)[number];
export type PanelSeam = z.infer<typeof panelSeam>;
export type PanelSetting = z.infer<typeof panelSetting>;
export type SettingEffect = z.infer<typeof settingEffect>;
export type BodyPacker = z.infer<typeof bodyPacker>;
export type PackerEffect = z.infer<typeof packerEffect>;
export type OpeningCorner = z.infer<typeof openingCorner>;
export type Shim = z.infer<typeof shim>;
export type PanelMeasure = z.infer<typeof panelMeasure>;
export type Allowance = z.infer<typeof allowance>;
export type PanelJoint = z.infer<typeof panelJoint>;
export type LetGo = z.infer<typeof letGo>;
export type Fixing = z.infer<typeof fixing>;
export type Lap = z.infer<typeof lap>;
export type FitCheck = z.infer<typeof fitCheck>;
export type FitReading = z.infer<typeof fitReading>;
export type Trim = z.infer<typeof trim>;

/** The rungs a panel goes up until it stays for good. */
export const HOLDING_RUNGS = ['off', 'gripped', 'clamped', 'pinned', 'dowelled', 'tacked', 'welded'] as const;
export type HoldingRung = (typeof HOLDING_RUNGS)[number];
/** A panel, or one joint of it, went to a rung, up or back. */
export interface HoldingEvent {
  readonly id: string;
  readonly hungId: string;
  /** The name of the joint; empty where the whole panel went. */
  readonly joint: string;
  readonly kind: HoldingRung;
  readonly at: string;
  readonly author: string;
  readonly note: string;
}
/** What a panel has besides its name and size when it is first named. */
export const NEW_HUNG = { leastGap: 2.5, standIn: false, sure: false, floatsUntilId: null, note: '' } as const;
