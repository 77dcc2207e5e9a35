/** A device as the main screen lists it. */
export interface ListedDevice {
  readonly id: string;
  readonly name: string;
  readonly pairedAt: string;
  /** When it last asked for something since the program runs. */
  readonly seenAt?: string;
}

/** How the program stands on the shop's network, as the main screen shows it. */
export type FloorState =
  | { readonly on: false }
  | {
      readonly on: true;
      /** Where tablets go, the first to begin with. */
      readonly addresses: readonly string[];
      /** Where they first learn to trust it; not encrypted, and without anything of a job. */
      readonly trust: string;
      readonly fingerprint: string;
      readonly devices: readonly ListedDevice[];
      readonly code?: { readonly digits: string; readonly until: number };
    };
