import type { Measure, Quantity, Reading, Side } from '../job/entities';

/** What a line of shorthand can name. Codes are compared without regard to case. */
export interface Subjects {
  readonly points: readonly { readonly id: string; readonly code: string; readonly side: Side }[];
  readonly stations: readonly { readonly id: string; readonly code: string }[];
  /** Holes of parts that are bolted up as gauges, `axle.1`, with the play of their bolts, mm. */
  readonly partHoles?: readonly { readonly id: string; readonly code: string; readonly clearance: number }[];
  /** Charted pairs: how the chart says their length is taken. */
  readonly pairs: readonly {
    readonly fromPointId: string;
    readonly toPointId: string;
    readonly measure: Measure;
  }[];
}

/** One number of a typed line, in millimetres, before it has an identity. */
export interface ShorthandReading {
  readonly quantity: Quantity;
  readonly value: number;
  readonly measure: Measure | null;
  readonly pointId: string | null;
  readonly toPointId: string | null;
  readonly stationId: string | null;
  readonly pointerFrom: number | null;
  readonly pointerTo: number | null;
  readonly fit: Reading['fit'];
  readonly partHoleId: string | null;
  readonly toward: Reading['toward'];
}

/** What most readings have none of. */
export const NOTHING = {
  measure: null,
  pointId: null,
  toPointId: null,
  stationId: null,
  pointerFrom: null,
  pointerTo: null,
  fit: null,
  partHoleId: null,
  toward: null,
} as const;

export type ParsedLine =
  | {
      readonly ok: true;
      readonly readings: readonly ShorthandReading[];
      readonly warnings: readonly string[];
      /** What is asked before it is taken. */
      readonly asks?: readonly string[];
    }
  | { readonly ok: false; readonly reason: string };

export const refuse = (reason: string): ParsedLine => ({ ok: false, reason });
