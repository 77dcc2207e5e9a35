import { z } from 'zod';
import { norm, scale, type Vector } from '@/core/maths/geometry/vector';
import { seat, type Figures, type SeatSetting, type Wanted } from '@/core/plan/panels/seat';
import type { Computed } from './computed';
import { duplicateFaults, parseShape, pathText, type Fault, type Parsed } from './faults';
import { listOf } from './shell-file';

const id = z.string().min(1);
const number = z.number();
const above = number.positive();
const vector = z.tuple([number, number, number]);

/** `vinkel.seat/1`. */
const seatDocument = z.strictObject({
  format: z.literal('vinkel.seat/1'),
  stations: z.array(
    z.strictObject({
      ...{ id, at: vector, across: vector, gap: number, target: number, limit: above, weight: above.default(1) },
      ...{ out: vector.optional(), flush: number.optional(), flushTarget: number.default(0) },
      ...{ flushLimit: above.optional(), flushWeight: above.default(1) },
    }),
  ),
  settings: z.array(
    z.strictObject({
      ...{ id, at: vector.optional(), along: vector.optional(), from: number, to: number, step: above.optional() },
      effects: z.array(z.strictObject({ station: id, gap: number.default(0), flush: number.optional() })).optional(),
    }),
  ),
  holds: z.array(z.strictObject({ at: vector, along: vector })),
});
export type SeatDocument = z.infer<typeof seatDocument>;

/** `vinkel.seating/1`. */
export interface SeatingAnswer {
  readonly format: 'vinkel.seating/1';
  readonly settings: readonly { readonly id: string; readonly value: number }[];
  readonly cost: number;
  readonly before: number;
  readonly stations: readonly (Figures & { readonly id: string })[];
  readonly free: { readonly cost: number; readonly stations: readonly (Figures & { readonly id: string })[] };
  readonly proven: boolean;
}

const isNowhere = (direction: unknown): boolean =>
  Array.isArray(direction) && direction.length === 3 && direction.every((each) => each === 0);

const nowhere = (value: unknown, list: string, fields: readonly string[]): Fault[] =>
  listOf(value, list).flatMap((row, i) =>
    fields.flatMap((field) =>
      isNowhere(row[field])
        ? [{ path: pathText([list, i, field]), message: 'it points nowhere: its length is zero' }]
        : [],
    ),
  );

/** A flush is read with the way out and a limit, or not at all. */
const flushFaults = (value: unknown): Fault[] =>
  listOf(value, 'stations').flatMap(({ flush, out, flushLimit }, i) =>
    flush === undefined
      ? []
      : [
          ...(out === undefined
            ? [{ path: pathText(['stations', i, 'out']), message: 'a flush needs the way out' }]
            : []),
          ...(flushLimit === undefined
            ? [{ path: pathText(['stations', i, 'flushLimit']), message: 'a flush needs its limit' }]
            : []),
        ],
  );

function settingFaults(value: unknown): Fault[] {
  const stations = new Map(listOf(value, 'stations').map((station) => [station.id, station]));
  return listOf(value, 'settings').flatMap(({ at, along, effects, from, to }, i): Fault[] => {
    const moves = at !== undefined || along !== undefined;
    const whole = at !== undefined && along !== undefined;
    const place = pathText(['settings', i]);
    const list = Array.isArray(effects) ? (effects as { station?: unknown; flush?: unknown }[]) : [];
    const seen = new Set<unknown>();
    return [
      ...(moves === (effects !== undefined) || (moves && !whole)
        ? [{ path: place, message: 'either “at” and “along”, or “effects”' }]
        : []),
      ...(typeof from === 'number' && typeof to === 'number' && from > to
        ? [{ path: pathText(['settings', i, 'to']), message: 'it lies before “from”' }]
        : []),
      ...list.flatMap((effect, k): Fault[] => {
        if (typeof effect !== 'object' || effect === null) return [];
        const path = pathText(['settings', i, 'effects', k, 'station']);
        const station = stations.get(effect.station);
        if (typeof effect.station === 'string' && effect.station !== '' && !station)
          return [{ path, message: `no station "${effect.station}"` }];
        const twice = seen.has(effect.station);
        seen.add(effect.station);
        return [
          ...(twice ? [{ path, message: 'this station stands here twice' }] : []),
          ...(effect.flush !== undefined && station && station.flush === undefined
            ? [{ path: pathText(['settings', i, 'effects', k, 'flush']), message: 'its station has no flush' }]
            : []),
        ];
      }),
    ];
  });
}

export function parseSeat(value: unknown): Parsed<SeatDocument> {
  const shape = parseShape(seatDocument, value);
  const ids = (list: string) =>
    duplicateFaults(
      list,
      listOf(value, list).map((each) => each.id),
    );
  const faults = [
    ...(shape.ok ? [] : shape.faults),
    ...ids('stations'),
    ...ids('settings'),
    ...nowhere(value, 'stations', ['across', 'out']),
    ...nowhere(value, 'settings', ['along']),
    ...nowhere(value, 'holds', ['along']),
    ...flushFaults(value),
    ...settingFaults(value),
  ];
  return faults.length > 0 ? { ok: false, faults } : shape;
}

const unit = (direction: Vector): Vector => scale(direction, 1 / norm(direction));

/** Computes where a hung panel sits best. */
export function computeSeating({ stations, settings, holds }: SeatDocument): Computed<SeatingAnswer> {
  const at = new Map(stations.map((station, i) => [station.id, i]));
  const result = seat(
    stations.map((station) => {
      const gap: Wanted = { now: station.gap, target: station.target, limit: station.limit, weight: station.weight };
      const base = { at: station.at, across: unit(station.across), gap };
      if (station.flush === undefined) return base;
      const flush = {
        ...{ now: station.flush, target: station.flushTarget },
        ...{ limit: station.flushLimit!, weight: station.flushWeight },
      };
      return { ...base, out: unit(station.out!), flush };
    }),
    settings.map(({ at: place, along, effects, from, to, step }): SeatSetting => {
      const range = { from, to, ...(step === undefined ? {} : { step }) };
      if (place && along) return { ...range, at: place, along: unit(along) };
      const told = effects ?? [];
      return {
        ...range,
        effects: told.map(({ station, gap, flush = 0 }) => ({ station: at.get(station)!, gap, flush })),
      };
    }),
    holds.map(({ at: place, along }) => ({ at: place, along: unit(along) })),
  );
  if (!result.ok)
    return {
      ok: false,
      reason:
        result.conditions === 6
          ? 'settings and holds leave the panel free to move some way: let one of them hold it another way'
          : `settings that move the panel and holds are ${result.conditions} conditions, and six say where it is: ${result.conditions < 6 ? 'add a hold' : 'take one away'}`,
    };
  const { values, cost, before, stations: told, free, proven } = result.value;
  const called = (figures: readonly Figures[]) => figures.map((each, i) => ({ id: stations[i]!.id, ...each }));
  return {
    ok: true,
    value: {
      format: 'vinkel.seating/1',
      settings: settings.map((setting, i) => ({ id: setting.id, value: values[i]! })),
      ...{ cost, before, stations: called(told), free: { cost: free.cost, stations: called(free.stations) }, proven },
    },
  };
}
