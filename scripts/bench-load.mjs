import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { buffer } from 'node:stream/consumers';
import { ZipFile } from 'yazl';
import { demoArchive, DEMO_JOBS } from './demo-archive.mjs';
import { ensureBuild, ensurePackages } from './ensure.mjs';
import { percentile, startServer } from './trial-server.mjs';

/**
 * `npm run bench:load [-- seconds [postgres://…] [--typing]]`: twenty tablets (or `TABLETS`) typing into one job beside five open pages, and
 * unless it is only that, a job of ten thousand readings, two hundred jobs listed; with an address on that database server, which should be empty. Figures to read, not a test: they depend on the machine.
 */
const SECONDS = Number(process.argv[2] ?? 120);
const CLIENTS = Number(process.env.TABLETS ?? 20);
const READINGS = 10_000;
const JOBS = 200;
/** As long as a page that looks on rests between two fetches, in times it took to fetch: as the pages themselves do. */
const RESTS = 10;

ensurePackages();
ensureBuild();
const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-load-'));
const server = await startServer({ folder, port: 5250, database: process.argv[3] });
const { address } = server;
const ms = (value) => `${value.toFixed(0)} ms`;
const send = (where, body, type) =>
  fetch(address + where, { method: 'POST', headers: { origin: address, 'content-type': type }, body });
const bring = async (zip, as = 'new') => {
  const response = await send(`/api/archive?as=${as}`, zip, 'application/zip');
  if (!response.ok) throw new Error(await response.text());
  return (await response.json()).jobId;
};
const demo = (name, file) => JSON.parse(readFileSync(path.join(DEMO_JOBS, name, file), 'utf8'));

try {
  if (SECONDS > 0) await typing();
  if (!process.argv.includes('--typing')) await largeJob();
  if (SECONDS > 0 && !process.argv.includes('--typing')) await manyJobs();
} finally {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}

/**
 * Twenty tablets, each hearing what happens and sending a reading a second, into one round; five pages of the job that look on and
 * are fetched anew. What tablets and pages draw is not of this machine.
 */
async function typing() {
  const jobId = await bring(await demoArchive('solbris'));
  const { rows } = demo('solbris', 'rounds/02.json');
  const roundId = rows.rounds[0].id;
  const {
    roundId: _,
    sequence: __,
    receivedAt: ___,
    personId: ____,
    ...template
  } = rows.readings.find((each) => each.quantity === 'height');
  const times = [];
  const looks = [];
  let heard = 0;
  let failed = 0;
  const until = performance.now() + SECONDS * 1000;
  const ended = new AbortController();
  const hear = async (number) => {
    const stream = await fetch(`${address}/api/jobs/${jobId}/live?window=load-${number}`, { signal: ended.signal });
    for await (const _ of stream.body) heard++;
  };
  const look = async (where) => {
    while (performance.now() < until) {
      const begun = performance.now();
      await (await fetch(`${address}/jobs/${jobId}${where}`)).arrayBuffer();
      const took = performance.now() - begun;
      looks.push(took);
      await new Promise((resolve) => setTimeout(resolve, Math.min(RESTS * took, until - performance.now())));
    }
  };
  const hearing = Array.from({ length: CLIENTS }, (_, number) => hear(number).catch(() => undefined));
  const pages = ['', `/rounds/${roundId}`, `/rounds/${roundId}/sheet`, '/record', '/log'].map(look);
  const client = async (number) => {
    await new Promise((resolve) => setTimeout(resolve, (1000 * number) / CLIENTS));
    while (performance.now() < until) {
      const begun = performance.now();
      const reading = { ...template, id: randomUUID(), lineId: randomUUID(), raw: `load ${number}` };
      const response = await send(
        '/api/readings',
        JSON.stringify({ roundId, readings: [reading], strike: null }),
        'application/json',
      );
      if (response.ok) times.push(performance.now() - begun);
      else failed++;
      await response.arrayBuffer();
      await new Promise((resolve) => setTimeout(resolve, Math.max(0, 1000 - (performance.now() - begun))));
    }
  };
  await Promise.all(Array.from({ length: CLIENTS }, (_, number) => client(number)));
  await Promise.all(pages);
  ended.abort();
  await Promise.all(hearing);
  const csv = await (await fetch(`${address}/api/jobs/${jobId}/readings`)).text();
  const kept = csv.split(',load ').length - 1;
  console.log(
    `${CLIENTS} clients for ${SECONDS} s: ${times.length} readings, median ${ms(percentile(times, 0.5))}, 95 % ${ms(percentile(times, 0.95))}; refused ${failed}, lost ${times.length - kept}; ${heard} pieces heard, ${looks.length} pages fetched, median ${ms(percentile(looks, 0.5))}`,
  );
}

/** A job with ten thousand readings in one round: its pages, warm, and what they send. */
async function largeJob() {
  const job = demo('solbris', 'job.json');
  const own = demo('solbris', 'rounds/02.json');
  const template = own.rows.readings.find((each) => each.quantity === 'distance');
  job.rows.photographs = [];
  // Lengths as the chart has them, and a little noise: nearly all of them good.
  const places = job.rows.referencePoints.filter(
    (row, i, all) => all.findIndex((each) => each.pointId === row.pointId) === i,
  );
  own.rows.readings = Array.from({ length: READINGS }, (_, i) => {
    const from = places[i % places.length];
    const to = places[(i + 1 + (Math.floor(i / places.length) % (places.length - 1))) % places.length];
    const length = Math.hypot(from.x - to.x, from.y - to.y, from.z - to.z);
    return {
      ...{ ...template, id: randomUUID(), lineId: randomUUID(), sequence: i + 1, measure: 'tip' },
      ...{ value: length + 0.4 * Math.sin(i), pointId: from.pointId, toPointId: to.pointId },
    };
  });
  for (const table of ['readingStrikes', 'readingKeeps']) own.rows[table] = [];
  const zip = new ZipFile();
  zip.addBuffer(Buffer.from(JSON.stringify(job)), 'job.json');
  zip.addFile(path.join(DEMO_JOBS, 'solbris', 'rounds', '01.json'), 'rounds/01.json');
  zip.addBuffer(Buffer.from(JSON.stringify(own)), 'rounds/02.json');
  zip.end();
  const jobId = await bring(await buffer(zip.outputStream), 'replace');
  const roundId = own.rows.rounds[0].id;
  for (const where of [
    '',
    `/rounds/${roundId}`,
    `/rounds/${roundId}/sheet`,
    `/rounds/${roundId}/sides`,
    '/measure',
    '/chart',
    '/log',
    '/record?record=now',
  ]) {
    const times = [];
    let bytes = 0;
    for (let i = 0; i < 6; i++) {
      const begun = performance.now();
      bytes = (await (await fetch(`${address}/jobs/${jobId}${where}`)).arrayBuffer()).byteLength;
      if (i > 0) times.push(performance.now() - begun);
    }
    console.log(
      `${own.rows.readings.length} readings ${(where.replace(roundId, '…') || '/').padEnd(22)} median ${ms(percentile(times, 0.5)).padStart(8)}   ${(bytes / 1e6).toFixed(2)} MB`,
    );
  }
}

/** The list of two hundred jobs. */
async function manyJobs() {
  const zip = await demoArchive('kvist');
  await bring(zip, 'missing');
  for (let i = 1; i < JOBS; i++) await bring(zip, 'copy');
  const times = [];
  for (let i = 0; i < 12; i++) {
    const begun = performance.now();
    await (await fetch(address)).arrayBuffer();
    if (i > 1) times.push(performance.now() - begun);
  }
  console.log(`${JOBS} jobs listed: median ${ms(percentile(times, 0.5))}, 95 % ${ms(percentile(times, 0.95))}`);
}
