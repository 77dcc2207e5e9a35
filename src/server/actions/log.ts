'use server';

import { insert } from '@/db/table';
import { parseJson } from '@/formats/faults';
import { correctedTag, newEntry, newTag } from '@/formats/inputs/log';
import { done, failed, type Outcome } from '@/formats/outcome';
import { inspectPhotograph, storePhotograph, type TakenPhotograph } from '../photographs';
import { edit, overtaken } from '../edit';
import { measuringCase, runUseCase } from '../use-case';

/**
 * Writes a finding or a decision with its subjects and photographs: the form's field `entry` holds
 * the entry as JSON, `photograph` any number of files. All of it is kept or none.
 */
export async function writeLogEntry(form: FormData): Promise<Outcome> {
  const json = parseJson(String(form.get('entry') ?? ''));
  if (!json.ok) return json;
  const files = form.getAll('photograph').filter((file): file is File => file instanceof File && file.size > 0);
  const taken: { file: File; photograph: TakenPhotograph }[] = [];
  for (const file of files) {
    const inspected = await inspectPhotograph(file.name, Buffer.from(await file.arrayBuffer()));
    if (!inspected.ok) return inspected;
    taken.push({ file, photograph: inspected.value });
  }
  return runUseCase('measure', newEntry, json.value, async ({ entry, subjects, finding, decision }, context) => {
    const { database, pictures, signature, newId } = context;
    if (entry.kind === 'decision' && entry.reason.trim() === '') return failed('reason', 'a decision needs its reason');
    if (entry.kind === 'assumption' && entry.overturnedBy?.trim() === '')
      return failed('overturnedBy', 'say what would overturn it');
    const known = await database.query('select id from log_entry where id = $1', [entry.id]);
    if (known.length > 0) return done(null);
    await database.transaction(async (tx) => {
      await insert(tx, 'logEntries', [{ ...entry, ...signature }]);
      await insert(
        tx,
        'logSubjects',
        subjects.map((subject) => ({ ...subject, entryId: entry.id })),
      );
      if (finding) await insert(tx, 'findingDetails', [{ ...finding, entryId: entry.id }]);
      if (decision) await insert(tx, 'decisionDetails', [{ ...decision, entryId: entry.id }]);
      for (const { file, photograph } of taken)
        await storePhotograph(tx, pictures, photograph, {
          id: newId(),
          jobId: entry.jobId,
          entryId: entry.id,
          name: file.name.slice(0, 200),
          ...signature,
        });
    });
    return done(null);
  });
}

/** Gives a part that was taken off the next number. */
export const tagPart = measuringCase(newTag, (tag, { database, signature }) =>
  database.transaction(async (tx) => {
    const [known] = await tx.query<{ number: number }>('select number from part_tag where id = $1', [tag.id]);
    if (known) return done({ number: known.number });
    const [last] = await tx.query<{ next: number }>(
      'select coalesce(max(number), 0) + 1 as next from part_tag where job_id = $1',
      [tag.jobId],
    );
    await insert(tx, 'partTags', [{ ...tag, number: last!.next, ...signature, version: 1 }]);
    return done({ number: last!.next });
  }),
);

export const correctTag = measuringCase(correctedTag, (tag, context) =>
  context.database.transaction(async (tx) => {
    const result = await edit(tx, 'partTags', tag, context);
    return result.ok ? done(null) : overtaken(result.current);
  }),
);
