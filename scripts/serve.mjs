import { createServer } from 'node:http';
import path from 'node:path';
import next from 'next';
import { guarded, ownHosts } from './guard.mjs';

/**
 * Serves the production build on 127.0.0.1.
 *
 * @param {{ port: number, data: string, shop?: boolean, alone?: boolean }} options the first port to
 *   try, the data folder, and whether it answers on the shop's network too, which it also does where it was left switched on, or no more
 * @returns {Promise<string>} the address
 */
export async function serve({ port, data, shop = false, alone = false }) {
  process.env.VINKEL_DATA = data;
  // The data folder is closed by the program itself on SIGTERM and SIGINT.
  process.env.NEXT_MANUAL_SIG_HANDLE = 'true';
  const app = next({ dev: false, dir: process.cwd(), hostname: '127.0.0.1', port });
  await app.prepare();
  const names = (process.env.VINKEL_NAMES ?? '').split(/[\s,]+/).filter(Boolean);
  const { openDoors } = await import('../dist/doors.mjs');
  const own = app.getRequestHandler();
  // Settled when it is known that the database is there: until then this process makes its pages itself.
  let inside = own;
  const doors = openDoors({ data, inside: (request, response) => inside(request, response), guarded, names });
  let hosts = [];
  const server = createServer(
    guarded(
      (request, response) => {
        // Only what comes over the network names a device.
        delete request.headers['x-vinkel-device'];
        doors.handle(request, response);
      },
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
  const aside = pagesBeside();
  if (aside > 0) {
    const { pagesAside } = await import('../dist/pages-aside.mjs');
    const pages = pagesAside(own, path.join(import.meta.dirname, 'pages.mjs'), aside);
    inside = pages.handle;
    for (const signal of ['SIGTERM', 'SIGINT']) process.once(signal, pages.close);
  }
  const { floor, isLeftOn } = doors.floorAt(taken + FLOOR_PORT);
  if (alone) await floor.close();
  else if (shop || isLeftOn) await answerOnTheFloor(floor);
  return address;
}

/** How many processes make pages beside this one: on a database server one, or as many as `VINKEL_PAGES` says; a folder has one process. */
function pagesBeside() {
  const said = Number(process.env.VINKEL_PAGES ?? 1);
  return process.env.VINKEL_DATABASE && Number.isInteger(said) && said > 0 ? Math.min(said, 16) : 0;
}

/** Answers on the network from now on, and says how to come in. */
async function answerOnTheFloor(floor) {
  try {
    await floor.open();
  } catch (error) {
    console.error(`It does not answer on the network: ${error.message}`);
    return;
  }
  const { addresses, trust, fingerprint } = floor.state();
  const { default: QR } = await import('qrcode');
  console.log(`\nOn the shop’s network: ${addresses.join('  ')}`);
  console.log(`First, on each tablet: ${trust}\nFingerprint to compare there: ${fingerprint}`);
  console.log(await QR.toString(trust, { type: 'terminal', small: true }));
}

/** So far from the port of this machine's own pages lies the one for the network. */
const FLOOR_PORT = 443;

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
