import { chained } from './ladder-order';

/**
 * Rows as they were written by earlier versions, brought up to date one step a version: of archives, of the journal.
 * Signed snapshots have versions of their own and are read as they are. Nothing is guessed on the way: what an older
 * version had only as words stays words.
 */
export const ROWS_VERSION = 12;

type Rows = Readonly<Record<string, unknown>>;
type Row = Readonly<Record<string, unknown>>;

/** What leads from a version to the next. */
const STEPS: Readonly<Record<number, (rows: Rows) => Rows>> = {
  // Mounts and edges, which no screen could make, went; what holds a pull became rows, and there were none before.
  1: ({ features: _, ...rows }) => ({
    ...rows,
    ...(Array.isArray(rows.readings) ? { readings: rows.readings.map(withoutFeature) } : {}),
  }),
  // Who closed a round and what was changed by hand were not kept before: there is nothing to bring along.
  2: (rows) => rows,
  // The step that signing does was known by its title alone.
  3: (rows) => ({ ...rows, ...(Array.isArray(rows.steps) ? { steps: rows.steps.map(doneBySigning) } : {}) }),
  // Benches and set-ups came: there were none before.
  4: (rows) => rows,
  // Braces became items of work and what happened to them its events; a section told in words stays in the note.
  5: bracesAsWork,
  // Pulls became items of work too, what happened to them its events, and what holds a pull holds of an item.
  6: pullsAsWork,
  // Bars through several plates came, what a pull is anchored to, and where a seam lies: there was none of it before.
  7: (rows) => {
    const [pulls, seams] = [listed(rows, 'pulls'), listed(rows, 'seams')];
    return {
      ...rows,
      ...(pulls ? { pulls: pulls.map((pull) => ({ ...pull, anchor: null })) } : {}),
      ...(seams ? { seams: seams.map((seam) => ({ ...seam, ...UNPLACED_SEAM })) } : {}),
    };
  },
  // The joints of a panel that is fitted were known by the words they were let go under; how long a step takes was not said.
  8: (rows) => {
    const [letGos, fixings, steps] = ['letGos', 'fixings', 'steps'].map((table) => listed(rows, table));
    const joints = new Map(
      (letGos ?? []).map(({ hungId, place }) => [`${String(hungId)} ${String(place)}`, { hungId, place }]),
    );
    return {
      ...rows,
      ...(joints.size > 0
        ? {
            panelJoints: [...joints.values()].map(({ hungId, place }) => ({
              hungId,
              name: place,
              edge: null,
              jointId: null,
            })),
          }
        : {}),
      ...(fixings ? { fixings: fixings.map((fixing) => ({ ...fixing, joint: null })) } : {}),
      ...(steps
        ? { steps: steps.map((step) => ({ ...UNPLANNED_STEP, ...step })), stepNeeds: chained(steps as never) }
        : {}),
    };
  },
  // Seams laid in turn came, with what joints shrank, cracks, stiffeners and axles: there were none before.
  9: (rows) => {
    const seams = listed(rows, 'weldSeams');
    return { ...rows, ...(seams ? { weldSeams: seams.map((seam) => ({ ...seam, inTurnWithId: null })) } : {}) };
  },
  // What people may do was not said, and what was written carried their names alone.
  10: (rows) => {
    const people = listed(rows, 'people');
    return { ...rows, ...(people ? { people: people.map((each) => ({ ...each, roles: [], owner: false })) } : {}) };
  },
  // What a point is of, parts and props as braces and the order inside a stage were not told.
  11: (rows) => {
    const [points, braces, panels] = ['points', 'braces', 'panels'].map((table) => listed(rows, table));
    return {
      ...rows,
      ...(points ? { points: points.map((point) => ({ ...point, kind: 'shell' })) } : {}),
      ...(braces ? { braces: braces.map((brace) => ({ ...brace, stiffness: null, force: null })) } : {}),
      ...(panels ? { panels: panels.map((panel) => ({ ...panel, ordinal: 0 })) } : {}),
    };
  },
};

const listed = (rows: Rows, table: string): readonly Row[] | undefined =>
  Array.isArray(rows[table]) ? (rows[table] as readonly Row[]) : undefined;

function pullsAsWork({ pullEvents, pullHolds, ...rows }: Rows): Rows {
  const pulls = listed(rows, 'pulls');
  const items = [
    ...(listed(rows, 'workItems') ?? []),
    ...(pulls ?? []).map(({ id, jobId, code }) => ({ id, jobId, kind: 'pull', code, name: code, version: 1 })),
  ];
  const events = [
    ...(listed(rows, 'workEvents') ?? []),
    ...((pullEvents as readonly Row[] | undefined) ?? []).map(({ pullId, note, ...event }) =>
      eventOfItem(event, pullId, note),
    ),
  ];
  const withdrawals = listed(rows, 'withdrawals');
  return {
    ...rows,
    ...(items.length > 0 ? { workItems: items } : {}),
    ...(events.length > 0 ? { workEvents: events } : {}),
    ...(pulls ? { pulls: pulls.map(({ code: _, ...pull }) => ({ ...pull, ...UNTOLD_PULL })) } : {}),
    ...(Array.isArray(pullHolds)
      ? { holds: (pullHolds as readonly Row[]).map(({ pullId, ...hold }) => ({ ...hold, itemId: pullId })) }
      : {}),
    ...(withdrawals ? { withdrawals: withdrawals.map(ofItems) } : {}),
  };
}

const UNTOLD_PULL = {
  ...{ againstPointId: null, dirX: null, dirY: null, dirZ: null, attach: null },
  ...{ chain: null, rated: null, ramArea: null, together: '' },
};

const eventOfItem = (event: Row, itemId: unknown, note: unknown): Row => ({
  ...event,
  ...{ itemId, key: '', reason: note, value: null },
});

function bracesAsWork({ braceEvents, ...rows }: Rows): Rows {
  const list = (table: string) => listed(rows, table);
  const braces = list('braces');
  const items = [
    ...(list('workItems') ?? []).map((item) => ({ ...item, version: 1 })),
    ...(braces ?? []).map(({ id, jobId, code }) => ({ id, jobId, kind: 'brace', code, name: code, version: 1 })),
  ];
  const events = [
    ...(list('workEvents') ?? []),
    ...((braceEvents as readonly Row[] | undefined) ?? []).map(({ braceId, note, ...event }) =>
      eventOfItem(event, braceId, note),
    ),
  ];
  const { panels, withdrawals } = { panels: list('panels'), withdrawals: list('withdrawals') };
  return {
    ...rows,
    ...(items.length > 0 ? { workItems: items } : {}),
    ...(events.length > 0 ? { workEvents: events } : {}),
    ...(braces ? { braces: braces.map(braceWithEnds) } : {}),
    ...(panels ? { panels: panels.map((panel) => ({ ...panel, ...UNDECIDED_PANEL })) } : {}),
    ...(withdrawals ? { withdrawals: withdrawals.map(ofItems) } : {}),
  };
}

function braceWithEnds({ code: _, section, note, ...brace }: Row): Row {
  return {
    ...brace,
    ...{ sectionId: null, fromEnd: 'doubled', toEnd: 'doubled', fromOff: 0, toOff: 0 },
    ...{ threadPitch: null, stageInId: null, stageOutId: null },
    note: [section, note].filter((each) => each !== '').join('; '),
  };
}

const UNPLANNED_STEP = {
  ...{ itemId: null, minutes: null, waits: null, curesAt: null, keeps: null },
  ...{ tendEvery: null, noise: false, outdoor: false, notBefore: null },
};

const UNPLACED_SEAM = { sight: 'shut', fromPointId: null, toPointId: null };

const UNDECIDED_PANEL = {
  ...{ stageId: null, choice: null, reason: '', joinedAt: '', hours: null, price: null, ownersWord: '' },
  ...{ stressed: false, version: 1 },
};

const NEW_NAME: Readonly<Record<string, string>> = {
  ...{ brace: 'work_item', brace_event: 'work_event' },
  ...{ pull: 'work_item', pull_event: 'work_event' },
};
const ofItems = (withdrawal: Row): Row => ({
  ...withdrawal,
  tableName: NEW_NAME[String(withdrawal.tableName)] ?? withdrawal.tableName,
});

const doneBySigning = (step: unknown): unknown => {
  const { rung, title } = (step ?? {}) as Row;
  return rung === 'verify' && title === 'Sign the record' ? { ...(step as Row), doneBy: 'signing' } : step;
};

const withoutFeature = (reading: unknown): unknown => {
  if (typeof reading !== 'object' || reading === null) return reading;
  const { featureId: _, ...rest } = reading as Row;
  return rest;
};

/**
 * The version a document's format names: `vinkel.job/2` → 2.
 *
 * @returns undefined where it is another format, or of a version that is not known here
 */
export function versionOfFormat(format: unknown, name: string): number | undefined {
  if (typeof format !== 'string' || !format.startsWith(`${name}/`)) return undefined;
  const version = Number(format.slice(name.length + 1));
  return Number.isInteger(version) && version >= 1 && version <= ROWS_VERSION ? version : undefined;
}

/** What a table of an earlier version is called now, where its rows only changed their name. */
export const tableNow = (table: string, version: number): string =>
  table === 'pullHolds' && version < 7 ? 'holds' : table;

/** Rows of an earlier version as this one has them. */
export function upgradeRows(rows: unknown, version: number): unknown {
  if (typeof rows !== 'object' || rows === null || Array.isArray(rows)) return rows;
  let upgraded = rows as Rows;
  for (let from = version; from < ROWS_VERSION; from++) upgraded = STEPS[from]!(upgraded);
  return upgraded;
}

/** A whole document brought up to date, its format with it; one of another name or version is left as it is. */
export function upgradeDocument(document: unknown, name: string): unknown {
  if (typeof document !== 'object' || document === null) return document;
  const { format, rows, ...rest } = document as Row;
  const version = versionOfFormat(format, name);
  if (version === undefined) return document;
  return { ...rest, format: `${name}/${ROWS_VERSION}`, rows: upgradeRows(rows, version) };
}
