import { store } from '@/server/store';

/** Answers once the data folder is open: the start scripts wait for it before they print the address. */
export async function GET(): Promise<Response> {
  const { folder } = await store();
  return Response.json({ folder });
}
