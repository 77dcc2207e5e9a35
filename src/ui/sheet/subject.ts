/** The point or dimension a figure is asked about. */
export interface Subject {
  readonly kind: 'point' | 'dimension';
  readonly id: string;
}
