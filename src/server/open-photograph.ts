import { Readable } from 'node:stream';
import { contentOf, photographById, previewOf } from '@/db/photographs';
import { store } from './store';

/** Opens a stored picture or its preview for reading. */
export async function openPhotograph(
  id: string,
  preview: boolean,
): Promise<{ mediaType: string; content: Readable } | undefined> {
  if (!/^[0-9a-f-]{36}$/i.test(id)) return undefined;
  const { database } = await store();
  const photograph = await photographById(database, id);
  if (!photograph) return undefined;
  if (!preview)
    return {
      mediaType: photograph.mediaType,
      content: Readable.from(contentOf(database, id), { objectMode: false }),
    };
  const small = await previewOf(database, id);
  return small && { mediaType: 'image/jpeg', content: Readable.from([small], { objectMode: false }) };
}
