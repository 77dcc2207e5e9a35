import { createServer } from 'node:http';
import next from 'next';
import { guarded, ownHosts } from './guard.mjs';

/**
 * Serves the production build on 127.0.0.1.
 *
 * @param {{ port: number, data: string }} options the first port to try, and the data folder
 * @returns {Promise<string>} the address
 */
export async function serve({ port, data }) {
  process.env.VINKEL_DATA = data;
  // The data folder is closed by the program itself on SIGTERM and SIGINT.
  process.env.NEXT_MANUAL_SIG_HANDLE = 'true';
  const app = next({ dev: false, dir: process.cwd(), hostname: '127.0.0.1', port });
  await app.prepare();
  const handle = app.getRequestHandler();
  let hosts = [];
  const server = createServer(
    guarded(
      (request, response) => void handle(request, response),
      () => hosts,
    ),
  );
  const taken = await listen(server, port);
  hosts = ownHosts(taken);
  const address = `http://${hosts[0]}`;
  if (taken !== port && port !== 0) console.log(`Port ${port} is taken by another program: this one is at ${address}.`);
  // The first request opens the data folder, or ends the process with a sentence where it is taken.
  const alive = await fetch(`${address}/api/alive`);
  if (!alive.ok) throw new Error('the data folder could not be opened');
  return address;
}

/** Listens on the first free port from `port` on. */
function listen(server, port, tries = 50) {
  return new Promise((resolve, reject) => {
    server.once('error', (error) => {
      if (error.code === 'EADDRINUSE' && tries > 0) resolve(listen(server, port + 1, tries - 1));
      else if (error.code === 'EACCES' && tries > 0) {
        console.log(`Port ${port} may not be used: trying ${FALLBACK_PORT}.`);
        resolve(listen(server, FALLBACK_PORT, tries - 1));
      } else reject(error);
    });
    server.listen(port, '127.0.0.1', () => resolve(server.address().port));
  });
}

/** One that every user may take. */
const FALLBACK_PORT = 3000;
