import { simulatedShell } from '@/server/simulation';

/** Where the points of the hidden true shell stand on the bench, for the simulated instrument. */
export async function GET(_: Request, { params }: { params: Promise<{ job: string }> }): Promise<Response> {
  const shell = await simulatedShell((await params).job);
  return shell ? Response.json(Object.fromEntries(shell)) : new Response('no shell to simulate', { status: 404 });
}
