import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { somePort } from '../../scripts/trial-server.mjs';
import { removeAll } from './remove';

/** The program as a user runs it: the production build on a data folder of its own. */
export class Server {
  private child: ChildProcess | undefined;
  private constructor(
    readonly folder: string,
    private readonly port: number,
    private readonly env: Readonly<Record<string, string>> = {},
  ) {}

  address = '';
  /** What it printed until it answered. */
  said = '';

  static async start(
    options: { folder?: string; port?: number; env?: Readonly<Record<string, string>> } = {},
  ): Promise<Server> {
    const folder = options.folder ?? mkdtempSync(path.join(os.tmpdir(), 'vinkel-e2e-'));
    const server = new Server(folder, options.port ?? somePort(), options.env);
    await server.run();
    return server;
  }

  /** Starts the process; resolves with its address, rejects with what it said when it ended instead. */
  async run(...args: readonly string[]): Promise<void> {
    const child = spawn(process.execPath, ['scripts/start.mjs', ...args], {
      env: {
        ...process.env,
        VINKEL_DATA: this.folder,
        PORT: String(this.port),
        NODE_ENV: 'production',
        ...this.env,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.child = child;
    this.said = '';
    this.address = await new Promise<string>((resolve, reject) => {
      const listen = (chunk: Buffer) => {
        this.said += chunk.toString();
        const match = /Vinkel: (http:\S+)/.exec(this.said);
        if (match) resolve(match[1]!);
      };
      child.stdout!.on('data', listen);
      child.stderr!.on('data', listen);
      child.once('exit', (code) => reject(new Error(`the server ended with ${code}: ${this.said}`)));
    });
  }

  get pid(): number {
    return this.child!.pid!;
  }

  async stop(signal: NodeJS.Signals = 'SIGTERM'): Promise<number | null> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return child?.exitCode ?? null;
    const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
    child.kill(signal);
    return ended;
  }

  async remove(): Promise<void> {
    await this.stop('SIGKILL');
    removeAll(this.folder);
  }
}

/** Sends something as a page of the program would. */
export const send = (
  { address }: { readonly address: string },
  path: string,
  body: Uint8Array | string,
  type = typeof body === 'string' ? 'application/json' : 'application/zip',
): Promise<Response> =>
  fetch(address + path, {
    method: 'POST',
    headers: { origin: address, 'content-type': type },
    body: body as BodyInit,
  });
