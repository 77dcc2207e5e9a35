import { createServer } from 'node:http';
import os from 'node:os';
import path from 'node:path';
import next from 'next';

/** A process beside the one that answers: it makes pages for it, and answers nobody else. Begun by it, it ends with it. */
const { VINKEL_ASIDE: secret, VINKEL_DATA: data } = process.env;
process.env.VINKEL_DATA = path.join(data, `pages-${process.argv[2]}`);
process.once('disconnect', () => process.kill(process.pid, 'SIGTERM'));

// What is written down at the car comes first, also where processors are few.
os.setPriority(os.constants.priority.PRIORITY_BELOW_NORMAL);

const app = next({ dev: false, dir: process.cwd(), hostname: '127.0.0.1' });
await app.prepare();
const { openDoors } = await import('../dist/doors.mjs');
const { ASIDE_HEADER } = await import('../dist/pages-aside.mjs');
const { inside } = openDoors({ data, inside: app.getRequestHandler(), guarded: undefined, names: [] });
const server = createServer((request, response) => {
  if (request.headers[ASIDE_HEADER] === secret) return inside(request, response);
  response.writeHead(403).end();
});
await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
const { port } = server.address();
// The first request opens the database.
const alive = await fetch(`http://127.0.0.1:${port}/api/alive`, { headers: { [ASIDE_HEADER]: secret } });
if (!alive.ok) throw new Error('the database could not be opened for pages');
process.send({ port });
