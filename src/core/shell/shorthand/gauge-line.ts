import { parseLength, type LengthUnit } from '../../maths/units/length';
import type { Reading } from '../job/entities';
import { NOTHING, refuse, type ParsedLine, type ShorthandReading, type Subjects } from './parsed';

type NamedPoint = Subjects['points'][number];
export type NamedHole = NonNullable<Subjects['partHoles']>[number];

const FIT: Readonly<Record<string, Reading['fit']>> = {
  free: 'free',
  freely: 'free',
  tight: 'tight',
  no: 'none',
  not: 'none',
  none: 'none',
  out: 'none',
};
/** Clearance of a head where none is typed, mm. */
const USUAL_CLEARANCE = 0.5;

/** A fixture head behind its point: how it enters, and its clearance. */
export function readHead(text: string, point: NamedPoint, unit: LengthUnit): ParsedLine {
  const [, word = '', rest = ''] = /^head\s+(\S+)\s*(.*)$/i.exec(text) ?? [];
  const fit = FIT[word.toLowerCase()];
  if (!fit) return refuse('say how the head enters: head free, head tight or head no');
  const clearance = rest.trim() === '' ? undefined : parseLength(rest, unit);
  if (clearance && !clearance.ok) return refuse(clearance.reason);
  if (clearance?.ok && clearance.mm <= 0) return refuse('a clearance is above zero');
  const value = clearance?.ok ? clearance.mm : USUAL_CLEARANCE;
  return {
    ok: true,
    readings: [{ ...NOTHING, quantity: 'fixture', value, pointId: point.id, fit }],
    warnings: clearance?.warnings ? [...clearance.warnings] : [],
  };
}

const TOWARD: Readonly<Record<string, Reading['toward']>> = {
  front: 'front',
  forward: 'front',
  rear: 'rear',
  back: 'rear',
  left: 'left',
  right: 'right',
  up: 'up',
  down: 'down',
};

/** A hole of a part bolted up at a point. */
export function readHole(text: string, point: NamedPoint, hole: NamedHole, unit: LengthUnit): ParsedLine {
  const reading = { ...NOTHING, quantity: 'fixture', pointId: point.id, partHoleId: hole.id } as const;
  const done = (
    found: Pick<ShorthandReading, 'value' | 'fit' | 'toward'>,
    warnings: readonly string[] = [],
  ): ParsedLine => ({
    ok: true,
    readings: [{ ...reading, ...found }],
    warnings,
  });
  const said = text.trim().toLowerCase();
  if (/^cent(red?|ered)$/.test(said)) return done({ value: hole.clearance, fit: 'centred', toward: null });
  if (FIT[said] === 'none') return done({ value: hole.clearance, fit: 'none', toward: null });
  const [, amount = '', way = ''] = /^(.*\S)\s+([a-z]+)$/i.exec(said) ?? [];
  const toward = TOWARD[way];
  if (!toward)
    return refuse(`say how ${hole.code} fits: centred, no, or how far beside it the point is and which way: 4 rear`);
  const by = parseLength(amount, unit);
  if (!by.ok) return refuse(by.reason);
  if (by.mm <= 0) return refuse('how far beside is above zero: turn the direction round');
  return done({ value: by.mm, fit: 'beside', toward }, by.warnings);
}
