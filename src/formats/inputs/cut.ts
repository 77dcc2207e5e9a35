import { z } from 'zod';
import * as entity from '@/core/shell/job/entities';

/** A stage of the cutting: begun, or called and ordered otherwise. */
export const savedStage = z.strictObject({ item: entity.workItem, stage: entity.stage });

/** A panel that is to be replaced, whole: what is not here of its points, parts, joints and lines is taken away. */
export const savedPanel = z.strictObject({
  item: entity.workItem,
  panel: entity.panel,
  points: z.array(entity.panelPoint).max(200),
  parts: z.array(entity.panelPart).max(200),
  lines: z.array(entity.cutLine).max(60),
  joints: z.array(z.strictObject({ item: entity.workItem, joint: entity.joint })).max(60),
  /** The stage it comes out in, where that is begun with it. */
  stage: savedStage.optional(),
});

/** The order in which the panels of a stage come out. */
export const orderedPanels = z.strictObject({
  jobId: z.uuid(),
  panels: z
    .array(entity.panel.pick({ id: true, version: true }))
    .min(2)
    .max(60),
});
/** What is to be blasted. */
export const newBlasting = entity.workItem.omit({ version: true });
/** Drawn marks that were punched. */
export const punchedPoints = z.strictObject({ jobId: z.uuid(), pointIds: z.array(z.uuid()).min(1).max(500) });

const part = entity.member.pick({ code: true, width: true, height: true, wall: true, condition: true });
/** A new edition of the structure: what it was, with some parts otherwise. */
export const keptStructure = z.strictObject({
  id: z.uuid(),
  jobId: z.uuid(),
  /** Begun anew from the picture of this body; absent: from the structure there is. */
  body: z.enum(entity.BODY_TYPES).optional(),
  members: z.array(part).max(2000),
  sheets: z.array(entity.shearPanel.pick({ code: true, thickness: true, condition: true })).max(2000),
  /** Members and sheets that this shell does not have. */
  without: z.array(entity.member.shape.code).max(2000),
  /** Members it has besides, between nodes by their codes. */
  added: z
    .array(part.omit({ code: true }).extend({ name: entity.member.shape.name, from: z.string(), to: z.string() }))
    .max(200),
});

/** A whole structure out of a file, as `vinkel.shell/1` has it. */
export const importedStructure = z.strictObject({ id: z.uuid(), jobId: z.uuid(), document: z.string().max(4_000_000) });

/** A template, whole: corners that are not here are taken away. */
export const savedTemplate = z.strictObject({
  template: entity.template,
  corners: z.array(entity.templatePoint).min(3, 'three corners at least').max(500),
});
export const newPressTest = entity.pressTest.omit({ at: true, author: true, personId: true });
export const newSection = entity.section;
export const savedKeepOut = entity.keepOut;
export const removedKeepOut = z.strictObject({ id: z.uuid() });
/** What somebody said to a proposal: declined with a reason, allowed again. */
export const decidedAdvice = entity.adviceTaken
  .omit({ at: true, author: true, personId: true })
  .refine(({ choice, reason }) => choice !== 'declined' || reason !== '', {
    path: ['reason'],
    message: 'say why not',
  });
export const newCheck = z
  .strictObject({
    check: entity.removalCheck.omit({ at: true, author: true, personId: true }),
    readings: z.array(entity.removalReading).max(40),
  })
  .refine(({ check, readings }) => readings.length > 0 || check.door !== null, {
    path: ['readings'],
    message: 'read one of them at least, or shut the door',
  });

export type SavedStage = z.input<typeof savedStage>;
export type OrderedPanels = z.input<typeof orderedPanels>;
export type NewBlasting = z.input<typeof newBlasting>;
export type PunchedPoints = z.input<typeof punchedPoints>;
export type SavedPanel = z.input<typeof savedPanel>;
export type KeptStructure = z.input<typeof keptStructure>;
export type ImportedStructure = z.input<typeof importedStructure>;
export type SavedTemplate = z.input<typeof savedTemplate>;
export type NewPressTest = z.input<typeof newPressTest>;
export type NewSection = z.input<typeof newSection>;
export type SavedKeepOut = z.input<typeof savedKeepOut>;
export type RemovedKeepOut = z.input<typeof removedKeepOut>;
export type DecidedAdvice = z.input<typeof decidedAdvice>;
export type NewCheck = z.input<typeof newCheck>;
