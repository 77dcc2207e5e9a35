import v8 from 'node:v8';
import { readFileSync } from 'node:fs';
import { demoRows } from './tests/support/demo-rows';
import { Job } from '@/core/shell/job/job';
import { judgeRound } from '@/core/round/judge/judge-round';
import { sheetFigure } from '@/core/report/drawing/points';
import { expectationOf } from '@/core/walk/wanted';
import { unlikely } from '@/core/walk/unlikely';
import { spreadOf } from '@/core/shell/instruments';
import { openTargets, chartedTargets } from '@/core/walk/targets';
import { seeded } from '@/core/maths/random/seeded';

const rows0 = demoRows('solbris');
const round = rows0.rounds.find((r: any) => r.number === 2)!;
const truth = JSON.parse(readFileSync(`demo/truth/${rows0.jobs[0].id}.json`, 'utf8')).positions;
const own = rows0.readings.filter((r: any) => r.roundId === round.id);
const template = own.find((r: any) => r.quantity === 'distance')!;
const h = own.find((r: any) => r.quantity === 'height')!;
const byCode = new Map(rows0.points.map((p: any) => [p.code, p.id]));
const codes = Object.keys(truth).filter((c) => byCode.has(c));
const rnd = seeded(5);
const pairs = codes.flatMap((a, i) => codes.slice(i + 1).map((b) => [a, b])).sort(() => rnd.normal());
const more = pairs.slice(0, 210 - own.length).map(([a, b], i) => ({ ...template, id: `r${i}`, lineId: `l${i}`, pointId: byCode.get(a), toPointId: byCode.get(b), measure: 'tip', pointerFrom: null, pointerTo: null, sequence: 10000 + i, value: Math.hypot(...[0, 1, 2].map((k) => truth[a][k] - truth[b][k])) + Math.sin(i) }));
let rows: any = { ...rows0, readings: [...rows0.readings, ...more] };
console.log('readings all', rows.readings.length, 'points', rows.points.length, 'bytes readings', v8.serialize(rows.readings).length);
const t: Record<string, number[]> = {};
const time = <T,>(name: string, f: () => T): T => { const b = performance.now(); const v = f(); (t[name] ??= []).push(performance.now() - b); return v; };
let last: any;
const located = ['S1L','S1R','F2L','F2R','M1L','M1R','F4L','F4R','S2L','S2R','S3L','S3R','C1L','C1R','R4L','R4R'];
for (let i = 0; i < 200; i++) {
  const c = located[i % 16];
  rows = { ...rows, readings: [...rows.readings, { ...h, id: `h${i}`, lineId: `hl${i}`, sequence: 20000 + i, pointId: byCode.get(c), value: truth[c][2] + 0.3 * Math.sin(i) }] };
  const sent = time('clone readings', () => v8.deserialize(v8.serialize(rows.readings)));
  const job = time('Job.of', () => Job.of({ ...rows, readings: sent }));
  const j = time('judge', () => judgeRound(job, job.round(round.id)!, true));
  last = j.net.solution;
  const buf = time('serialize answer', () => v8.serialize(j));
  const back: any = time('deserialize answer', () => v8.deserialize(buf));
  if (i === 9999) { console.log('answer bytes', buf.length); for (const k of Object.keys(j)) console.log('  ', k, v8.serialize((j as any)[k]).length); for (const k of Object.keys(j.net)) console.log('    net.', k, v8.serialize((j.net as any)[k]).length); for (const k of Object.keys(j.net.solution!)) console.log('      solution.', k, v8.serialize((j.net.solution as any)[k]).length);}
  const mjob = time('main Job.of', () => Job.of({ ...rows }));
  time('doubtful', () => rows.readings.filter((r: any) => r.roundId === round.id).filter((r: any) => unlikely(r, expectationOf(mjob, back, r), spreadOf(mjob.version(r.instrumentVersionId), r.value))).length);
  time('figure', () => sheetFigure(mjob, back));
  time('charted+open', () => openTargets(mjob, round as any, chartedTargets(mjob, round as any), new Set()));
}
for (const [k, v] of Object.entries(t)) { const s = v.slice(10).sort((a, b) => a - b); console.log(k.padEnd(22), s[s.length >> 1].toFixed(2), s[Math.floor(s.length * 0.95)].toFixed(2), 'first', v[0].toFixed(1)); }
