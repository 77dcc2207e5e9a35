/** A job's name as a file's name: letters, digits and dashes. */
export const fileName = (name: string): string =>
  name
    .replace(/[^\p{L}\p{N} -]+/gu, '')
    .trim()
    .replace(/\s+/g, '-') || 'job';

/** The headers of a file to be saved under a name. */
export const downloadHeaders = (mediaType: string, name: string): Record<string, string> => ({
  'content-type': mediaType,
  'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
  'x-content-type-options': 'nosniff',
});
