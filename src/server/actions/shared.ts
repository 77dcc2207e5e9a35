'use server';

import * as shares from '@/db/shared';
import * as input from '@/formats/inputs/shared';
import { done, failed } from '@/formats/outcome';
import { fileOf } from '../files';
import { ownersCase } from '../use-case';

/** Lets the other shops of this server have a chart, a structure or a bench, as it is now. */
export const share = ownersCase(input.shared, async ({ kind, of, name }, context) => {
  const { database, server, signature, newId } = context;
  if (!server) return failed('kind', 'the data is in a folder of this machine: there is no other shop on it');
  const file = await fileOf(database, kind, of);
  if (file === undefined)
    return failed('of', kind === 'bench' ? 'this bench is not here any more' : `this job has no ${kind} to share`);
  await shares.share(database, { id: newId(), kind, name, file, ...signature });
  return done(null);
});

/** Shares it no more. */
export const unshare = ownersCase(input.takenBack, async ({ id }, { database }) => {
  const gone = await shares.unshare(database, id);
  return gone.length > 0 ? done(null) : failed('id', 'this shop shares no such thing any more');
});
