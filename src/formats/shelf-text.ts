import Papa from 'papaparse';
import { parseLength, type LengthUnit } from '@/core/maths/units/length';
import { shelfItem, type ShelfItem } from '@/core/shell/job/entities';
import { parseShape, type Fault } from './faults';

/** What a line of a shelf says, in this order. */
export const SHELF_COLUMNS = [
  'name',
  'kind',
  'height',
  'count',
  'travel',
  'a turn',
  'hole from',
  'hole to',
  'carries kg',
];

const KIND_WORD: Readonly<Record<string, ShelfItem['kind']>> = {
  tower: 'piece',
  spacer: 'piece',
  shim: 'piece',
  piece: 'piece',
  head: 'head',
  cone: 'head',
  clamp: 'clamp',
  stand: 'stand',
};

/**
 * Reads a shelf as people write it down: one kind of piece a line, `T100; tower; 100; 6` or, with a screw,
 * `cone 40; head; 55; 8; 12; 1.5; 20; 40; 400`. Every fault names its line.
 *
 * @param unit  of bare numbers
 * @param known what a line stands for that was not touched: it stays to the last digit, not to the digit shown
 */
export function readShelf(
  text: string,
  unit: LengthUnit,
  benchVersionId: string,
  newId: () => string,
  known: ReadonlyMap<string, ShelfItem> = new Map(),
): { readonly items: ShelfItem[]; readonly faults: Fault[] } {
  const { data } = Papa.parse<string[]>(text, { delimiter: ';', skipEmptyLines: false });
  const faults: Fault[] = [];
  const items = data.flatMap((cells, i): ShelfItem[] => {
    const [name = '', word = '', ...figures] = cells.map((cell) => cell.trim());
    if (name === '' && word === '' && figures.every((cell) => cell === '')) return [];
    const untouched = known.get(cells.join(';').trim());
    if (untouched) return [{ ...untouched, id: newId(), benchVersionId }];
    const before = faults.length;
    const fault = (message: string) => void faults.push({ path: 'shelf', message: `line ${i + 1}: ${message}` });
    const kind = KIND_WORD[word.toLowerCase()];
    if (!kind) {
      fault(`“${word}” is none of tower, spacer, head, clamp, stand`);
      return [];
    }
    const length = (k: number, what: string): number | null => {
      if (!figures[k]) return null;
      const parsed = parseLength(figures[k], unit);
      if (!parsed.ok) fault(`${what}: ${parsed.reason}`);
      return parsed.ok ? parsed.mm : null;
    };
    const number = (k: number, what: string): number | null => {
      if (!figures[k]) return null;
      const value = Number(figures[k].replace(',', '.'));
      if (!Number.isFinite(value)) fault(`${what}: “${figures[k]}” is no number`);
      return Number.isFinite(value) ? value : null;
    };
    const item = {
      ...{ id: newId(), benchVersionId, kind, code: name },
      height: length(0, 'height') ?? 0,
      count: number(1, 'count') ?? 1,
      travel: length(2, 'travel') ?? 0,
      threadPitch: length(3, 'a turn'),
      fitsLeast: length(4, 'hole from'),
      fitsMost: length(5, 'hole to'),
      clearance: 0,
      rating: number(6, 'carries'),
    };
    if (kind === 'piece' && item.height <= 0) fault('a tower or spacer has a height');
    const shape = parseShape(shelfItem, item);
    if (!shape.ok) shape.faults.forEach(({ path, message }) => fault(`${path}: ${message}`));
    return shape.ok && faults.length === before ? [shape.value] : [];
  });
  const codes = items.map(({ code }) => code);
  const twice = codes.find((code, i) => codes.indexOf(code) !== i);
  if (twice) faults.push({ path: 'shelf', message: `“${twice}” stands here twice: give each kind its own name` });
  return { items, faults };
}

const SHOWN: Readonly<Record<ShelfItem['kind'], string>> = {
  piece: 'tower',
  head: 'head',
  clamp: 'clamp',
  stand: 'stand',
};

/** One kind of piece as one would write it down. */
export function shelfLine(item: ShelfItem, length: (mm: number) => string): string {
  const shown = (mm: number | null) => (mm === null ? '' : length(mm));
  return [
    ...[item.code, SHOWN[item.kind], length(item.height), String(item.count)],
    item.travel > 0 ? length(item.travel) : '',
    ...[shown(item.threadPitch), shown(item.fitsLeast), shown(item.fitsMost)],
    item.rating === null ? '' : String(item.rating),
  ]
    .join('; ')
    .replace(/(; )+$/, '');
}

export const shelfText = (items: readonly ShelfItem[], length: (mm: number) => string): string =>
  items.map((item) => shelfLine(item, length)).join('\n');
