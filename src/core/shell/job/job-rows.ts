import type { z } from 'zod';
import * as entity from './entities';

/**
 * Every table of a job, parents before children, under the name its rows have in documents and in
 * the program. Instruments and benches belong to the shop; a job carries copies of those it used.
 */
export const JOB_TABLES = {
  jobs: entity.job,
  instruments: entity.instrument,
  instrumentVersions: entity.instrumentVersion,
  benches: entity.bench,
  benchVersions: entity.benchVersion,
  shelfItems: entity.shelfItem,
  sections: entity.section,
  people: entity.person,
  closedDays: entity.closedDay,
  points: entity.point,
  dimensions: entity.dimension,
  memberLines: entity.memberLine,
  seams: entity.seam,
  seamStations: entity.seamStation,
  shellStates: entity.shellState,
  supports: entity.support,
  workItems: entity.workItem,
  setUps: entity.setUp,
  rounds: entity.round,
  roundControls: entity.roundControl,
  roundEvents: entity.roundEvent,
  references: entity.reference,
  referencePoints: entity.referencePoint,
  referenceDimensions: entity.referenceDimension,
  referenceStations: entity.referenceStation,
  referenceRounds: entity.referenceRound,
  referenceChoices: entity.referenceChoice,
  pulls: entity.pull,
  strokes: entity.stroke,
  springBacks: entity.springBack,
  holds: entity.hold,
  plates: entity.plate,
  hungPanels: entity.hungPanel,
  panelSeams: entity.panelSeam,
  panelSettings: entity.panelSetting,
  settingEffects: entity.settingEffect,
  shims: entity.shim,
  bodyPackers: entity.bodyPacker,
  packerEffects: entity.packerEffect,
  panelMeasures: entity.panelMeasure,
  openingCorners: entity.openingCorner,
  allowances: entity.allowance,
  laps: entity.lap,
  fitChecks: entity.fitCheck,
  fitReadings: entity.fitReading,
  trims: entity.trim,
  stages: entity.stage,
  panels: entity.panel,
  panelPoints: entity.panelPoint,
  platformPoints: entity.platformPoint,
  gaugeParts: entity.gaugePart,
  partHoles: entity.partHole,
  partChecks: entity.partCheck,
  readings: entity.reading,
  readingStrikes: entity.readingStrike,
  readingKeeps: entity.readingKeep,
  pointConditions: entity.pointCondition,
  braces: entity.brace,
  braceDimensions: entity.braceDimension,
  steps: entity.step,
  stepEvents: entity.stepEvent,
  stepNeeds: entity.stepNeed,
  stepPeople: entity.stepPerson,
  bookings: entity.booking,
  timers: entity.timer,
  logEntries: entity.logEntry,
  logSubjects: entity.logSubject,
  photographs: entity.photograph,
  signedRecords: entity.signedRecord,
  changes: entity.change,
  withdrawals: entity.withdrawal,
  findingDetails: entity.findingDetail,
  decisionDetails: entity.decisionDetail,
  partTags: entity.partTag,
  morningChecks: entity.morningCheck,
  morningReadings: entity.morningReading,
  workEvents: entity.workEvent,
  mounts: entity.mount,
  mountPieces: entity.mountPiece,
  structures: entity.structure,
  nodes: entity.node,
  members: entity.member,
  shearPanels: entity.shearPanel,
  pressTests: entity.pressTest,
  panelParts: entity.panelPart,
  joints: entity.joint,
  panelJoints: entity.panelJoint,
  letGos: entity.letGo,
  fixings: entity.fixing,
  weldSeams: entity.weldSeam,
  weldStretches: entity.weldStretch,
  weldMarks: entity.weldMark,
  cracks: entity.crack,
  stiffeners: entity.stiffener,
  axleReadings: entity.axleReading,
  cutLines: entity.cutLine,
  templates: entity.template,
  templatePoints: entity.templatePoint,
  keepOuts: entity.keepOut,
  adviceTaken: entity.adviceTaken,
  removalChecks: entity.removalCheck,
  removalReadings: entity.removalReading,
} as const;

export type JobTable = keyof typeof JOB_TABLES;

/** What belongs to the shop: a job carries copies of what it used. */
export const SHOP_TABLES = [
  'instruments',
  'instrumentVersions',
  'benches',
  'benchVersions',
  'shelfItems',
  'sections',
  'people',
  'closedDays',
] as const satisfies readonly JobTable[];
export type ShopTable = (typeof SHOP_TABLES)[number];
export const isShopTable = (table: JobTable): table is ShopTable =>
  (SHOP_TABLES as readonly JobTable[]).includes(table);

export const JOB_TABLE_NAMES = Object.keys(JOB_TABLES) as JobTable[];
export type RowOf<T extends JobTable> = z.infer<(typeof JOB_TABLES)[T]>;

/** All rows of one job. */
export type JobRows = { readonly [T in JobTable]: readonly RowOf<T>[] };

/** Some tables of a job: what a page or a part of it needs. */
export type Tables<T extends JobTable> = Pick<JobRows, T>;

/** Only these tables of a job. */
export const only = <T extends JobTable>(rows: Tables<T>, ...tables: readonly T[]): Tables<T> =>
  Object.fromEntries(tables.map((table) => [table, rows[table]])) as Tables<T>;

export const emptyJobRows = (): { [T in JobTable]: RowOf<T>[] } =>
  Object.fromEntries(JOB_TABLE_NAMES.map((table) => [table, []])) as never;

/** The one job among the rows. */
export function theJob(rows: Tables<'jobs'>): entity.Job {
  const [job] = rows.jobs;
  if (!job) throw new Error('the rows hold no job');
  return job;
}
