/** Columns of a chart as spreadsheets name them: matched without case, units and punctuation. */
const SYNONYMS = {
  code: ['id', 'code', 'point', 'point id', 'no', 'nr', 'number', 'ref'],
  name: ['name', 'description', 'text', 'what', 'place'],
  side: ['side', 'l r', 'lr', 'left right', 'hand'],
  x: ['x', 'length', 'lengthwise', 'l'],
  y: ['y', 'width', 'w', 'offset'],
  z: ['z', 'height', 'h'],
  tolerance: ['tolerance', 'tol', 'limit', '+-', '±', 'plus minus'],
  hole: ['hole', 'hole diameter', 'diameter', 'dia'],
  from: ['from', 'from point', 'start', 'a', 'point a'],
  to: ['to', 'to point', 'end', 'b', 'point b'],
  value: ['value', 'distance', 'dimension', 'dim', 'measure value', 'chart', 'size'],
  measure: ['measure', 'tip or level', 'tip level', 'tip to tip or level', 'type', 'kind', 'how'],
} as const;

export type ChartColumn = keyof typeof SYNONYMS;

const plain = (header: string): string =>
  header
    .toLowerCase()
    .replace(/\(.*?\)|\[.*?\]/g, '')
    .replace(/[_\-/.:]+/g, ' ')
    .replace(/\b(mm|cm|in|inch|inches)\b/g, '')
    .replace(/\s+/g, ' ')
    .trim();

/** Which column of the file holds what; a file with from and to lists dimensions, else points. */
export function matchHeaders(headers: readonly string[]): ReadonlyMap<ChartColumn, number> {
  const found = new Map<ChartColumn, number>();
  headers.forEach((header, index) => {
    const text = plain(header);
    const column = (Object.keys(SYNONYMS) as ChartColumn[]).find(
      (key) => !found.has(key) && (SYNONYMS[key] as readonly string[]).includes(text),
    );
    if (column) found.set(column, index);
  });
  return found;
}

export const CHART_TEMPLATES = {
  points:
    'id,name,side,x,y,z,tolerance,hole\nF1L,Front leg hole,left,0,-410,215,3,16\nF1R,Front leg hole,right,0,410,215,3,16\n',
  dimensions: 'id,name,from,to,value,tolerance,measure\nD1,Across the front legs,F1L,F1R,820,3,tip\n',
} as const;
