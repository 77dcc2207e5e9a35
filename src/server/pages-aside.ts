import { fork, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { Agent, request as ask, type IncomingMessage, type RequestListener, type ServerResponse } from 'node:http';

/** By this a request shows that it comes from the process that let it in. */
export const ASIDE_HEADER = 'x-vinkel-aside';

/**
 * What the process that hears everybody answers itself: the program's files, whether it answers, windows that listen, devices of the
 * floor, and where its own data is.
 */
const OWN = /^\/(_next\/|api\/alive$|api\/jobs\/[^/]+\/live$|floor$|kept$|[^/]+\.[a-z0-9]+$)/;

const isForAside = ({ method, url = '/' }: IncomingMessage): boolean =>
  method === 'GET' && !OWN.test(url.split('?')[0]!);

/** One that ended is begun again after so long, ms. */
const AGAIN = 5_000;

interface Aside {
  readonly handle: RequestListener;
  close(): void;
}

/**
 * Processes of the program that make pages and files, on the same database: what is written down at the car waits for none of them.
 * As long as none of them is there, and where one fails, pages are made here.
 *
 * @param script what such a process runs: it is told a secret, and tells its port when it answers
 */
export function pagesAside(inside: RequestListener, script: string, count: number): Aside {
  const secret = randomBytes(24).toString('base64url');
  const agent = new Agent({ keepAlive: true });
  const ports = new Map<ChildProcess, number>();
  const all = new Set<ChildProcess>();
  let closed = false;
  let turn = 0;

  const begin = (number: number) => {
    if (closed) return;
    const child = fork(script, [String(number)], { env: { ...process.env, VINKEL_ASIDE: secret } });
    all.add(child);
    child.on('message', ({ port }: { port: number }) => ports.set(child, port));
    child.once('exit', () => {
      ports.delete(child);
      all.delete(child);
      setTimeout(() => begin(number), AGAIN).unref();
    });
  };
  for (let number = 1; number <= count; number++) begin(number);

  const handOver = (request: IncomingMessage, response: ServerResponse, port: number) => {
    const { connection: _, ...headers } = request.headers;
    const asked = ask({
      ...{ agent, host: '127.0.0.1', port, method: request.method, path: request.url },
      headers: { ...headers, [ASIDE_HEADER]: secret },
    });
    asked.once('response', (made) => {
      const { connection: _, 'keep-alive': __, 'transfer-encoding': ___, ...headers } = made.headers;
      response.writeHead(made.statusCode ?? 502, headers);
      made.pipe(response);
      made.once('error', () => response.destroy());
    });
    asked.once('error', () => {
      if (response.headersSent || response.destroyed) response.destroy();
      else inside(request, response);
    });
    // Whoever asked went away: nobody needs it any more.
    response.once('close', () => asked.destroy());
    asked.end();
  };

  return {
    handle: (request, response) => {
      delete request.headers[ASIDE_HEADER];
      const there = [...ports.values()];
      if (there.length === 0 || !isForAside(request)) return inside(request, response);
      handOver(request, response, there[turn++ % there.length]!);
    },
    close: () => {
      closed = true;
      for (const child of all) child.kill();
      agent.destroy();
    },
  };
}
