import { createHash } from 'node:crypto';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import type { Photograph } from '@/core/shell/job/entities';
import { archiveDocuments, photographPath } from '@/formats/archive/documents';
import { kvist, lodd, maake, solbris, type DemoJob, type DemoPicture } from './src/jobs';
import { seeded } from '@/core/maths/random/seeded';

/** Writes the demo jobs to demo/jobs, in the documents a job is exported in: `npx tsx demo/generate.ts`. */
const SHAPES: Readonly<Record<DemoPicture['motif'], string>> = {
  sill: '<rect y="300" width="900" height="180" fill="#7d6a58"/><path d="M260 330q60-30 130 5t120 0q40 60-10 110t-130 5q-110 10-110-40z" fill="#2c2019"/><path d="M300 350q90 40 180 10" stroke="#b4622d" stroke-width="16" fill="none"/>',
  corner:
    '<path d="M120 80h560l120 180v260H120z" fill="#8f9a93"/><path d="M560 120q160 70 200 200l-60 160q-190-60-210-220z" fill="#c9b69a"/><path d="M590 170l120 240M640 150l90 150" stroke="#7b6c57" stroke-width="6"/>',
  brace:
    '<rect x="120" y="60" width="50" height="500" fill="#6f7a80"/><rect x="720" y="60" width="50" height="500" fill="#6f7a80"/><path d="M160 470L730 250M160 470L730 90" stroke="#30363a" stroke-width="26"/>',
  leg: '<path d="M40 260h560l240 60v90l-240-20H40z" fill="#77807c"/><path d="M560 262l60 120M520 260l40 130" stroke="#39403d" stroke-width="10"/>',
};

async function draw({ motif, name }: DemoPicture): Promise<Buffer> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="600"><rect width="900" height="600" fill="#d8d2c4"/>${SHAPES[motif]}<text x="30" y="570" font-family="sans-serif" font-size="26" fill="#444">drawn for the demo: ${name}</text></svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 82 }).toBuffer();
}

/** The hidden truth beside the jobs, never among them. */
function writeTruth(jobId: string, truth: ReadonlyMap<string, readonly number[]>): void {
  const folder = path.join(import.meta.dirname, 'truth');
  mkdirSync(folder, { recursive: true });
  const positions = Object.fromEntries(
    [...truth].map(([code, at]) => [code, at.map((value) => Math.round(value * 1000) / 1000)]),
  );
  const document = { format: 'vinkel.truth/1', positions };
  writeFileSync(path.join(folder, `${jobId}.json`), `${JSON.stringify(document, null, 1)}\n`);
}

async function write({ folder, rows, pictures, truth }: DemoJob, seed: number): Promise<void> {
  if (truth) writeTruth(rows.jobs[0]!.id, truth);
  const target = path.join(import.meta.dirname, 'jobs', folder);
  rmSync(target, { recursive: true, force: true });
  const random = seeded(seed);
  for (const picture of pictures) {
    const bytes = await draw(picture);
    const entry = rows.logEntries.find((each) => each.id === picture.entryId)!;
    const photograph: Photograph = {
      id: random.uuid(),
      jobId: entry.jobId,
      entryId: entry.id,
      name: `${picture.name}.jpg`,
      mediaType: 'image/jpeg',
      bytes: bytes.length,
      width: 900,
      height: 600,
      sha256: createHash('sha256').update(bytes).digest('hex'),
      author: entry.author,
      personId: null,
      at: entry.at,
    };
    (rows.photographs as Photograph[]).push(photograph);
    const file = path.join(target, photographPath(photograph));
    mkdirSync(path.dirname(file), { recursive: true });
    writeFileSync(file, bytes);
  }
  for (const document of archiveDocuments(rows)) {
    const file = path.join(target, document.path);
    mkdirSync(path.dirname(file), { recursive: true });
    writeFileSync(file, document.text);
  }
}

for (const [i, job] of [solbris(), kvist(), lodd(), maake()].entries()) await write(job, 7000 + i);
