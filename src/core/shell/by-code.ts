const ORDER = new Intl.Collator('en', { numeric: true });

/** The order of codes as people count: D2 before D10. */
export const byCode = (a: string, b: string): number => ORDER.compare(a, b);
