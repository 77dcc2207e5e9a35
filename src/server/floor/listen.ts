import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import {
  createServer as plainServer,
  type IncomingMessage,
  type RequestListener,
  type Server,
  type ServerResponse,
} from 'node:http';
import { createServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { certificatesIn, type Certificates } from './certificates';
import { Devices } from './devices';
import type { FloorState } from '../../formats/floor';
import { cookieOf, formOf, html, isSign, json, seeOther } from './answers';
import { DEVICE_HEADER, type Floor } from './floor';
import { pairPage, trustPage } from './pages';

/** How requests are guarded: as on this machine, but for its own names and scheme. */
export type Guard = (handle: RequestListener, hosts: () => readonly string[], scheme: 'https') => RequestListener;

interface FloorOptions {
  /** The data folder. */
  readonly data: string;
  readonly handle: RequestListener;
  readonly guarded: Guard;
  /** The first port to try; the one after it tells how to trust. */
  readonly port: number;
  /** Names it is called by besides the addresses of this machine. */
  readonly names?: readonly string[];
}

const COOKIE = 'vinkel-device';
/** A device stays paired until it is sent away: a year, and anew with each visit. */
const YEAR = 365 * 24 * 3600;

/** The names and addresses this machine has on its networks. */
export function namesHere(besides: readonly string[] = []): string[] {
  const own = Object.values(os.networkInterfaces()).flatMap((each) =>
    (each ?? []).flatMap(({ family, internal, address }) => (family === 'IPv4' && !internal ? [address] : [])),
  );
  const host = os.hostname().toLowerCase();
  const hosts = /^[a-z0-9-]+$/.test(host) && host !== 'localhost' ? [`${host}.local`] : [];
  return [...new Set([...besides, ...own, ...hosts])];
}

/** The listener on the network, which is off until it is opened. */
export function floorOf({ data, handle, guarded, port, names: besides }: FloorOptions): Floor {
  const folder = path.join(data, 'floor');
  const flag = path.join(folder, 'on');
  const devices = new Devices(folder);
  let open:
    | {
        readonly servers: readonly Server[];
        readonly state: Omit<Extract<FloorState, { on: true }>, 'devices' | 'code'>;
      }
    | undefined;

  return {
    state() {
      if (!open) return { on: false };
      const code = devices.currentCode;
      return { ...open.state, devices: devices.listed, ...(code ? { code } : {}) };
    },
    async open() {
      if (open) return;
      const names = namesHere(besides);
      if (names.length === 0) throw new Error('this machine is on no network');
      const made = await certificatesIn(folder, names);
      let hosts: readonly string[] = [];
      const inside = guarded(
        (request, response) => void admit(request, response, { devices, handle }),
        () => hosts,
        'https',
      );
      const server = createServer({ key: made.key, cert: `${made.certificate}${made.authority}` }, inside);
      const taken = await listen(server, port);
      hosts = names.map((name) => `${name}:${taken}`);
      const addresses = hosts.map((host) => `https://${host}`);
      const plain = plainServer((request, response) => tellTrust(request, response, { made, address: addresses[0]! }));
      const trustPort = await listen(plain, taken + 1);
      const state = {
        ...{ on: true as const, addresses, fingerprint: made.fingerprint },
        trust: `http://${names[0]!}:${trustPort}`,
      };
      open = { servers: [server as unknown as Server, plain], state };
      mkdirSync(folder, { recursive: true, mode: 0o700 });
      writeFileSync(flag, '');
    },
    async close() {
      const closing = open;
      open = undefined;
      rmSync(flag, { force: true });
      await Promise.all(
        (closing?.servers ?? []).map(
          (server) =>
            new Promise<void>((done) => {
              server.close(() => done());
              server.closeAllConnections();
            }),
        ),
      );
    },
    newCode: () => void devices.newCode(),
    sendAway: (id) => devices.sendAway(id),
  };
}

/** It was left switched on. */
export const isLeftOn = (data: string): boolean => existsSync(path.join(data, 'floor', 'on'));

async function listen(
  server: Pick<Server, 'listen' | 'once' | 'address' | 'off'>,
  port: number,
  tries = 50,
): Promise<number> {
  return new Promise((resolve, reject) => {
    const failed = (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE' && tries > 0) resolve(listen(server, port + 1, tries - 1));
      else reject(error);
    };
    server.once('error', failed);
    server.listen(port, '0.0.0.0', () => {
      server.off('error', failed);
      resolve((server.address() as AddressInfo).port);
    });
  });
}

/** What a browser needs of a page that asks for a code, and no more, is answered before a device is known. */
async function admit(
  request: IncomingMessage,
  response: ServerResponse,
  { devices, handle }: { readonly devices: Devices; readonly handle: RequestListener },
): Promise<void> {
  const [where] = (request.url ?? '/').split('?');
  const device = devices.known(cookieOf(request, COOKIE));
  delete request.headers[DEVICE_HEADER];
  if (where === '/pair' && request.method === 'POST') return pairing(request, response, devices);
  if (device) {
    if (where === '/pair') return seeOther(response, '/');
    request.headers[DEVICE_HEADER] = device.id;
    return handle(request, response);
  }
  if (where === '/pair') return html(response, 200, pairPage());
  if (request.method === 'GET' && isSign(where!)) return handle(request, response);
  // A page sends its reader on; what a page asks for by itself is told why it gets nothing.
  if (String(request.headers.accept ?? '').includes('text/html')) return seeOther(response, '/pair');
  json(response, 401, { faults: [{ path: 'device', message: 'this device is not paired: open /pair on it' }] });
}

async function pairing(request: IncomingMessage, response: ServerResponse, devices: Devices): Promise<void> {
  const form = await formOf(request);
  if (!form) return html(response, 413, pairPage());
  const name = form.get('name') ?? '';
  const paired = await devices.pair(form.get('code') ?? '', name, request.socket.remoteAddress ?? '');
  if (!paired.ok) return html(response, paired.why === 'tooOften' ? 429 : 403, pairPage(paired.why, name));
  // Lax: who comes from the page that tells how to trust, or by a camera, is known too; what writes is held to its own page anyway.
  response.setHeader(
    'set-cookie',
    `${COOKIE}=${paired.token}; Path=/; Max-Age=${YEAR}; Secure; HttpOnly; SameSite=Lax`,
  );
  seeOther(response, '/');
}

function tellTrust(
  { method, url = '/' }: IncomingMessage,
  response: ServerResponse,
  { made, address }: { readonly made: Certificates; readonly address: string },
): void {
  if (method !== 'GET') return html(response, 405, trustPage({ ...made, address }));
  if (url.split('?')[0] !== '/authority.crt') return html(response, 200, trustPage({ ...made, address }));
  response.writeHead(200, {
    'content-type': 'application/x-x509-ca-cert',
    'content-disposition': 'attachment; filename="vinkel-authority.crt"',
  });
  response.end(made.authority);
}
