import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';

/** What a panel is made of rows with: how it is said by its forms; who and when come from the request. */
const panelParts = {
  item: entity.workItem,
  panel: entity.hungPanel,
  seams: z.array(entity.panelSeam).max(12, 'at most 12 seams run along one panel'),
};
export const newHungPanel = z.strictObject({
  ...panelParts,
  settings: z.array(entity.panelSetting).max(24, 'at most 24 settings a panel'),
});
export const correctedHungPanel = z.strictObject(panelParts);
const setting = entity.panelSetting
  .refine(({ least, most }) => least <= most, { path: ['most'], message: 'the most is not below the least' })
  .refine(({ kind, way }) => kind !== 'hold' || way !== null, { path: ['way'], message: 'say which way it is held' });
/** All settings of a panel, and what trials of them did, in place of those before. */
export const panelSettings = z.strictObject({
  hungId: z.uuid(),
  settings: z.array(setting).max(24, 'at most 24 settings a panel'),
  effects: z.array(entity.settingEffect).max(400),
});
export const panelMeasures = z.strictObject({
  hungId: z.uuid(),
  measures: z.array(entity.panelMeasure.omit({ at: true, author: true, personId: true })).max(14),
  corners: z
    .array(entity.openingCorner)
    .max(4)
    .refine((list) => new Set(list.map(({ pointId }) => pointId)).size === list.length, {
      message: 'one point stands for two corners',
    }),
});
export const shims = z.strictObject({
  jobId: z.uuid(),
  shims: z
    .array(entity.shim)
    .max(12, 'at most 12 thicknesses')
    .refine((list) => new Set(list.map(({ thickness }) => thickness)).size === list.length, {
      message: 'one thickness is named twice',
    }),
});
const bodyPacker = entity.bodyPacker
  .refine(({ least, most }) => least <= most, { path: ['most'], message: 'the most is not below the least' })
  .refine(({ least, most, inNow }) => inNow >= least && inNow <= most, {
    path: ['inNow'],
    message: 'what is in there now is between the least and the most',
  });
/** All packers under the body, and what trials of them did, in place of those before. */
export const bodyPackers = z.strictObject({
  jobId: z.uuid(),
  packers: z.array(bodyPacker).max(16, 'at most 16 places under a body'),
  effects: z.array(entity.packerEffect).max(2000),
});
export const allowances = z.strictObject({
  jobId: z.uuid(),
  allowances: z.array(entity.allowance).max(40, 'at most 40 allowances'),
});
export const panelJoint = entity.panelJoint;
/** Which joint of which panel. */
export const panelJointKey = entity.panelJoint.pick({ hungId: true, name: true });
export const letGo = entity.letGo.omit({ at: true, author: true, personId: true });
export const newFixing = entity.fixing.omit({ closedAt: true, closedBy: true });
export const closedFixing = z.strictObject({ id: z.uuid(), open: z.boolean() });
export const lap = entity.lap;
export const fitChecks = z.strictObject({
  jobId: z.uuid(),
  checks: z.array(entity.fitCheck).min(1).max(60, 'at most 60 checks at once'),
});
export const fitReading = entity.fitReading.omit({ at: true, author: true, personId: true });
export const trim = entity.trim;
/** A row that is taken out. */
export const rowId = z.strictObject({ id: z.uuid() });
/** A panel, or a joint of it, goes to a rung of the holding ladder. */
export const heldAt = z.strictObject({
  id: z.uuid(),
  hungId: z.uuid(),
  /** The name of the joint; empty: all of the panel. */
  joint: entity.workEvent.shape.key,
  to: z.enum(entity.HOLDING_RUNGS),
  reason: entity.workEvent.shape.reason,
});

export type NewHungPanel = z.input<typeof newHungPanel>;
export type CorrectedHungPanel = z.input<typeof correctedHungPanel>;
export type PanelSettingsInput = z.input<typeof panelSettings>;
export type PanelMeasuresInput = z.input<typeof panelMeasures>;
export type ShimsInput = z.input<typeof shims>;
export type BodyPackersInput = z.input<typeof bodyPackers>;
export type AllowancesInput = z.input<typeof allowances>;
export type PanelJointInput = z.input<typeof panelJoint>;
export type PanelJointKey = z.input<typeof panelJointKey>;
export type LetGoInput = z.input<typeof letGo>;
export type NewFixing = z.input<typeof newFixing>;
export type ClosedFixing = z.input<typeof closedFixing>;
export type LapInput = z.input<typeof lap>;
export type RowId = z.input<typeof rowId>;
export type HeldAt = z.input<typeof heldAt>;
export type FitChecksInput = z.input<typeof fitChecks>;
export type FitReadingInput = z.input<typeof fitReading>;
export type TrimInput = z.input<typeof trim>;
