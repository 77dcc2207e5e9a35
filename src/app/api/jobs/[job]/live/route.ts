import { relayed, WINDOW_HEADER, type LiveEvent } from '@/formats/live';
import { live } from '@/server/live';
import { listenerHere, revisionNow } from '@/server/listening';

interface Params {
  readonly params: Promise<{ job: string }>;
}

/** A proxy or a tablet closes what is silent for long; this is a comment, which nobody hears. */
const STILL_HERE = 20_000;

/** What happens to a job, as it happens: server-sent events, each a `LiveEvent`. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  const { job: jobId } = await params;
  const window = new URL(request.url).searchParams.get('window') ?? '';
  const { name, mayHear } = await listenerHere();
  const revision = await revisionNow();
  const text = new TextEncoder();
  let stop = (): void => undefined;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (line: string) => {
        try {
          controller.enqueue(text.encode(`${line}\n\n`));
        } catch {
          stop();
        }
      };
      const hear = (event: LiveEvent) => send(`data: ${JSON.stringify(event)}`);
      const beat = setInterval(() => send(': still here'), STILL_HERE);
      const silence = live().listen({ jobId, window, name, mayHear, hear, end: () => stop() });
      stop = () => {
        stop = () => undefined;
        clearInterval(beat);
        silence();
        try {
          controller.close();
        } catch {
          // The window closed it already.
        }
      };
      hear({ kind: 'rows', revision, tape: false });
      request.signal.addEventListener('abort', () => stop());
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' },
  });
}

/** A window tells the others of its job something that is kept nowhere. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  const read = relayed.safeParse(await request.json().catch(() => undefined));
  if (!read.success)
    return Response.json({ faults: [{ path: 'message', message: 'this is nothing a window tells' }] }, { status: 422 });
  live().relay((await params).job, request.headers.get(WINDOW_HEADER) ?? '', read.data);
  return new Response(null, { status: 204 });
}
