import { spawn } from 'node:child_process';

/** Between the ports that browsers and `fetch` refuse to ask (5060 and others, all below 10081) and those that systems hand out. */
export const somePort = () => 12_000 + Math.floor(Math.random() * 20_000);

/**
 * The program on a data folder of its own, as a user starts it, for scripts that measure or try it.
 *
 * @param {{ folder: string, port: number, database?: string }} where its data folder, and the database server it is on, where it is on one
 * @returns {Promise<{ address: string, pid: number, milliseconds: number, stop: (signal?: NodeJS.Signals) => Promise<void> }>}
 */
export async function startServer({ folder, port, database = '' }) {
  const begun = performance.now();
  const server = spawn(process.execPath, ['scripts/start.mjs'], {
    env: { ...process.env, VINKEL_DATABASE: database, VINKEL_DATA: folder, PORT: String(port), NODE_ENV: 'production' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  const address = await new Promise((resolve, reject) => {
    const listen = (chunk) => {
      said += chunk;
      const match = /Vinkel: (http:\S+)/.exec(said);
      if (match) resolve(match[1]);
    };
    server.stdout.on('data', listen);
    server.stderr.on('data', listen);
    server.once('exit', () => reject(new Error(said)));
  });
  server.stderr.pipe(process.stderr);
  return {
    address,
    pid: server.pid,
    milliseconds: performance.now() - begun,
    stop: (signal = 'SIGTERM') =>
      new Promise((resolve) => {
        server.once('exit', () => resolve());
        server.kill(signal);
      }),
  };
}

/** The value below which a share of the values lies. */
export const percentile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];
