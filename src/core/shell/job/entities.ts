/**
 * The rows of a job, one schema each: the single source of their types, of the columns the
 * database reads and writes, and of the documents a job is exported in. Millimetres, degrees
 * Celsius, ISO 8601 times in UTC. Identities are UUIDs made by whoever creates the row.
 */
export { length, limit, measure, side, SIDES, words } from './entities/fields';
export * from './entities/bench';
export * from './entities/finding';
export * from './entities/fitting';
export * from './entities/gauge';
export * from './entities/log';
export * from './entities/plan';
export * from './entities/reference';
export * from './entities/round';
export * from './entities/shell';
export * from './entities/structure';
export * from './entities/welding';
export * from './entities/work';

import type { Reading, ShellState } from './entities/round';
import type { Dimension, Point } from './entities/shell';
import type { Step } from './entities/work';

export type Side = Point['side'];
export type Measure = Dimension['measure'];
export type Quantity = Reading['quantity'];
export type Phase = Reading['phase'];
export type Rung = Step['rung'];
export type StateKind = ShellState['kind'];
