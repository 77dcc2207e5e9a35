import { z } from 'zod';
import type { Photograph } from '@/core/shell/job/entities';
import { emptyJobRows, JOB_TABLE_NAMES, JOB_TABLES, type JobRows, type JobTable } from '@/core/shell/job/job-rows';
import { ROWS_VERSION, upgradeDocument } from '@/core/shell/job/upgrades';
import { parseJson, parseShape, type Fault, type Parsed } from '../faults';

/**
 * A whole job as documents: `job.json` (`vinkel.job/11`) with everything but the readings,
 * one `rounds/NN.json` (`vinkel.round/11`) a round with its readings and strikes, and the
 * photographs as files under `photographs/`. Documents of earlier versions are read too. See docs/formats.md.
 */
const ROUND_TABLES = [
  'rounds',
  'roundControls',
  'roundEvents',
  'readings',
  'readingStrikes',
  'readingKeeps',
  'pointConditions',
] as const satisfies readonly JobTable[];
type RoundTable = (typeof ROUND_TABLES)[number];
const isRoundTable = (table: JobTable): table is RoundTable => (ROUND_TABLES as readonly string[]).includes(table);
const OWN_TABLES = JOB_TABLE_NAMES.filter((table) => !isRoundTable(table));

const tablesSchema = (tables: readonly JobTable[]) =>
  z.strictObject(Object.fromEntries(tables.map((table) => [table, z.array(JOB_TABLES[table]).default([])])));

const JOB = 'vinkel.job';
const ROUND = 'vinkel.round';

const jobDocument = z.strictObject({
  format: z.literal(`${JOB}/${ROWS_VERSION}`),
  rows: tablesSchema(OWN_TABLES),
});
const roundDocument = z.strictObject({
  format: z.literal(`${ROUND}/${ROWS_VERSION}`),
  rows: tablesSchema(ROUND_TABLES),
});

export interface ArchiveDocument {
  readonly path: string;
  readonly text: string;
}

export const JOB_PATH = 'job.json';
export const ROUND_PATH = /^rounds\/\d+\.json$/;

const EXTENSION: Readonly<Record<Photograph['mediaType'], string>> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/avif': 'avif',
  'image/gif': 'gif',
  'image/tiff': 'tif',
};

export const photographPath = (photograph: Pick<Photograph, 'id' | 'mediaType'>): string =>
  `photographs/${photograph.id}.${EXTENSION[photograph.mediaType]}`;

/** What an archive carries of a job's rows: of the shop's things only those it used. */
export function carried(rows: JobRows): JobRows {
  const versions = new Set([
    ...rows.rounds.map((round) => round.instrumentVersionId),
    ...rows.readings.map((reading) => reading.instrumentVersionId),
  ]);
  const instrumentVersions = rows.instrumentVersions.filter((version) => versions.has(version.id));
  const used = new Set(instrumentVersions.map((version) => version.instrumentId));
  const instruments = rows.instruments.filter((instrument) => used.has(instrument.id));
  const stoodOn = new Set(rows.setUps.map(({ benchVersionId }) => benchVersionId));
  const benchVersions = rows.benchVersions.filter(({ id }) => stoodOn.has(id));
  const benchIds = new Set(benchVersions.map(({ benchId }) => benchId));
  const benches = rows.benches.filter(({ id }) => benchIds.has(id));
  const shelfItems = rows.shelfItems.filter(({ benchVersionId }) => stoodOn.has(benchVersionId));
  const madeOf = new Set(rows.braces.map(({ sectionId }) => sectionId));
  const sections = rows.sections.filter(({ id }) => madeOf.has(id));
  const busy = new Set(rows.stepPeople.map(({ personId }) => personId));
  const people = rows.people.filter(({ id }) => busy.has(id));
  return { ...rows, instruments, instrumentVersions, benches, benchVersions, shelfItems, sections, people };
}

/** The documents of a job. */
export function archiveDocuments(all: JobRows): ArchiveDocument[] {
  const rows = carried(all);
  const own = Object.fromEntries(OWN_TABLES.map((table) => [table, rows[table]]));
  return [
    { path: JOB_PATH, text: json({ format: `${JOB}/${ROWS_VERSION}`, rows: own }) },
    ...rows.rounds.map((round) => {
      const readings = rows.readings.filter((reading) => reading.roundId === round.id);
      const ids = new Set(readings.map((reading) => reading.id));
      return {
        path: `rounds/${String(round.number).padStart(2, '0')}.json`,
        text: json({
          format: `${ROUND}/${ROWS_VERSION}`,
          rows: {
            rounds: [round],
            roundControls: rows.roundControls.filter((control) => control.roundId === round.id),
            roundEvents: rows.roundEvents.filter((each) => each.roundId === round.id),
            readings,
            readingStrikes: rows.readingStrikes.filter((strike) => ids.has(strike.readingId)),
            readingKeeps: rows.readingKeeps.filter((keep) => ids.has(keep.readingId)),
            pointConditions: rows.pointConditions.filter((each) => each.roundId === round.id),
          },
        }),
      };
    }),
  ];
}

const json = (value: unknown): string => `${JSON.stringify(value, null, 1)}\n`;

/** Puts a job's documents together again; every fault names its file and place. */
export function readArchiveDocuments(documents: readonly ArchiveDocument[]): Parsed<JobRows> {
  const rows = emptyJobRows();
  const faults: Fault[] = [];
  for (const { path, text } of documents) {
    const schema = path === JOB_PATH ? jobDocument : roundDocument;
    const parsed = parseJson(text);
    const current = parsed.ok && upgradeDocument(parsed.value, path === JOB_PATH ? JOB : ROUND);
    const shape = parsed.ok ? parseShape(schema as z.ZodType<{ rows: Partial<JobRows> }>, current) : parsed;
    if (!shape.ok) {
      faults.push(...shape.faults.map((fault) => ({ ...fault, path: `${path} ${fault.path}` })));
      continue;
    }
    for (const [table, list] of Object.entries(shape.value.rows)) rows[table as JobTable].push(...(list as never[]));
  }
  if (rows.jobs.length !== 1 && faults.length === 0)
    faults.push({ path: JOB_PATH, message: `an archive holds one job, not ${rows.jobs.length}` });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, value: rows };
}
