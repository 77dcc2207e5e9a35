import { vi } from 'vitest';

/** Who asks, in a test that calls the use cases: they read it from the request's cookie. */
export const PERSON = 'Ronja';

vi.mock('next/headers', () => ({
  cookies: async () => ({ get: () => ({ value: JSON.stringify({ person: 'Ronja' }) }) }),
}));
