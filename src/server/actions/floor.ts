'use server';

import { headers } from 'next/headers';
import * as input from '@/formats/inputs/floor';
import { done, failed } from '@/formats/outcome';
import { theSessions } from '../people/shared';
import { DEVICE_HEADER, theFloor, type Floor } from '../floor/floor';
import { ownersCase } from '../use-case';

/** Who may come in is decided at the machine itself, not on a device that was let in. */
async function atTheMachine() {
  const floor = theFloor();
  if ((await headers()).has(DEVICE_HEADER)) return failed('device', 'this is done at the machine itself');
  return floor ?? failed('floor', 'started this way the program cannot answer on the network');
}

const isFloor = (found: Awaited<ReturnType<typeof atTheMachine>>): found is Floor => 'state' in found;

/** Answers on the shop's network from now on, or on this machine alone. */
export const switchFloor = ownersCase(input.switchedFloor, async ({ on }) => {
  const floor = await atTheMachine();
  if (!isFloor(floor)) return floor;
  try {
    await (on ? floor.open() : floor.close());
  } catch (error) {
    return failed('floor', (error as Error).message);
  }
  return done(null);
});

/** Shows a new code, in place of the one before. */
export const showPairingCode = ownersCase(input.pairingCode, async () => {
  const floor = await atTheMachine();
  if (!isFloor(floor)) return floor;
  floor.newCode();
  return done(null);
});

/** A device that was let in is asked for a code again. */
export const sendDeviceAway = ownersCase(input.deviceSentAway, async ({ id }) => {
  const floor = await atTheMachine();
  if (!isFloor(floor)) return floor;
  floor.sendAway(id);
  await theSessions()?.endOnDevice(id);
  return done(null);
});
