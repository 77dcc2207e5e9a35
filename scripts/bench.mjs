import { spawnSync } from 'node:child_process';
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { request } from 'node:http';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { text } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import { benchBundle } from './bench-bundle.mjs';
import { launch, notePresses } from './browser.mjs';
import { DEMO_JOBS, loadDemoJobs } from './demo-archive.mjs';
import { ensureBuild, ensurePackages } from './ensure.mjs';
import { percentile, startServer } from './trial-server.mjs';

/**
 * `npm run bench:app [-- --large]`: prints how fast the program answers on this machine, from the
 * production build on the demo data; with `--large` also a job of two gigabytes of photographs there
 * and back. Figures to read, not a test: they depend on the machine.
 */
ensurePackages();
ensureBuild();
const folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-bench-'));
const server = await startServer({ folder, port: 5200 });
const { address } = server;
const job = (name) => JSON.parse(readFileSync(path.join(DEMO_JOBS, name, 'job.json'), 'utf8')).rows;
const round = (name, number) =>
  JSON.parse(readFileSync(path.join(DEMO_JOBS, name, 'rounds', `${number}.json`), 'utf8')).rows;

const show = (what, values) =>
  console.log(
    `${what.padEnd(46)} median ${percentile(values, 0.5).toFixed(0).padStart(6)} ms   95 % ${percentile(values, 0.95).toFixed(0).padStart(6)} ms   (${values.length} times)`,
  );

try {
  await loadDemoJobs(address);
  await navigation();
  await yardstick();
  await liveResult();
  await yardstick();
  await acknowledgement();
  await slider();
  await chartImport();
  if (process.argv.includes('--large')) await largeArchive();
} finally {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}

/** A window that has kept the program's files, as every window has but one that was never here. */
async function windowOf(browser) {
  const page = await browser.newPage({ baseURL: address, viewport: { width: 1280, height: 800 } });
  await page.addInitScript(notePresses);
  await page.goto('/');
  await page.locator('html[data-offline=ready]').waitFor();
  return page;
}

/** Milliseconds from a press, as the page heard it, until something is there, or null where that takes more than five seconds. */
async function shownAfter(page, shown, press) {
  await page.evaluate(({ selector, text = '' }) => {
    const isThere = () => [...document.querySelectorAll(selector)].some((each) => each.textContent.includes(text));
    globalThis.pressed = Infinity;
    globalThis.shown = new Promise((resolve) => {
      const look = () => {
        if (globalThis.pressed < Infinity && isThere()) resolve(Date.now() - globalThis.pressed);
        else requestAnimationFrame(look);
      };
      look();
    });
  }, shown);
  await press();
  return page.evaluate(() =>
    Promise.race([globalThis.shown, new Promise((resolve) => setTimeout(() => resolve(null), 5000))]),
  );
}

/** How fast the machine is at this moment: what it is compared by. */
async function yardstick() {
  const file = await benchBundle('tests/bench/run.ts', 'dist/bench.mjs');
  const { stdout } = spawnSync(process.execPath, [file, 'the machine'], { encoding: 'utf8' });
  const { cases } = JSON.parse(stdout);
  for (const { of, what, median } of cases) console.log(`${of}: ${what} ${median.toFixed(1)} ms`);
}

/** Hundredths of a second of its processors that a virtual machine was not given since it started; 0 where nobody counts. */
function ticksTaken() {
  if (!existsSync('/proc/stat')) return 0;
  return Number(readFileSync('/proc/stat', 'utf8').split('\n')[0].split(/ +/)[8] ?? 0);
}

/** From the click to the page usable, the program being warm. */
async function navigation() {
  const browser = await launch();
  const page = await windowOf(browser);
  const list = [];
  const jobPage = [];
  const sheet = [];
  const { rounds } = round('solbris', '01');
  const roundPath = `/jobs/${job('solbris').jobs[0].id}/rounds/${rounds[0].id}`;
  for (let i = 0; i < 12; i++) {
    await page.goto('/');
    const link = page.getByRole('link', { name: /^Solbris/ });
    await link.waitFor();
    const toJob = await shownAfter(page, { selector: 'h1, h2, h3', text: 'What moved' }, () => link.click());
    await page.goto(`${roundPath}/sides`);
    const toSheet = page.locator(`a[href^="${roundPath}/sheet"]`).first();
    await toSheet.waitFor();
    await page.waitForLoadState('networkidle');
    const toTheSheet = await shownAfter(page, { selector: '[data-judged]' }, () => toSheet.click());
    const home = page.getByRole('link', { name: 'Vinkel' });
    const toList = await shownAfter(page, { selector: 'h1', text: 'Jobs' }, () => home.click());
    if (i < 2) continue;
    // What never came is no quick one.
    jobPage.push(toJob ?? Infinity);
    sheet.push(toTheSheet ?? Infinity);
    list.push(toList ?? Infinity);
  }
  await browser.close();
  show('job list, warm navigation', list);
  show('job page, warm navigation', jobPage);
  show('sheet, warm navigation', sheet);
}

/** Time from frame to frame while the exaggeration slides back and forth a step a frame, on the demo's first round. */
async function slider() {
  const browser = await launch();
  const page = await windowOf(browser);
  const { rounds } = round('solbris', '01');
  await page.goto(`/jobs/${job('solbris').jobs[0].id}/rounds/${rounds[0].id}/sheet?point=R4L`);
  await page.locator('[role=slider]').focus();
  await page.waitForTimeout(5000);
  const frames = await page.evaluate(
    () =>
      new Promise((resolve) => {
        const thumb = document.querySelector('[role=slider]');
        const box = thumb.parentElement.parentElement.getBoundingClientRect();
        const at = (share) => ({
          bubbles: true,
          pointerId: 1,
          button: 0,
          buttons: 1,
          clientX: box.left + share * box.width,
          clientY: box.top + box.height / 2,
        });
        const rail = thumb.parentElement.parentElement;
        rail.setPointerCapture = () => undefined;
        rail.hasPointerCapture = () => true;
        rail.dispatchEvent(new PointerEvent('pointerdown', at(0.1)));
        const times = [];
        const seen = new Set();
        let last = performance.now();
        const step = (now) => {
          times.push(now - last);
          last = now;
          seen.add(thumb.getAttribute('aria-valuetext'));
          rail.dispatchEvent(new PointerEvent('pointermove', at(0.5 + 0.45 * Math.sin(times.length / 9))));
          if (times.length < 300) requestAnimationFrame(step);
          else resolve({ times: times.slice(5), steps: seen.size });
        };
        requestAnimationFrame(step);
      }),
  );
  await browser.close();
  if (frames.steps < 5) throw new Error('the slider did not slide');
  show('frame to frame while the exaggeration slides', frames.times);
}

/** From sending a typed reading to its acknowledgement, on the disk. */
async function acknowledgement() {
  const { rounds, readings } = round('solbris', '02');
  const template = readings.find((reading) => reading.quantity === 'height');
  delete template.roundId;
  delete template.sequence;
  delete template.personId;
  delete template.receivedAt;
  const times = [];
  for (let i = 0; i < 300; i++) {
    const reading = { ...template, id: randomUUID(), lineId: randomUUID(), raw: 'K1 h 212' };
    const begun = performance.now();
    const response = await fetch(`${address}/api/readings`, {
      method: 'POST',
      headers: { origin: address, 'content-type': 'application/json' },
      body: JSON.stringify({ roundId: rounds[0].id, readings: [reading], strike: null }),
    });
    await response.json();
    if (!response.ok) throw new Error(String(response.status));
    if (i >= 20) times.push(performance.now() - begun);
  }
  show('a reading typed, to its acknowledgement', times);
}

/** Lengths between all points of the second round that are not read yet, so that it has so many readings, as the truth has them. */
async function fillRound(positions, most) {
  const { rounds, readings } = round('solbris', '02');
  const byCode = new Map(job('solbris').points.map(({ code, id }) => [code, id]));
  const template = { ...readings.find(({ quantity }) => quantity === 'distance') };
  for (const own of ['roundId', 'sequence', 'receivedAt', 'personId']) delete template[own];
  const pairs = Object.keys(positions)
    .filter((code) => byCode.has(code))
    .flatMap((from, i, codes) => codes.slice(i + 1).map((to) => [from, to]))
    .sort(([a, b], [c, d]) =>
      createHash('md5')
        .update(a + b)
        .digest('hex')
        .localeCompare(
          createHash('md5')
            .update(c + d)
            .digest('hex'),
        ),
    );
  const lines = pairs.slice(0, most - readings.length).map(([from, to], i) => ({
    ...template,
    id: randomUUID(),
    lineId: randomUUID(),
    raw: `${from} ${to}`,
    pointId: byCode.get(from),
    toPointId: byCode.get(to),
    measure: 'tip',
    pointerFrom: null,
    pointerTo: null,
    value: Math.hypot(...[0, 1, 2].map((k) => positions[to][k] - positions[from][k])) + Math.sin(i),
  }));
  for (const reading of lines) {
    const response = await fetch(`${address}/api/readings`, {
      method: 'POST',
      headers: { origin: address, 'content-type': 'application/json' },
      body: JSON.stringify({ roundId: rounds[0].id, readings: [reading], strike: null }),
    });
    if (!response.ok) throw new Error(await response.text());
  }
}

/** From Enter in the field to the round solved anew and shown, in a round of 210 readings, one a second. */
async function liveResult() {
  const { rounds } = round('solbris', '02');
  const { positions } = JSON.parse(readFileSync(`demo/truth/${job('solbris').jobs[0].id}.json`, 'utf8'));
  const located = [
    'S1L',
    'S1R',
    'F2L',
    'F2R',
    'M1L',
    'M1R',
    'F4L',
    'F4R',
    'S2L',
    'S2R',
    'S3L',
    'S3R',
    'C1L',
    'C1R',
    'R4L',
    'R4R',
  ];
  await fillRound(positions, 210);
  const browser = await launch();
  const page = await windowOf(browser);
  await page.goto(`/jobs/${job('solbris').jobs[0].id}/rounds/${rounds[0].id}`);
  await page.locator('[data-standing][data-readings]').waitFor();
  const times = [];
  for (let i = 0; i < 60; i++) {
    const code = located[i % located.length];
    await page.getByLabel('Reading', { exact: true }).fill(`${code} h ${positions[code][2].toFixed(1)}`);
    const before = await page.locator('[data-standing]').getAttribute('data-readings');
    // A hand takes as long from the last figure to Enter.
    await page.waitForTimeout(100);
    const taken = ticksTaken();
    const changed = { selector: `[data-standing]:not([data-readings="${before}"])` };
    const time = await shownAfter(page, changed, () => page.keyboard.press('Enter'));
    if (time !== null && i > 2) times.push({ time, whole: ticksTaken() === taken });
    await page.waitForTimeout(1000);
  }
  await browser.close();
  const timesOf = (lines) => lines.map(({ time }) => time);
  show('Enter, to 210 readings solved and shown', timesOf(times));
  const whole = times.filter((line) => line.whole);
  if (whole.length > 0) show('… while the machine was all there', timesOf(whole));
}

/** A chart of 2,000 points through the import dialogue. */
async function chartImport() {
  const browser = await launch();
  const page = await windowOf(browser);
  await page.goto(`/jobs/${job('lodd').jobs[0].id}/chart`);
  const rows = Array.from({ length: 2000 }, (_, i) => `N${i},Hole ${i},right,${i * 2},${i % 700},${i % 90},3`);
  await page
    .getByRole('button', { name: /Bring in a chart|Import/ })
    .first()
    .click();
  const begun = performance.now();
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({
      name: 'points.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`id,name,side,x,y,z,tolerance\n${rows.join('\n')}\n`),
    });
  const take = page.getByRole('button', { name: 'Take all 2000 rows' });
  await take.waitFor();
  const previewed = performance.now();
  await take.click();
  await page.getByText('Points (2030)').waitFor({ timeout: 60_000 });
  show('2,000 points: preview', [previewed - begun]);
  show('2,000 points: taken and shown', [performance.now() - previewed]);
  await browser.close();
}

/** A job with two gigabytes of photographs, brought in and exported again; every checksum compared. */
async function largeArchive() {
  const { default: sharp } = await import('sharp');
  const { ZipFile } = await import('yazl');
  const { default: yauzl } = await import('yauzl');
  const side = 2250;
  const picture = await sharp(randomBytes(side * side * 3), {
    raw: { width: side, height: side, channels: 3 },
  })
    .png({ compressionLevel: 0 })
    .toBuffer();
  const document = JSON.parse(readFileSync(path.join(DEMO_JOBS, 'kvist', 'job.json'), 'utf8'));
  const roundFile = readFileSync(path.join(DEMO_JOBS, 'kvist', 'rounds', '01.json'), 'utf8');
  const fresh = (text) =>
    text.replace(/[0-9a-f]{8}(?=-[0-9a-f]{4}-[1-8][0-9a-f]{3}-)/g, (start) =>
      start === '00000000' ? start : createHash('sha1').update(start).digest('hex').slice(0, 8),
    );
  const body = JSON.parse(fresh(JSON.stringify(document)));
  const count = Math.ceil(2 ** 31 / picture.length) + 1;
  const sums = new Map();
  const contents = Array.from({ length: count }, () => {
    const tail = randomBytes(16);
    const id = randomUUID();
    const sha256 = createHash('sha256').update(picture).update(tail).digest('hex');
    sums.set(id, sha256);
    return {
      id,
      tail,
      row: {
        id,
        jobId: body.rows.jobs[0].id,
        entryId: null,
        name: `${id}.png`,
        mediaType: 'image/png',
        bytes: picture.length + tail.length,
        width: side,
        height: side,
        sha256,
        author: 'Nils',
        at: '2026-11-20T10:00:00.000Z',
      },
    };
  });
  body.rows.photographs = contents.map((each) => each.row);
  const zip = new ZipFile();
  zip.addBuffer(Buffer.from(JSON.stringify(body)), 'job.json');
  zip.addBuffer(Buffer.from(fresh(roundFile)), 'rounds/01.json');
  for (const { id, tail } of contents)
    zip.addReadStreamLazy(`photographs/${id}.png`, { compress: false }, (open) =>
      open(null, Readable.from([picture, tail], { objectMode: false })),
    );
  zip.end();
  const file = path.join(folder, 'large.zip');
  await pipeline(zip.outputStream, createWriteStream(file));
  let begun = performance.now();
  // Not fetch: it gives up when an answer takes longer than five minutes to begin.
  const answered = await new Promise((resolve, reject) => {
    const headers = { origin: address, 'content-type': 'application/zip', 'content-length': statSync(file).size };
    const call = request(`${address}/api/archive`, { method: 'POST', headers }, resolve);
    call.once('error', reject);
    createReadStream(file).pipe(call);
  });
  if (answered.statusCode !== 200) throw new Error(await text(answered));
  answered.resume();
  console.log(
    `${count} photographs, ${((count * picture.length) / 2 ** 30).toFixed(2)} GiB: in after ${((performance.now() - begun) / 1000).toFixed(0)} s`,
  );
  begun = performance.now();
  const back = path.join(folder, 'back.zip');
  const answer = await fetch(`${address}/api/jobs/${body.rows.jobs[0].id}/archive`);
  await pipeline(Readable.fromWeb(answer.body), createWriteStream(back));
  console.log(
    `out after ${((performance.now() - begun) / 1000).toFixed(0)} s; the server's peak memory: ${(/VmHWM:\s*(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))[1] / 1024) | 0} MiB`,
  );
  let same = 0;
  await new Promise((resolve, reject) =>
    yauzl.open(back, { lazyEntries: true }, (error, opened) => {
      if (error) return reject(error);
      opened.on('entry', (entry) => {
        const id = /^photographs\/(.{36})/.exec(entry.fileName)?.[1];
        if (!id) return opened.readEntry();
        opened.openReadStream(entry, async (failed, content) => {
          if (failed) return reject(failed);
          const hash = createHash('sha256');
          for await (const chunk of content) hash.update(chunk);
          if (hash.digest('hex') === sums.get(id)) same++;
          opened.readEntry();
        });
      });
      opened.on('end', resolve);
      opened.on('error', reject);
      opened.readEntry();
    }),
  );
  console.log(`${same} of ${count} photographs came back with their checksum`);
}
