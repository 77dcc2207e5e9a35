import { describe, expect, it } from 'vitest';
import { versionsIn, withVersions } from './as-opened';

describe('a form over rows that change under it', () => {
  const opened = { item: { id: 'a', version: 3, name: 'Sill' }, seams: [{ id: 'b', version: 1 }], needs: ['c'] };

  it('says the versions it was opened with, whatever the page brings meanwhile', () => {
    const versions = versionsIn(opened);
    expect([...versions]).toEqual([
      ['a', 3],
      ['b', 1],
    ]);
    const now = { item: { id: 'a', version: 4, name: 'Sill, typed' }, seams: [{ id: 'b', version: 2 }], needs: ['c'] };
    expect(withVersions(now, versions)).toEqual({
      ...{ item: { id: 'a', version: 3, name: 'Sill, typed' }, seams: [{ id: 'b', version: 1 }], needs: ['c'] },
    });
  });

  it('leaves rows it did not know, rows without versions and files as they are', () => {
    const file = new Blob(['x']);
    const said = { row: { id: 'z', version: 7 }, point: { id: 'a' }, file, none: null };
    expect(withVersions(said, versionsIn(opened))).toEqual(said);
    expect(withVersions(said, versionsIn(opened)).file).toBe(file);
  });
});
