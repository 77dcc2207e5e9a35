import type { IncomingMessage, ServerResponse } from 'node:http';

const MOST_FORM = 2000;

/** The fields of a form that was sent; undefined where it is longer than any of these forms. */
export async function formOf(request: IncomingMessage): Promise<URLSearchParams | undefined> {
  let text = '';
  for await (const chunk of request) {
    text += String(chunk);
    if (text.length > MOST_FORM) return undefined;
  }
  return new URLSearchParams(text);
}

export function cookieOf({ headers }: IncomingMessage, name: string): string | undefined {
  const pairs = String(headers.cookie ?? '').split(/;\s*/);
  return pairs.find((pair) => pair.startsWith(`${name}=`))?.slice(name.length + 1);
}

export function seeOther(response: ServerResponse, to: string): void {
  response.writeHead(303, { location: to, 'cache-control': 'no-store' });
  response.end();
}

export function html(response: ServerResponse, status: number, text: string): void {
  response.writeHead(status, { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' });
  response.end(text);
}

/** The program's name and picture for a home screen, which a system fetches without what tells a device: they say nothing of a shop. */
export const isSign = (path: string): boolean =>
  /^\/(manifest\.webmanifest|icon\.svg|apple-icon\.png|icon-\d+\.png)$/.test(path);

export function json(response: ServerResponse, status: number, body: object): void {
  response.writeHead(status, { 'content-type': 'application/json', 'cache-control': 'no-store' });
  response.end(JSON.stringify(body));
}
