import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoArchive } from '../../scripts/demo-archive.mjs';
import { demoRows } from '../support/demo-rows';
import { readRows } from '@/server/archive/read-zip';
import { send, Server } from '../support/server';

const rows = demoRows('solbris');
const round = rows.rounds[1]!;
const template = rows.readings.find((reading) => reading.quantity === 'height')!;

/** One typed line as the browser sends it. */
const entry = (value: number) => {
  const { roundId: _, sequence: __, receivedAt: ___, personId: ____, ...reading } = template;
  return {
    roundId: round.id,
    readings: [{ ...reading, id: randomUUID(), lineId: randomUUID(), value, raw: `K1 h ${value}` }],
    strike: null,
  };
};

describe('the server killed hard in the middle of a stream of readings', () => {
  let server: Server;
  const acknowledged: string[] = [];
  let sent = 0;
  beforeAll(async () => {
    server = await Server.start();
    const response = await send(server, '/api/archive', await demoArchive('solbris'));
    expect(response.status).toBe(200);
  });
  afterAll(() => server.remove());

  /** Sends readings one after the other until the server is gone. */
  async function stream(): Promise<void> {
    for (;;) {
      const body = entry(200 + (sent++ % 100));
      try {
        const response = await send(server, '/api/readings', JSON.stringify(body));
        if (!response.ok) throw new Error(await response.text());
        await response.json();
        acknowledged.push(body.readings[0]!.id);
      } catch {
        return;
      }
    }
  }

  it('still has every acknowledged reading, three times over', async () => {
    for (let kill = 0; kill < 3; kill++) {
      const before = acknowledged.length;
      let ended = false;
      const streaming = stream().finally(() => (ended = true));
      while (acknowledged.length < before + 15 && !ended) await new Promise((resolve) => setTimeout(resolve, 10));
      expect(ended, 'a reading was refused before the server was killed').toBe(false);
      await server.stop('SIGKILL');
      await streaming;
      await server.run();
      expect(await missing()).toEqual([]);
    }
    expect(acknowledged.length).toBeGreaterThanOrEqual(45);
  });

  /** Acknowledged readings that the job's own archive lacks. */
  async function missing(): Promise<string[]> {
    const archive = await fetch(`${server.address}/api/jobs/${rows.jobs[0]!.id}/archive`);
    const zip = path.join(server.folder, 'taken-out.zip');
    writeFileSync(zip, Buffer.from(await archive.arrayBuffer()));
    const taken = await readRows(zip);
    if (!taken.ok) throw new Error(JSON.stringify(taken.faults));
    const kept = new Set(taken.value.readings.map(({ id }) => id));
    return acknowledged.filter((id) => !kept.has(id));
  }

  it('takes a line sent twice once', async () => {
    const body = JSON.stringify(entry(333));
    for (let i = 0; i < 2; i++) expect((await send(server, '/api/readings', body)).status).toBe(200);
    const csv = await (await fetch(`${server.address}/api/jobs/${rows.jobs[0]!.id}/readings`)).text();
    expect(csv.split('K1 h 333').length - 1).toBe(1);
  });

  it('refuses a second server on the same folder, naming the first', async () => {
    await expect(Server.start({ folder: server.folder })).rejects.toThrow(
      new RegExp(`in use by process ${server.pid}`),
    );
  });

  it('closes its folder on SIGTERM and opens it again', async () => {
    expect(await server.stop('SIGTERM')).toBe(0);
    await server.run();
    expect((await fetch(`${server.address}/api/alive`)).status).toBe(200);
  });
});
