import { cookies } from 'next/headers';

/** The browser's preferences cookie, as it was sent. */
export const preferencesCookie = async (): Promise<string | undefined> => (await cookies()).get('vinkel')?.value;
