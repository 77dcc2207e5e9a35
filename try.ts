import { demoRows } from './tests/support/demo-rows';
import { judgeRound } from '@/core/round/judgement';
for (const job of ['solbris','kvist','lodd'] as const) {
  const rows = demoRows(job);
  for (const round of rows.rounds) {
    let t = performance.now();
    const j = judgeRound(rows, round);
    const ms = performance.now()-t;
    const { net } = j;
    console.log(job, round.name, ms.toFixed(0)+'ms', 'pts', net.solution?.survey.points.length, 'rd', net.solution?.survey.readings.length, 'loose', net.loose.map(l=>l.id+': '+l.advice).slice(0,3), 'unread', net.unread.length, 'unchecked', net.unchecked.length, 'apart', net.apart.map(a=>a.join(' ')), net.start, net.rough && [net.rough.mirrored, net.rough.handedness, net.rough.unplaced]);
    for (const d of net.doubts) { const r = rows.readings.find(r=>r.id===d.readingId)!; console.log('  doubt', d.kind, r.raw, 'w', d.w.toFixed(1), d.cause?.text, d.cause?.ambiguous, d.expected); }
    console.log('  verdicts', ['inside','outside','undecided'].map(v=>j.points.filter(p=>p.judged?.verdict===v).length), j.dimensions.map(d=>d.judged?.verdict[0]).join(''), j.alignment.ok && j.alignment.rms);
  }
}
