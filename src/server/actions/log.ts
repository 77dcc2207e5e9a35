'use server';

import { insert } from '@/db/table';
import { parseJson } from '@/formats/faults';
import { newEntry } from '@/formats/inputs/log';
import { done, failed, type Outcome } from '@/formats/outcome';
import { inspectPhotograph, storePhotograph, type TakenPhotograph } from '../photographs';
import { runUseCase } from '../use-case';

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
  return runUseCase(newEntry, json.value, async ({ entry, subjects }, { database, actor, now, newId }) => {
    if (entry.kind === 'decision' && entry.reason.trim() === '') return failed('reason', 'a decision needs its reason');
    await database.transaction(async (tx) => {
      await insert(tx, 'logEntries', [{ ...entry, author: actor, at: now }]);
      await insert(
        tx,
        'logSubjects',
        subjects.map((subject) => ({ ...subject, entryId: entry.id })),
      );
      for (const { file, photograph } of taken)
        await storePhotograph(tx, photograph, {
          id: newId(),
          jobId: entry.jobId,
          entryId: entry.id,
          name: file.name.slice(0, 200),
          author: actor,
          at: now,
        });
    });
    return done(null);
  });
}
