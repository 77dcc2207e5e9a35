import { parse, printParseErrorCode, type ParseError } from 'jsonc-parser';
import type { z } from 'zod';

/** One thing wrong with a document, and the place: `readings[3].to`, or `file` for the file itself. */
export interface Fault {
  readonly path: string;
  readonly message: string;
}

export type Parsed<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly faults: readonly Fault[] };

export const faultText = ({ path, message }: Fault): string => `${path}: ${message}`;

/** Reads JSON; a text that is not says `file` with line and column. */
export function parseJson(text: string): Parsed<unknown> {
  if (isTooDeep(text))
    return {
      ok: false,
      faults: [{ path: 'file', message: `nested more than ${MOST_DEPTH} deep: no document of ours is` }],
    };
  const errors: ParseError[] = [];
  const value: unknown = parse(text.replace(/^\uFEFF/, ''), errors, {
    disallowComments: true,
    allowTrailingComma: false,
    allowEmptyContent: false,
  });
  const [first] = errors;
  if (!first) return { ok: true, value };
  const before = text.slice(0, first.offset).split('\n');
  const place = `line ${before.length}, column ${before.at(-1)!.length + 1}`;
  const what = printParseErrorCode(first.error)
    .replace(/([A-Z])/g, ' $1')
    .trim()
    .toLowerCase();
  return { ok: false, faults: [{ path: 'file', message: `not JSON: ${what} at ${place}` }] };
}

/** Lists and objects within each other that a document may have; deeper ones would exhaust the parser. */
const MOST_DEPTH = 100;

/** Whether brackets outside of strings nest too deep anywhere. */
function isTooDeep(text: string): boolean {
  let depth = 0;
  let inString = false;
  for (let i = 0; i < text.length; i++) {
    const sign = text.charCodeAt(i);
    if (inString) {
      if (sign === 0x5c) i++;
      else if (sign === 0x22) inString = false;
    } else if (sign === 0x22) inString = true;
    else if (sign === 0x5b || sign === 0x7b) {
      if (++depth > MOST_DEPTH) return true;
    } else if (sign === 0x5d || sign === 0x7d) depth--;
  }
  return false;
}

/** `['points', 3, 'x']` as `points[3].x`. */
export const pathText = (path: readonly PropertyKey[]): string =>
  path.reduce<string>(
    (text, key) => (typeof key === 'number' ? `${text}[${key}]` : text === '' ? String(key) : `${text}.${String(key)}`),
    '',
  ) || 'file';

/** Checks a document against its schema and reports every fault, unknown fields each by their path. */
export function parseShape<T>(schema: z.ZodType<T>, value: unknown): Parsed<T> {
  const result = schema.safeParse(value, { error: wordIssue });
  if (result.success) return { ok: true, value: result.data };
  return { ok: false, faults: result.error.issues.flatMap(issueFaults) };
}

const TYPE_WORDS: Readonly<Record<string, string>> = {
  number: 'a number',
  string: 'text',
  array: 'a list',
  object: 'an object',
  record: 'an object',
  boolean: 'true or false',
  tuple: 'a list',
  int: 'a whole number',
};

/** What a text of a certain form should have been. */
const FORMAT_WORDS: Readonly<Record<string, string>> = {
  uuid: 'not an identity this program made',
  datetime: 'not a date and time',
  date: 'not a date: year-month-day',
  regex: 'not written as it should be',
};

/** An issue in words: what would be accepted. A message that a schema has of its own goes before. */
const wordIssue: z.core.$ZodErrorMap = (issue) => {
  switch (issue.code) {
    case 'invalid_type': {
      const expected = TYPE_WORDS[issue.expected] ?? issue.expected;
      return issue.input === undefined ? `missing: expected ${expected}` : `expected ${expected}`;
    }
    case 'too_big':
      return `at most ${issue.maximum}${UNIT_WORDS[issue.origin] ?? ''}`;
    case 'too_small':
      if (issue.origin === 'string')
        return Number(issue.minimum) <= 1 ? 'type something here' : `at least ${issue.minimum} letters`;
      return issue.inclusive ? `${issue.minimum}${UNIT_WORDS[issue.origin] ?? ''} or more` : `above ${issue.minimum}`;
    case 'invalid_format':
      return FORMAT_WORDS[issue.format] ?? 'not written as it should be';
    case 'invalid_value':
      return `one of: ${issue.values.map(String).join(', ')}`;
    case 'invalid_union':
      return 'none of the forms this can have';
    case 'not_multiple_of':
      return `a multiple of ${issue.divisor}`;
    default:
      return undefined;
  }
};

const UNIT_WORDS: Readonly<Record<string, string>> = { string: ' letters', array: ' of them', set: ' of them' };

function issueFaults(issue: z.core.$ZodIssue): Fault[] {
  if (issue.code === 'unrecognized_keys')
    return issue.keys.map((key) => ({
      path: pathText([...issue.path, key]),
      message: 'unknown field',
    }));
  if (issue.code === 'invalid_union') {
    // The alternative that was meant is the one with least wrong inside it.
    const inside = issue.errors.filter((each) => depth(each) > 0);
    const nearest = inside.sort((a, b) => a.length - b.length || depth(b) - depth(a))[0];
    if (nearest)
      return nearest.flatMap((each) =>
        issueFaults({ ...each, path: [...issue.path, ...each.path] } as z.core.$ZodIssue),
      );
  }
  return [{ path: pathText(issue.path), message: lowerFirst(issue.message) }];
}

const depth = (issues: readonly { path: readonly PropertyKey[] }[]): number =>
  Math.max(0, ...issues.map((issue) => issue.path.length));

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** The ids that stand more than once, each with the place of its repetition; what is no text is passed over. */
export function duplicateFaults(list: string, ids: readonly unknown[], field = 'id'): Fault[] {
  const seen = new Set<string>();
  return ids.flatMap((id, i) => {
    if (typeof id !== 'string') return [];
    if (!seen.has(id)) {
      seen.add(id);
      return [];
    }
    return [{ path: `${list}[${i}].${field}`, message: `"${id}" stands here twice` }];
  });
}
