import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { tsImport } from 'tsx/esm/api';
import { demoArchive } from './demo-archive.mjs';
import { ensureBuild, ensurePackages } from './ensure.mjs';
import { percentile, startServer } from './trial-server.mjs';

/**
 * `npm run bench:growth -- postgres://OWNER… [shops] [jobs]`: so many shops with so many jobs each in one database, which should be
 * empty, and what lists, pages and readings of one of them take then. Figures to read, not a test: they depend on the machine.
 */
const [owner, shops = 20, jobs = 500] = process.argv.slice(2);
const SHOPS = Number(shops);
const JOBS = Number(jobs);
const ms = (value) => `${value.toFixed(0)} ms`;

ensurePackages();
ensureBuild();
const { makeShop } = await tsImport('../src/server/shops/shops.ts', import.meta.url);
const addresses = [];
for (let k = 0; k < SHOPS; k++) addresses.push((await makeShop(owner, `Shop ${k + 1}`))[0].url);
const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-growth-'));
const server = await startServer({ folder, port: 5270, database: addresses[0] });
const { address } = server;
const database = new pg.Client(owner);
await database.connect();

try {
  const brought = await fetch(`${address}/api/archive?as=new`, {
    method: 'POST',
    headers: { origin: address, 'content-type': 'application/zip' },
    body: await demoArchive('solbris'),
  });
  if (!brought.ok) throw new Error(await brought.text());
  const { jobId } = await brought.json();
  await measured('one shop, one job', jobId);
  await fill(jobId);
  const [{ total }] = (await database.query('select count(*)::int as total from reading')).rows;
  await measured(`${SHOPS} shops with ${JOBS} jobs each, ${total} readings`, jobId);
} finally {
  await database.end();
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}

/** Copies a job's points, rounds and readings into every shop, as many times as there are to be jobs: its other rows are not of a list. */
async function fill(jobId) {
  const begun = performance.now();
  await database.query('begin');
  await database.query("set local session_replication_role = 'replica'");
  await database.query(
    `create temporary table copied on commit drop as
     select shop.id as shop_id, gen_random_uuid() as job_id, number * 1000 + n as n
     from shop cross join generate_series(1, ${JOBS} - 1) as n`,
  );
  // An identity of a copy follows of that of the copied row and of the number of the copy: what names it finds it.
  const id = (column) => `md5(t.${column}::text || copied.n)::uuid`;
  for (const [table, changed] of Object.entries({
    job: {
      id: 'copied.job_id',
      name: "t.name || ' ' || copied.n",
      started_at: "t.started_at - copied.n * interval '1 hour'",
    },
    point: { id: id('id'), job_id: 'copied.job_id' },
    shell_state: { id: id('id'), job_id: 'copied.job_id' },
    support: { id: id('id'), job_id: 'copied.job_id' },
    round: { id: id('id'), job_id: 'copied.job_id', state_id: id('state_id'), support_id: id('support_id') },
    reading: {
      ...{
        id: id('id'),
        job_id: 'copied.job_id',
        round_id: id('round_id'),
        line_id: id('line_id'),
        point_id: id('point_id'),
      },
      ...{ to_point_id: id('to_point_id'), taken_at: "t.taken_at - copied.n * interval '1 hour'" },
    },
  })) {
    const { rows } = await database.query(
      `select column_name as name from information_schema.columns where table_name = $1 and table_schema = 'public'`,
      [table],
    );
    const names = rows.map(({ name }) => name);
    const values = names.map((name) => (name === 'shop_id' ? 'copied.shop_id' : (changed[name] ?? `t.${name}`)));
    await database.query(
      `insert into public."${table}" (${names.join(', ')}) select ${values.join(', ')} from public."${table}" as t cross join copied
       where t.${table === 'job' ? 'id' : 'job_id'} = $1`,
      [jobId],
    );
  }
  await database.query('commit');
  await database.query('analyze');
  console.log(`filled in ${ms(performance.now() - begun)}`);
}

async function measured(what, jobId) {
  console.log(what);
  for (const where of ['/', '/?find=1200+estate+77', `/jobs/${jobId}`, '/jobs/new']) {
    const times = [];
    for (let i = 0; i < 42; i++) {
      const begun = performance.now();
      const response = await fetch(address + where);
      await response.arrayBuffer();
      if (!response.ok) throw new Error(`${where}: ${response.status}`);
      if (i > 1) times.push(performance.now() - begun);
    }
    console.log(
      `  ${where.replace(jobId, '…').padEnd(24)} median ${ms(percentile(times, 0.5)).padStart(7)}, 95 % ${ms(percentile(times, 0.95)).padStart(7)}`,
    );
  }
}
