import type { Change } from '@/core/shell/job/entities';
import type { RowOf } from '@/core/shell/job/job-rows';
import type { Queryable } from '@/db/database';
import { insert, nameOf, rowById, update, type EditableTable, type UpdateResult } from '@/db/table';
import { failed } from '@/formats/outcome';
import type { Signature } from './use-case';

/** Who edits, and when. */
export interface Editor {
  readonly signature: Signature;
  readonly newId: () => string;
}

/** Tables whose rows name their job, and the job itself. */
type EditedTable = Extract<
  EditableTable,
  | 'jobs'
  | 'points'
  | 'dimensions'
  | 'seams'
  | 'braces'
  | 'pulls'
  | 'steps'
  | 'partTags'
  | 'setUps'
  | 'gaugeParts'
  | 'workItems'
  | 'panels'
  | 'stages'
  | 'joints'
  | 'templates'
  | 'hungPanels'
  | 'weldSeams'
  | 'cracks'
  | 'stiffeners'
>;

/**
 * Writes an edited row, unless somebody else came first, and keeps how it was.
 *
 * @param batch what one action of the user changes together
 */
export async function edit<T extends EditedTable>(
  tx: Queryable,
  table: T,
  row: RowOf<T>,
  { signature, newId }: Editor,
  batch: string = newId(),
): Promise<UpdateResult<RowOf<T>>> {
  const { id } = row;
  const before = await rowById(tx, table, id);
  const result = await update(tx, table, row);
  const changed = before && result.ok && changedFields(before, result.row);
  if (changed)
    await insert(tx, 'changes', [
      {
        id: newId(),
        jobId: 'jobId' in row ? row.jobId : id,
        ...{ batch, tableName: nameOf(table), rowId: id, ...changed, ...signature },
      },
    ]);
  return result;
}

/** The answer to somebody whose row another edit changed first: what they typed stays, and how it is now. */
export const overtaken = (current: unknown) => ({
  ...failed('row', 'somebody else changed this meanwhile; your text is kept'),
  current,
});

/** The fields in which two states of a row differ, each state's own; undefined where none does. */
function changedFields<Row extends object>(before: Row, after: Row): Pick<Change, 'before' | 'after'> | undefined {
  const keys = (Object.keys(after) as (keyof Row & string)[]).filter(
    (key) => key !== 'version' && before[key] !== after[key],
  );
  const of = (row: Row) => Object.fromEntries(keys.map((key) => [key, row[key]]));
  return keys.length === 0 ? undefined : { before: of(before), after: of(after) };
}
