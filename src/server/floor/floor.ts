import type { FloorState } from '../../formats/floor';

/** What the process that listens can do for the interface. */
export interface Floor {
  state(): FloorState;
  /** Answers on the network from now on, and after the next start too. */
  open(): Promise<void>;
  close(): Promise<void>;
  newCode(): void;
  sendAway(id: string): void;
}

const shared = globalThis as typeof globalThis & { vinkelFloor?: Floor };

/** Undefined where the program was not started in a way that can answer on the network. */
export const theFloor = (): Floor | undefined => shared.vinkelFloor;

export const setFloor = (floor: Floor): void => {
  shared.vinkelFloor = floor;
};

/** The header by which a request over the network names its device; no client can set it. */
export const DEVICE_HEADER = 'x-vinkel-device';
