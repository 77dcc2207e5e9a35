'use server';

import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { logEntry, logSubject } from '@/core/shell/job/entities';
import { insert } from '@/db/table';
import { parseJson } from '@/formats/faults';
import { done, failed, type Outcome } from '@/formats/outcome';
import { inspectPhotograph, storePhotograph, type TakenPhotograph } from '../photographs';
import { runUseCase } from '../use-case';

const newEntry = z.strictObject({
  entry: logEntry.omit({ at: true }),
  subjects: z.array(logSubject.omit({ entryId: true })),
});

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
  return runUseCase(newEntry, json.value, async ({ entry, subjects }, { database }) => {
    if (entry.kind === 'decision' && entry.reason.trim() === '') return failed('reason', 'a decision needs its reason');
    const at = new Date().toISOString();
    await database.transaction(async (tx) => {
      await insert(tx, 'logEntries', [{ ...entry, at }]);
      await insert(
        tx,
        'logSubjects',
        subjects.map((subject) => ({ ...subject, entryId: entry.id })),
      );
      for (const { file, photograph } of taken)
        await storePhotograph(tx, photograph, {
          id: randomUUID(),
          jobId: entry.jobId,
          entryId: entry.id,
          name: file.name.slice(0, 200),
          author: entry.author,
          at,
        });
    });
    return done(null);
  });
}
