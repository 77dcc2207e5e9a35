/** What a shop may let the others on its server have. */
export const SHARED_KINDS = ['chart', 'structure', 'bench'] as const;
export type SharedKind = (typeof SHARED_KINDS)[number];

/** Something a shop of the server shares, without the file itself. */
export interface ListedShared {
  readonly id: string;
  readonly kind: SharedKind;
  readonly name: string;
  /** The shop's name as it was then. */
  readonly ofShop: string;
  readonly at: string;
  /** Who shared it; empty where it is of another shop. */
  readonly author: string;
  /** Of the shop that looks. */
  readonly own: boolean;
}
