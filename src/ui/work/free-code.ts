/** The first of X1, X2, … that none has; those taken back count. */
export function freeCode(rows: readonly { readonly code: string }[], letter: string): string {
  const taken = new Set(rows.map(({ code }) => code));
  let number = 1;
  while (taken.has(`${letter}${number}`)) number++;
  return `${letter}${number}`;
}
