import Papa from 'papaparse';

/**
 * Writes rows as CSV. A text cell that a spreadsheet would run as a formula is neutralised with an
 * apostrophe; numbers, negative ones too, stay numbers.
 */
export function writeCsv(rows: readonly Readonly<Record<string, string | number | boolean | null>>[]): string {
  const safe = rows.map((row) =>
    Object.fromEntries(
      Object.entries(row).map(([key, cell]) => [key, typeof cell === 'string' ? neutral(cell) : cell]),
    ),
  );
  return `${Papa.unparse(safe, { newline: '\n' })}\n`;
}

const neutral = (cell: string): string => (/^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);
