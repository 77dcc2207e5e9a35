import { readdirSync } from 'node:fs';
import { inject } from 'vitest';
import { DEMO_JOBS, demoArchive } from '../../scripts/demo-archive.mjs';
import { send } from './server';

/** The server that browser tests share, with jobs of the demo as they were on the first day: all of them where none is named. */
export async function withDemo(...named: readonly string[]): Promise<{ readonly address: string }> {
  const server = { address: inject('shared') };
  for (const name of named.length > 0 ? named : readdirSync(DEMO_JOBS)) {
    const answer = await send(server, '/api/archive?as=replace', await demoArchive(name));
    if (!answer.ok) throw new Error(`${DEMO_JOBS}/${name} was refused: ${await answer.text()}`);
  }
  return server;
}
