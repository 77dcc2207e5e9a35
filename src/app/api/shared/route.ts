import { sharedHere } from '@/server/shared';

/** What the other shops of this server share, without the files. */
export async function GET(): Promise<Response> {
  const all = (await sharedHere()) ?? [];
  return Response.json(all.filter(({ own }) => !own));
}
