import { vi } from 'vitest';

/** Who asks, in a test that calls the use cases: they read it from the request's cookie. */
export const PERSON = 'Ronja';

const asked = vi.hoisted(() => ({ headers: new Headers() }));

/** Who asks from now on: a browser that proved who works there, a device, or whoever says their name at the machine. */
export function requestBy(by: { readonly session?: string; readonly device?: string } | undefined): void {
  asked.headers = new Headers({
    ...(by?.session ? { 'x-vinkel-session': by.session } : {}),
    ...(by?.device ? { 'x-vinkel-device': by.device } : {}),
  });
}

vi.mock('next/headers', () => ({
  cookies: async () => ({ get: () => ({ value: JSON.stringify({ person: 'Ronja' }) }) }),
  headers: async () => asked.headers,
}));
