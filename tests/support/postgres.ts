import { execFileSync, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { chownSync, mkdtempSync, readdirSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { removeAll } from './remove';

/** Debian's PostgreSQL on a temporary folder and a port of its own. */
export interface Cluster {
  /** The address of the database every server has. */
  readonly url: string;
  /** Makes an empty database; gives its address. */
  create(): Promise<string>;
  /** Stops the server, at once; what was committed is there when it runs again. */
  stop(): Promise<void>;
  run(): Promise<void>;
  remove(): Promise<void>;
}

/** @param isDurable whether what is committed is on the disk: tests need not wait for it, benchmarks do */
export async function startCluster(isDurable = false): Promise<Cluster> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-pg-'));
  const binaries = `/usr/lib/postgresql/${readdirSync('/usr/lib/postgresql').sort().at(-1)}/bin`;
  const identity = serverUser();
  if (identity) chownSync(folder, identity.uid, identity.gid);
  const options = { ...identity, cwd: folder, stdio: 'ignore' as const };
  const data = path.join(folder, 'data');
  execFileSync(`${binaries}/initdb`, ['-D', data, '-U', 'vinkel', '-A', 'trust', '-E', 'UTF8', '--locale=C'], options);
  const port = await freePort();
  const urlOf = (name: string) => `postgres://vinkel@127.0.0.1:${port}/${name}`;
  let stop = async (): Promise<void> => undefined;
  const run = async () => {
    const settings = [
      'listen_addresses=127.0.0.1',
      `fsync=${isDurable ? 'on' : 'off'}`,
      'max_connections=100',
      `unix_socket_directories=`,
    ];
    const server = spawn(
      `${binaries}/postgres`,
      ['-D', data, '-p', String(port), ...settings.flatMap((each) => ['-c', each])],
      options,
    );
    stop = async () => {
      stop = async () => undefined;
      const ended = new Promise((resolve) => server.once('exit', resolve));
      server.kill('SIGINT');
      await ended;
    };
    for (let tries = 0; ; tries++)
      try {
        return await ask(urlOf('postgres'), 'select 1');
      } catch (error) {
        if (tries > 100) throw error;
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
  };
  await run();
  return {
    ...{ url: urlOf('postgres'), run },
    create: () => createDatabase(urlOf('postgres')),
    stop: () => stop(),
    remove: async () => {
      await stop();
      removeAll(folder);
    },
  };
}

/** Makes an empty database on the server of an address; gives its own. */
export async function createDatabase(url: string): Promise<string> {
  const name = `vinkel_${randomUUID().replaceAll('-', '')}`;
  await ask(url, `create database ${name}`);
  return url.replace(/[^/]*$/, name);
}

async function ask(url: string, sql: string): Promise<void> {
  const client = new pg.Client(url);
  try {
    await client.connect();
    await client.query(sql);
  } finally {
    await client.end().catch(() => undefined);
  }
}

const freePort = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });

/** PostgreSQL refuses to run as root: the user that Debian's package made runs it instead. */
function serverUser(): { uid: number; gid: number } | undefined {
  if (process.getuid?.() !== 0) return undefined;
  const id = (flag: string) => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }));
  return { uid: id('-u'), gid: id('-g') };
}
