import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ensureBuild, ensurePackages } from './ensure.mjs';
import { percentile, somePort, startServer } from './trial-server.mjs';

/** `npm run faults [-- kills mangled]`: kills in the middle of a stream, inputs mangled at all borders; prints what was lost. */
const [kills = 200, mangled = 5000] = process.argv.slice(2).map(Number);
ensurePackages();
ensureBuild();
const { demoArchive } = await import('./demo-archive.mjs');
const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-faults-'));
const port = somePort();
let server;
let address = '';
const start = async () => {
  server = await startServer({ folder, port });
  address = server.address;
};

const send = (where, body, type = 'application/json') =>
  fetch(address + where, { method: 'POST', headers: { origin: address, 'content-type': type }, body });

const { rows } = JSON.parse(readFileSync('demo/jobs/solbris/rounds/02.json', 'utf8'));
const template = { ...rows.readings.find(({ quantity }) => quantity === 'height') };
for (const own of ['roundId', 'sequence', 'receivedAt', 'personId']) delete template[own];
const { jobId, id: roundId } = rows.rounds[0];

/** A reading that can be told from all others. */
const entry = (i) => {
  const reading = { ...template, id: randomUUID(), lineId: randomUUID(), raw: `fault ${i}`, value: i };
  return { roundId, readings: [reading], strike: null };
};

await start();
await send('/api/archive', await demoArchive('solbris'), 'application/zip');

const acknowledged = [];
const starts = [];
let sent = 0;
for (let i = 0; i < kills; i++) {
  let on = true;
  const streaming = (async () => {
    while (on) {
      const number = ++sent;
      try {
        const response = await send('/api/readings', JSON.stringify(entry(number)));
        if (!response.ok) break;
        await response.json();
        acknowledged.push(number);
      } catch {
        break;
      }
    }
  })();
  const before = acknowledged.length;
  while (acknowledged.length === before) await new Promise((resolve) => setTimeout(resolve, 5));
  await new Promise((resolve) => setTimeout(resolve, Math.random() * 400));
  await server.stop('SIGKILL');
  on = false;
  await streaming;
  await start();
  starts.push(server.milliseconds);
}
const csv = await (await fetch(`${address}/api/jobs/${jobId}/readings`)).text();
const count = new Map();
for (const [, number] of csv.matchAll(/fault (\d+)/g)) count.set(Number(number), (count.get(Number(number)) ?? 0) + 1);
const lost = acknowledged.filter((number) => !count.has(number)).length;
const doubled = [...count.values()].filter((times) => times > 1).length;
console.log(`kills: ${kills}; readings acknowledged: ${acknowledged.length}; lost: ${lost}; doubled: ${doubled}`);
if (starts.length > 0)
  console.log(
    `start after a kill: median ${(percentile(starts, 0.5) / 1000).toFixed(1)} s, longest ${(percentile(starts, 1) / 1000).toFixed(1)} s`,
  );

/** A text or file with some of it changed, cut or doubled. */
function mangle(bytes) {
  const at = () => Math.floor(Math.random() * bytes.length);
  const kind = Math.floor(Math.random() * 5);
  if (kind === 0) return bytes.subarray(0, at());
  if (kind === 1) return Buffer.concat([bytes.subarray(0, at()), bytes.subarray(at())]);
  const copy = Buffer.from(bytes);
  if (kind === 2) copy.fill(0, at(), at());
  else for (let k = 0; k < 1 + Math.random() * 20; k++) copy[at()] = Math.floor(Math.random() * 256);
  return copy;
}

const zip = Buffer.from(await demoArchive('kvist'));
const samples = readdirSync('tests/samples').filter((name) =>
  /^(rectangle|mixed|moved).*(survey|request)\.json$/.test(name),
);
const statuses = new Map();
const note = (what) => statuses.set(what, (statuses.get(what) ?? 0) + 1);
for (let i = 0; i < mangled; i++) {
  const kind = i % 20;
  if (kind === 0) note(`archive ${(await send('/api/archive?as=missing', mangle(zip), 'application/zip')).status}`);
  else if (kind === 1) {
    const sample = samples[i % samples.length];
    const file = path.join(folder, 'sample.json');
    writeFileSync(file, mangle(readFileSync(path.join('tests/samples', sample))));
    const command = sample.includes('survey') ? 'adjust' : 'align';
    note(`command exit ${spawnSync(process.execPath, ['scripts/vinkel.mjs', command, file]).status}`);
  } else note(`reading ${(await send('/api/readings', mangle(Buffer.from(JSON.stringify(entry(0)))))).status}`);
}
for (const [what, times] of [...statuses].sort()) console.log(`${what}: ${times}`);
const brought = [...statuses].filter(([what]) => /\b5\d\d$|exit (1|null)/.test(what)).length;
console.log(
  `mangled inputs: ${mangled}; answers that are none: ${brought}; still alive: ${(await fetch(`${address}/api/alive`)).ok}`,
);
await server.stop('SIGKILL');
rmSync(folder, { recursive: true, force: true });
process.exit(lost + doubled + brought === 0 ? 0 : 1);
