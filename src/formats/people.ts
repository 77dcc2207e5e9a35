import type { Role } from '@/core/shell/job/entities';

/** Where the fault stands of a browser that is locked, and of one in which nobody said who they are. */
export const LOCKED = 'locked';
export const SIGNED_OUT = 'signedOut';

/** So long after nobody did anything in a browser, ms, it takes nothing more until somebody says who they are. */
export const IDLE = 15 * 60_000;

/** Why somebody did not come in, as they are told. */
export const AWAY_IN_WORDS = {
  wrong: 'That name and that passphrase do not go together here. Look again; the owner of the shop can give a new one.',
  tooOften: 'Too many tries. Wait a quarter of an hour, then try again.',
  wrongPin: 'That is not the PIN. After five wrong ones the passphrase is asked for.',
  passphraseAgain: 'Say the passphrase again on this device.',
} as const;

/** Who works in a browser, and who may take its place there with a PIN. */
export interface WhoIsHere {
  readonly id: string;
  readonly name: string;
  readonly locked: boolean;
  readonly known: readonly { readonly id: string; readonly name: string }[];
}

/** Somebody of the shop, as the page of its people lists them. */
export interface ListedPerson {
  readonly id: string;
  readonly name: string;
  readonly roles: readonly Role[];
  readonly owner: boolean;
  readonly here: boolean;
  readonly hasPassphrase: boolean;
  readonly hasPin: boolean;
}
