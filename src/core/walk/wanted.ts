import type { Reading } from '../shell/job/entities';
import type { JobRows } from '../shell/job/job-rows';
import type { ParsedLine } from '../shell/shorthand/line';
import { lengthBetween, type RoundJudgement } from '../round/judge/judgement';
import { coordinatesOf } from '../round/net/net';
import type { Target } from './targets';

/** What the round, or else the chart, lets expect of a target, mm. */
export function expectedOf(
  rows: JobRows,
  judgement: RoundJudgement | undefined,
  target: Target | undefined,
): { value: number; sd?: number } | undefined {
  if (!judgement || !target) return undefined;
  const points = target.codes.map((code) => rows.points.find((point) => point.code === code));
  const [from, to] = points;
  if (!from) return undefined;
  if (to && target.quantity === 'distance') {
    const ends = { fromPointId: from.id, toPointId: to.id, measure: target.measure ?? 'tip' } as const;
    const known = judgement.net.solution && lengthBetween(rows, judgement, ends);
    if (known?.from === 'net') return known;
    const [a, b] = [from, to].map(({ id }) => judgement.references.points.get(id)?.row);
    return a && b ? { value: Math.hypot(b.x - a.x, b.y - a.y, ends.measure === 'level' ? 0 : b.z - a.z) } : undefined;
  }
  const { solution } = judgement.net;
  const at = solution && coordinatesOf(solution).get(from.code);
  return at && { value: at[2] };
}

/** The same for a line already read. */
export function expectedFor(
  rows: JobRows,
  judgement: RoundJudgement | undefined,
  parsed: ParsedLine,
): { value: number } | undefined {
  const first = parsed.ok ? parsed.readings[0] : undefined;
  if (first?.quantity !== 'distance') return undefined;
  const codes = [first.pointId, first.toPointId].flatMap((id) =>
    rows.points.filter((point) => point.id === id).map(({ code }) => code),
  );
  return expectedOf(rows, judgement, {
    key: '',
    quantity: 'distance',
    measure: first.measure ?? 'tip',
    codes,
    why: 'length',
    again: false,
  });
}

/** The target a reading was an answer to. */
export function targetOfReading(rows: JobRows, reading: Reading): Target | undefined {
  if (reading.quantity !== 'distance' && reading.quantity !== 'height') return undefined;
  const codes = [reading.pointId, reading.toPointId].flatMap((id) =>
    rows.points.filter((point) => point.id === id).map(({ code }) => code),
  );
  return {
    key: `${reading.quantity} ${[...codes].sort().join(' ')}`,
    quantity: reading.quantity,
    codes,
    why: 'again',
    again: false,
    ...(reading.measure ? { measure: reading.measure } : {}),
  };
}

/** Three lengths to located points round about, and a height: what ties a substitute in. */
export function tyingTargets(
  newCode: string,
  beside: string,
  judgement: RoundJudgement | undefined,
  rows: JobRows,
): Target[] {
  const row = judgement?.references.points.get(rows.points.find(({ code }) => code === beside)?.id ?? '')?.row;
  const solution = judgement?.net.solution;
  const at = solution ? coordinatesOf(solution) : new Map<string, [number, number, number]>();
  const near = at.get(beside) ?? (row ? ([row.x, row.y, row.z] as const) : undefined);
  const others = [...at]
    .filter(([code]) => code !== beside)
    .map(([code, place]) => ({
      code,
      far: near ? Math.hypot(place[0] - near[0], place[1] - near[1], place[2] - near[2]) : 0,
      way: near ? Math.atan2(place[1] - near[1], place[0] - near[0]) : 0,
    }));
  const inReach = others.filter(({ far }) => far > 150 && far < 2500).sort((a, b) => a.far - b.far);
  const chosen: typeof inReach = [];
  for (const each of inReach)
    if (chosen.length < 3 && chosen.every((other) => Math.abs(Math.sin(each.way - other.way)) > 0.4)) chosen.push(each);
  for (const each of inReach) if (chosen.length < 3 && !chosen.includes(each)) chosen.push(each);
  return [
    ...chosen.map(({ code }): Target => ({
      key: `distance ${[newCode, code].sort().join(' ')}`,
      quantity: 'distance',
      measure: 'tip',
      codes: [code, newCode],
      why: 'length',
      again: false,
    })),
    { key: `height ${newCode}`, quantity: 'height', codes: [newCode], why: 'height', again: false },
  ];
}
