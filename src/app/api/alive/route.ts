import { answered } from '@/server/answered';
import { done } from '@/formats/outcome';
import { aliveness } from '@/server/kept';

/** Answers once the data was opened: the start scripts wait for it before they print the address. */
export const GET = (): Promise<Response> => answered(async () => done(await aliveness()));
