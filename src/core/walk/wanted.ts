import { distance, levelDistance, type Position, type Vector } from '../maths/geometry/vector';
import type { Reading } from '../shell/job/entities';
import type { Job } from '../shell/job/job';
import { referencePosition } from '../shell/references/chosen';
import type { ParsedLine } from '../shell/shorthand/line';
import { lengthBetween, type RoundJudgement } from '../round/judge/judgement';
import { isTargetQuantity, type Target } from './targets';

/** What the round, or else the chart, lets expect of a target, mm. */
export function expectedOf(
  job: Job,
  judgement: RoundJudgement | undefined,
  target: Pick<Target, 'codes' | 'quantity' | 'measure'> | undefined,
): { value: number; sd?: number } | undefined {
  if (!judgement || !target) return undefined;
  const [from, to] = target.codes.map((code) => job.pointCalled(code));
  if (!from) return undefined;
  if (to && target.quantity === 'distance') {
    const ends = { fromPointId: from.id, toPointId: to.id, measure: target.measure ?? 'tip' } as const;
    const known = judgement.net.solution && lengthBetween(judgement, ends);
    if (known?.from === 'net') return known;
    const [a, b] = [from, to].map(({ id }) => referencePosition(job.references, id));
    return a && b ? { value: ends.measure === 'level' ? levelDistance(a, b) : distance(a, b) } : undefined;
  }
  const at = judgement.located.get(from.id)?.position;
  return at && { value: at[{ length: 0, width: 1, height: 2, distance: 2 }[target.quantity] as 0 | 1 | 2] };
}

/** The same for a line already read. */
export function expectedFor(
  job: Job,
  judgement: RoundJudgement | undefined,
  parsed: ParsedLine,
): { value: number } | undefined {
  const first = parsed.ok ? parsed.readings[0] : undefined;
  if (first?.quantity !== 'distance') return undefined;
  const codes = [first.pointId, first.toPointId].flatMap((id) => job.pointOf(id)?.code ?? []);
  return expectedOf(job, judgement, { quantity: 'distance', measure: first.measure ?? 'tip', codes });
}

/** The target a reading was an answer to. */
export function targetOfReading(job: Job, reading: Reading): Target | undefined {
  const { quantity } = reading;
  if (!isTargetQuantity(quantity)) return undefined;
  const codes = [reading.pointId, reading.toPointId].flatMap((id) => job.pointOf(id)?.code ?? []);
  return {
    key: `${quantity} ${[...codes].sort().join(' ')}`,
    quantity,
    codes,
    why: 'again',
    again: false,
    ...(reading.measure ? { measure: reading.measure } : {}),
  };
}

/** Three lengths to located points round about, and a height: what ties a substitute in. */
export function tyingTargets(
  job: Job,
  newCode: string,
  beside: string,
  judgement: RoundJudgement | undefined,
): Target[] {
  const own = job.pointCalled(beside)?.id ?? '';
  const at: ReadonlyMap<string, { readonly position: Position<'round'> }> = judgement?.located ?? new Map();
  const near: Vector | undefined = at.get(own)?.position ?? referencePosition(job.references, own);
  const others = [...at]
    .filter(([id]) => id !== own)
    .map(([id, { position: place }]) => ({
      code: job.code(id),
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
