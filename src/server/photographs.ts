import { createHash } from 'node:crypto';
import sharp from 'sharp';
import type { Photograph } from '@/core/shell/job/entities';
import { addContent, addPart, PART_BYTES } from '@/db/photographs';
import type { Queryable } from '@/db/database';
import { insert } from '@/db/table';
import { done, failed, type Outcome } from '@/formats/outcome';

export const MOST_BYTES = 15 * 1024 * 1024;
const MOST_PIXELS = 120_000_000;

const MEDIA_TYPE: Readonly<Record<string, Photograph['mediaType']>> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  heif: 'image/avif',
  gif: 'image/gif',
  tiff: 'image/tiff',
};

export interface TakenPhotograph {
  readonly mediaType: Photograph['mediaType'];
  readonly width: number;
  readonly height: number;
  readonly sha256: string;
  readonly preview: Uint8Array;
  readonly content: Buffer;
}

/** Looks at uploaded bytes: only a picture of at most 15 MB is taken, and a small one made of it. */
export async function inspectPhotograph(name: string, content: Buffer): Promise<Outcome<TakenPhotograph>> {
  if (content.length === 0) return failed(name, 'the file is empty');
  if (content.length > MOST_BYTES)
    return failed(name, `the photograph has ${(content.length / 1024 / 1024).toFixed(1)} MB; at most 15 MB are kept`);
  try {
    const image = sharp(content, { limitInputPixels: MOST_PIXELS });
    const { format, width, height } = await image.metadata();
    const mediaType = MEDIA_TYPE[format ?? ''];
    if (!mediaType || !width || !height) return failed(name, 'this is not a photograph that can be kept');
    const preview = await makePreview(content);
    return done({
      mediaType,
      width,
      height,
      preview,
      content,
      sha256: createHash('sha256').update(content).digest('hex'),
    });
  } catch {
    return failed(name, 'this is not a photograph, or it is damaged');
  }
}

/** A small upright picture for lists and the record. */
export const makePreview = (content: Buffer): Promise<Buffer> =>
  sharp(content, { limitInputPixels: MOST_PIXELS })
    .rotate()
    .resize(640, 640, { fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#ffffff' })
    .jpeg({ quality: 78 })
    .toBuffer();

/** Stores a photograph: its content beside the journal, where there is one, and in parts first, then the row that names it. */
export async function storePhotograph(
  tx: Queryable,
  pictures: { keep(id: string, content: Uint8Array): Promise<void> } | undefined,
  taken: TakenPhotograph,
  row: Omit<Photograph, 'mediaType' | 'width' | 'height' | 'sha256' | 'bytes'>,
): Promise<void> {
  const { mediaType, width, height, sha256, preview, content } = taken;
  await pictures?.keep(row.id, content);
  await storeContent(tx, row.id, preview, content);
  await insert(tx, 'photographs', [{ ...row, mediaType, width, height, sha256, bytes: content.length }]);
}

/** Stores the bytes of a picture and its preview, before the row that names them. */
export async function storeContent(tx: Queryable, id: string, preview: Uint8Array, content: Buffer): Promise<void> {
  await addContent(tx, id, preview);
  for (let number = 0; number * PART_BYTES < content.length; number++)
    await addPart(tx, id, number, content.subarray(number * PART_BYTES, (number + 1) * PART_BYTES));
}
