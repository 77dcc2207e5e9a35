/** `next/headers` in a process that serves no requests: somebody at the machine, who has said their name. */
export const cookies = async () => ({
  get: () => ({ value: JSON.stringify({ person: process.env.VINKEL_TEST_PERSON ?? 'Ronja' }) }),
});
export const headers = async () => new Headers();
