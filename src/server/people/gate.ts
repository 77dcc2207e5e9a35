import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import { hasOwner } from '../../db/people';
import type { Queryable } from '../../db/database';
import { cookieOf, formOf, html, isSign, json, seeOther } from '../floor/answers';
import { DEVICE_HEADER } from '../floor/floor';
import { Entrance, type Entered } from './entrance';
import { whoPage } from './pages';
import { SESSION_HEADER } from './shared';
import { LONGEST, type Session, type Sessions } from './sessions';
import { AWAY_IN_WORDS, LOCKED, SIGNED_OUT } from '../../formats/people';

const COOKIE = 'vinkel-session';
/** What every page needs before anybody said who they are: the program's own files, and whether it answers. */
const FREE = /^\/(_next\/static\/|offline\.js$|api\/alive$)/;

interface GateOptions {
  readonly sessions: Sessions;
  readonly database: () => Promise<Queryable>;
  /** Whether it is answered on the network. */
  readonly isOpen: () => boolean;
}

/**
 * Who asks is settled before the program hears of a request. Over the network everybody says who they are; on the machine
 * itself they do as soon as it is answered on the network and an owner has a passphrase. A browser that is locked is shown
 * everything and may change nothing.
 */
export function gateOf({ sessions, database, isOpen }: GateOptions) {
  const entrance = new Entrance(database, sessions);

  /** Whether people prove who they are where this comes from. */
  const isSheltered = async (deviceId: string | null): Promise<boolean> =>
    deviceId !== null || (isOpen() && (await hasOwner(await database())));

  return async (request: IncomingMessage, response: ServerResponse, handle: RequestListener): Promise<void> => {
    delete request.headers[SESSION_HEADER];
    const { path, to } = wayOf(request);
    const deviceId = (request.headers[DEVICE_HEADER] as string | undefined) ?? null;
    if (FREE.test(path) || isSign(path)) return handle(request, response);
    const sheltered = await isSheltered(deviceId).catch(() => undefined);
    // A data folder that cannot be opened is told about at the machine itself alone.
    if (sheltered === undefined)
      return deviceId === null ? handle(request, response) : refuse(request, response, 503, UNOPENED);
    if (!sheltered) return path === '/who' ? seeOther(response, '/') : handle(request, response);
    const session = await sessions.ofToken(cookieOf(request, COOKIE), deviceId);
    if (path === '/who') return asked(request, response, { session, deviceId, to });
    if (!session)
      return isVisit(request)
        ? seeOther(response, `/who?to=${encodeURIComponent(to)}`)
        : refuse(request, response, 401, { path: SIGNED_OUT, message: 'say who you are first' });
    const writes = request.method !== 'GET' && request.method !== 'HEAD';
    if (sessions.isLocked(session)) {
      if (writes)
        return refuse(request, response, 423, {
          path: LOCKED,
          message: 'nobody has said who works here now: your PIN',
        });
    } else if (writes || isVisit(request)) await sessions.use(session);
    request.headers[SESSION_HEADER] = session.id;
    return handle(request, response);
  };

  async function asked(
    request: IncomingMessage,
    response: ServerResponse,
    { session, deviceId, to }: { session: Session | undefined; deviceId: string | null; to: string },
  ): Promise<void> {
    const known = await entrance.knownIn(session);
    if (request.method !== 'POST') return html(response, 200, whoPage({ known, to }));
    const form = await formOf(request);
    if (!form) return html(response, 413, whoPage({ known, to }));
    const field = (name: string) => form.get(name) ?? '';
    const does = field('does');
    if (does === 'lock') {
      if (session) await sessions.lock(session);
      return wantsJson(request) ? json(response, 200, {}) : seeOther(response, '/who');
    }
    const doorstep = { deviceId, session, address: request.socket.remoteAddress ?? '' };
    const entered: Entered =
      does === 'pin' && session
        ? await entrance.changeHands(session, field('person'), field('pin'))
        : await entrance.signIn(field('name'), field('passphrase'), doorstep);
    if (!entered.ok) {
      const status = entered.why === 'tooOften' ? 429 : 403;
      if (wantsJson(request))
        return json(response, status, { faults: [{ path: entered.why, message: AWAY_IN_WORDS[entered.why] }] });
      // A wrong PIN too many is one that is known no more.
      const left = await entrance.knownIn(session && (await sessions.byId(session.id)));
      return html(response, status, whoPage({ known: left, to, why: entered.why, name: field('name') }));
    }
    if (entered.token !== undefined)
      response.setHeader(
        'set-cookie',
        `${COOKIE}=${entered.token}; Path=/; Max-Age=${LONGEST / 1000}; HttpOnly; SameSite=Lax${deviceId === null ? '' : '; Secure'}`,
      );
    if (wantsJson(request)) return json(response, 200, {});
    seeOther(response, to);
  }
}

const UNOPENED = { path: 'data', message: 'the data cannot be opened: look at the machine itself' };

/** The path asked for, and where whoever is turned away wants to go in the end: a page of this program. */
function wayOf({ url = '/' }: IncomingMessage): { path: string; to: string } {
  const [path = '/', query = ''] = url.split('?');
  const wanted = path === '/who' ? (new URLSearchParams(query).get('to') ?? '/') : url;
  return { path, to: /^\/(?![/\\])[\x21-\x7e]*$/.test(wanted) ? wanted : '/' };
}

/** Somebody opens a page, and sees what comes of it. */
const isVisit = ({ method, headers }: IncomingMessage): boolean =>
  method === 'GET' && String(headers.accept ?? '').includes('text/html') && headers.rsc === undefined;

const wantsJson = ({ headers }: IncomingMessage): boolean => String(headers.accept ?? '').includes('application/json');

interface Fault {
  readonly path: string;
  readonly message: string;
}

/** Actions of the interface carry words back as they are; what else asks for itself reads faults. */
function refuse({ headers }: IncomingMessage, response: ServerResponse, status: number, fault: Fault): void {
  if (headers['next-action'] === undefined) return json(response, status, { faults: [fault] });
  response.writeHead(status, { 'content-type': 'text/plain', 'cache-control': 'no-store' });
  response.end(fault.path);
}
