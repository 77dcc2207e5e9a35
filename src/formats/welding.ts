import { z } from 'zod';
import { weldOrder } from '@/core/plan/weld-order/order';
import type { Computed } from './computed';
import { duplicateFaults, parseShape, pathText, type Fault, type Parsed } from './faults';
import { listOf } from './shell-file';

const id = z.string().min(1);
const above = z.number().positive();

/** `vinkel.welds/1`. */
const weldDocument = z.strictObject({
  format: z.literal('vinkel.welds/1'),
  sheet: z.strictObject({
    ...{ thickness: above, conductivity: above, density: above, heat: above },
    loss: z.number().min(0).default(0),
  }),
  plugs: z.array(
    z.strictObject({
      id,
      at: z.tuple([z.number(), z.number(), z.number()]),
      energy: above.optional(),
      seconds: above.optional(),
    }),
  ),
  ...{ energy: above, seconds: above, moving: above.default(2), most: above, near: above.default(85) },
  hold: z.array(z.tuple([id, id])).default([]),
});
export type WeldDocument = z.infer<typeof weldDocument>;

/** `vinkel.welding/1`. */
export interface WeldingAnswer {
  readonly format: 'vinkel.welding/1';
  readonly order: readonly { readonly id: string; readonly begun: number; readonly rise: number }[];
  readonly finished: number;
  readonly proven: boolean;
}

export function parseWeld(value: unknown): Parsed<WeldDocument> {
  const shape = parseShape(weldDocument, value);
  const plugs = listOf(value, 'plugs').map((plug) => plug.id);
  const known = new Set(plugs);
  const { hold } = (value ?? {}) as { readonly hold?: unknown };
  const unknown = (Array.isArray(hold) ? hold : []).flatMap((pair: unknown, i): Fault[] =>
    (Array.isArray(pair) ? pair : []).flatMap((name: unknown, k): Fault[] =>
      typeof name === 'string' && name !== '' && !known.has(name)
        ? [{ path: pathText(['hold', i, k]), message: `no plug "${name}"` }]
        : [],
    ),
  );
  const faults = [...(shape.ok ? [] : shape.faults), ...duplicateFaults('plugs', plugs), ...unknown];
  return faults.length > 0 ? { ok: false, faults } : shape;
}

/** Computes an order that keeps the heat apart. */
export function computeWelding(document: WeldDocument): Computed<WeldingAnswer> {
  const { sheet, plugs, energy, seconds, moving, most, near, hold } = document;
  const at = new Map(plugs.map((plug, i) => [plug.id, i]));
  const result = weldOrder({
    ...{ sheet, moving, most, near },
    plugs: plugs.map((plug) => ({ at: plug.at, energy: plug.energy ?? energy, seconds: plug.seconds ?? seconds })),
    hold: hold.map(([before, after]) => [at.get(before)!, at.get(after)!] as const),
  });
  if (!result.ok) {
    const names = result.circle.map((i) => `"${plugs[i]!.id}"`);
    return {
      ok: false,
      reason: `hold: ${names.join(' before ')} before ${names[0]}: they wait for each other in a circle, take one pair out`,
    };
  }
  const { order, finished, proven } = result;
  return {
    ok: true,
    value: {
      format: 'vinkel.welding/1',
      order: order.map(({ plug, begun, rise }) => ({ id: plugs[plug]!.id, begun, rise })),
      ...{ finished, proven },
    },
  };
}
