import type { Reference } from '../job/entities';
import type { JobRows, RowOf } from '../job/job-rows';

/**
 * Whether something rests on this edition: a round was closed, or a record signed, since it was made. An
 * edit then makes the next edition, and this one stays as it was.
 */
export function isSealed(
  { createdAt }: Pick<Reference, 'createdAt'>,
  rows: Pick<JobRows, 'rounds' | 'signedRecords'>,
): boolean {
  return (
    rows.rounds.some(({ closedAt }) => closedAt !== null && closedAt > createdAt) ||
    rows.signedRecords.some(({ signedAt }) => signedAt > createdAt)
  );
}

/** All editions of a reference, oldest first. */
export function editionsOf(rows: Pick<JobRows, 'references'>, reference: Reference): Reference[] {
  const first = reference.editionOf ?? reference.id;
  return rows.references
    .filter(({ id, editionOf }) => id === first || editionOf === first)
    .sort((a, b) => a.edition - b.edition);
}

type FigureTable = 'referencePoints' | 'referenceDimensions' | 'referenceStations';
export type EditionRows = { readonly references: RowOf<'references'>[] } & { readonly [T in FigureTable]: RowOf<T>[] };

/**
 * The next edition of a reference with a copy of every figure.
 *
 * @returns the rows to add, and where each figure went: old row identity to new
 */
export function nextEdition(
  rows: JobRows,
  reference: Reference,
  at: string,
  newId: () => string,
): { readonly rows: EditionRows; readonly copyOf: ReadonlyMap<string, string> } {
  const edition = Math.max(...editionsOf(rows, reference).map((each) => each.edition)) + 1;
  const next: Reference = {
    ...reference,
    id: newId(),
    edition,
    editionOf: reference.editionOf ?? reference.id,
    createdAt: at,
    inUse: true,
  };
  const copyOf = new Map<string, string>([[reference.id, next.id]]);
  const copied = <T extends FigureTable>(table: T): RowOf<T>[] =>
    (rows[table] as readonly { id: string; referenceId: string }[])
      .filter(({ referenceId }) => referenceId === reference.id)
      .map((row) => {
        const id = newId();
        copyOf.set(row.id, id);
        return { ...row, id, referenceId: next.id, version: 1 } as unknown as RowOf<T>;
      });
  return {
    rows: {
      references: [next],
      referencePoints: copied('referencePoints'),
      referenceDimensions: copied('referenceDimensions'),
      referenceStations: copied('referenceStations'),
    },
    copyOf,
  };
}

/** What differs between two editions: figures changed, added or taken out. */
export function editionDifference(
  rows: JobRows,
  before: Reference,
  after: Reference,
): { readonly changed: number; readonly added: number; readonly removed: number } {
  const figures = (id: string) =>
    new Map([
      ...rows.referencePoints
        .filter(({ referenceId }) => referenceId === id)
        .map((row) => [row.pointId, [row.x, row.y, row.z, row.tolerance].join()] as const),
      ...rows.referenceDimensions
        .filter(({ referenceId }) => referenceId === id)
        .map((row) => [row.dimensionId, [row.value, row.tolerance].join()] as const),
    ]);
  const [old, now] = [figures(before.id), figures(after.id)];
  return {
    changed: [...now].filter(([key, value]) => old.has(key) && old.get(key) !== value).length,
    added: [...now.keys()].filter((key) => !old.has(key)).length,
    removed: [...old.keys()].filter((key) => !now.has(key)).length,
  };
}
