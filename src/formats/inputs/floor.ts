import { z } from 'zod';

export const switchedFloor = z.strictObject({ on: z.boolean() });
export const pairingCode = z.strictObject({});
export const deviceSentAway = z.strictObject({ id: z.uuid() });

export type SwitchedFloor = z.input<typeof switchedFloor>;
export type PairingCode = z.input<typeof pairingCode>;
export type DeviceSentAway = z.input<typeof deviceSentAway>;
