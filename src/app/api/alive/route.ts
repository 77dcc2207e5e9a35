import { aliveness } from '@/server/kept';

/** Answers once the data folder was opened: the start scripts wait for it before they print the address. */
export const GET = async (): Promise<Response> => Response.json(await aliveness());
