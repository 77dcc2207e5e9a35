import { randomBytes } from 'node:crypto';

/*
 * Who may ask the program, and for how much: looked at for every request before anything else sees it. A page of
 * another site can send requests to this machine, and can have its own name lead here; so only the names the program
 * printed are answered, what writes must come from a page of its own, and bodies are of a known kind and size.
 */

const MB = 1024 * 1024;
/** What is sent to where: kinds of content and the most bytes. The first that fits holds. */
const BODIES = [
  { path: /^\/api\/archive$/, types: ['application/zip', 'application/octet-stream'], most: 4096 * MB },
  { path: /^\/api\//, types: ['application/json'], most: 1 * MB },
  // A device that is let in says the code and what it is called; a person says who they are.
  { path: /^\/(pair|who)$/, types: ['application/x-www-form-urlencoded'], most: MB / 256 },
  // Actions of the interface: forms with photographs, or arguments as text.
  { path: /^\//, types: ['multipart/form-data', 'text/plain'], most: 100 * MB },
];

const SAFE_METHODS = ['GET', 'HEAD'];

/** The names a program on this machine answers to at a port. */
export const ownHosts = (port) => ['127.0.0.1', 'localhost'].map((name) => `${name}:${port}`);

/**
 * Why a request is refused; undefined where it is not.
 *
 * @param {{ method?: string, url?: string, headers: Record<string, string | string[] | undefined> }} request
 * @param {readonly string[]} hosts the names it may be asked by, port included
 * @param {'http' | 'https'} scheme how it is asked
 * @returns {{ status: number, message: string } | undefined}
 */
export function refusal({ method = 'GET', url = '/', headers }, hosts, scheme = 'http') {
  if (!hosts.includes(String(headers.host ?? '').toLowerCase()))
    return { status: 421, message: `This program answers at ${scheme}://${hosts[0]} alone.` };
  const path = pathOf(url);
  if (path === undefined) return { status: 400, message: 'This address cannot be read.' };
  if (SAFE_METHODS.includes(method)) return undefined;
  if (method !== 'POST') return { status: 405, message: 'Only reading and sending are known here.' };
  const origin = String(headers.origin ?? '');
  if (!hosts.some((host) => origin === `${scheme}://${host}`) || origin !== `${scheme}://${headers.host}`)
    return { status: 403, message: 'Only pages of this program may write here.' };
  const { types, most } = BODIES.find((each) => each.path.test(path));
  const type = String(headers['content-type'] ?? '')
    .split(';')[0]
    .trim()
    .toLowerCase();
  if (!types.includes(type)) return { status: 415, message: `Only ${types.join(' or ')} is taken here.` };
  const length = Number(headers['content-length']);
  if (headers['content-length'] === undefined || !Number.isInteger(length))
    return { status: 411, message: 'How long it is must be said first.' };
  if (length > most) return { status: 413, message: `At most ${most / MB} MB are taken here.` };
  return undefined;
}

/** The path of an address, or undefined where its escapes are none. */
function pathOf(url) {
  try {
    const path = url.split('?')[0];
    decodeURIComponent(path);
    return path;
  } catch {
    return undefined;
  }
}

/**
 * What every answer says of itself: nothing from elsewhere is loaded, no script runs that the page does not bring, and
 * no other page holds this one in a frame or reads it.
 *
 * @param {string} nonce what marks the page's own scripts
 */
export function protectiveHeaders(nonce) {
  const policy = [
    "default-src 'self'",
    // WebAssembly for the kernel of the solver.
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'`,
    // Lengths and places of drawn things are styles on their elements.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  return {
    'content-security-policy': policy,
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'same-origin',
    'cross-origin-opener-policy': 'same-origin',
    'cross-origin-embedder-policy': 'require-corp',
    'cross-origin-resource-policy': 'same-origin',
    'permissions-policy': 'geolocation=(), camera=(), microphone=(), payment=()',
  };
}

const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
/** Where an address holds identities, and what stands in the place of one without being one. */
const NAMED = /^(?:\/api)?\/(?:jobs|board)\/([^/]+)(?:\/rounds\/([^/]+))?/;

/** Whether an address names a job or a round by what can be no identity: there is no such page, whatever it is. */
export function leadsNowhere(url) {
  const named = NAMED.exec(url.split('?')[0]);
  return named !== null && named[1] !== 'new' && named.slice(1).some((id) => id !== undefined && !ID.test(id));
}

/** A mark that nobody can guess. */
export const newNonce = () => randomBytes(16).toString('base64');

/**
 * Puts the guard before a handler of requests.
 *
 * @param {(request: import('node:http').IncomingMessage, response: import('node:http').ServerResponse) => void} handle
 * @param {() => readonly string[]} hosts
 * @param {'http' | 'https'} scheme
 */
export const guarded =
  (handle, hosts, scheme = 'http') =>
  (request, response) => {
    const headers = protectiveHeaders(newNonce());
    for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
    const refused = refusal(request, hosts(), scheme);
    if (refused) {
      response.writeHead(refused.status, { 'content-type': 'application/json', connection: 'close' });
      response.end(JSON.stringify({ faults: [{ path: 'request', message: refused.message }] }));
      return;
    }
    // The program finds the mark for its own scripts here, whatever a client may have sent.
    request.headers['content-security-policy'] = headers['content-security-policy'];
    if (leadsNowhere(request.url)) request.url = '/nowhere';
    handle(request, response);
  };
