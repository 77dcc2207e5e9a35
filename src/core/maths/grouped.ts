/** Rows by their key, in the order they come. */
export function grouped<Row>(rows: readonly Row[], key: (row: Row) => string): Map<string, Row[]> {
  const groups = new Map<string, Row[]>();
  for (const row of rows) {
    const own = key(row);
    const group = groups.get(own);
    if (group) group.push(row);
    else groups.set(own, [row]);
  }
  return groups;
}
