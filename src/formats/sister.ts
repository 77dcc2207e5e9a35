import { position, type Position, type Vector } from '@/core/maths/geometry/vector';
import { solveDetermined } from '@/core/survey/determined';
import { looseSentence } from '@/core/survey/loose';
import { isPair, type SurveyReading } from '@/core/survey/survey';
import { length } from '@/core/shell/job/entities';
import type { LengthUnit } from '@/core/maths/units/length';
import { readChartCsv } from './chart/csv';
import { readChartJson } from './chart/document';
import { faultText, parseJson } from './faults';
import { parseSurvey, surveyOf } from './survey';

/** One reading of another shell, by that shell's own point names. */
export interface SisterReading {
  readonly quantity: 'length' | 'width' | 'height' | 'distance';
  readonly codes: readonly [string] | readonly [string, string];
  readonly value: number;
  readonly measure: 'tip' | 'level' | null;
  readonly pointers: readonly [number, number] | null;
}

export type SisterFile =
  | {
      readonly ok: true;
      /** Where its points lie, in its own axes, mm. */
      readonly positions: ReadonlyMap<string, Position<'theirs'>>;
      readonly readings: readonly SisterReading[];
      /** What was left out, in words. */
      readonly leftOut: string;
    }
  | { readonly ok: false; readonly faults: readonly string[] };

/**
 * Reads a round of another shell: a survey of readings (`vinkel.survey/1`), which is adjusted, or a list of
 * points with coordinates, CSV or chart JSON.
 */
export function readSister(text: string, name: string, unit: LengthUnit): SisterFile {
  if (!/\.json$/i.test(name))
    return fromPoints(readChartCsv([{ name, text }], { unit, driverSide: 'left' }, new Set()));
  const json = parseJson(text);
  if (!json.ok) return { ok: false, faults: json.faults.map(faultText) };
  const isSurvey = (json.value as { format?: unknown } | null)?.format === 'vinkel.survey/1';
  return isSurvey ? fromSurvey(json.value) : fromPoints(readChartJson(text, new Set()));
}

function fromPoints({ draft, rows, faults }: ReturnType<typeof readChartJson>): SisterFile {
  const all = [
    ...faults,
    ...rows.flatMap((row) => row.faults.map((fault) => `${row.file} line ${row.line}: ${fault}`)),
  ];
  if (all.length > 0) return { ok: false, faults: all };
  if (draft.points.length === 0) return { ok: false, faults: ['the file has no points with coordinates'] };
  return {
    ok: true,
    positions: new Map(draft.points.map(({ code, x, y, z }) => [code, position<'theirs'>([x, y, z])] as const)),
    readings: draft.points.flatMap(({ code, x, y, z }) => coordinates(code, [x, y, z])),
    leftOut: '',
  };
}

const coordinates = (code: string, at: Vector): SisterReading[] =>
  (['length', 'width', 'height'] as const).map((quantity, i) => ({
    quantity,
    codes: [code],
    value: at[i]!,
    measure: null,
    pointers: null,
  }));

function fromSurvey(value: unknown): SisterFile {
  const document = parseSurvey(value);
  if (!document.ok) return { ok: false, faults: document.faults.map(faultText) };
  const far = surveyOf(document.value).readings.flatMap((reading) =>
    sisterReadings(reading).some(({ value: read, pointers }) => ![read, ...(pointers ?? [])].every(isLength))
      ? [`${reading.id}: no shell reaches further than 100 m`]
      : [],
  );
  if (far.length > 0) return { ok: false, faults: far };
  const determined = solveDetermined(surveyOf(document.value));
  const [solution] = determined.pieces;
  if (!solution)
    return { ok: false, faults: [`nothing of this survey is determined: ${looseSentence(determined.loose)}`] };
  const { readings } = surveyOf(document.value);
  const rises = readings.filter(({ kind }) => kind === 'rise').length;
  const loose = determined.loose.map(({ id }) => id);
  return {
    ok: true,
    positions: new Map(
      solution.survey.points.map(
        ({ id }, i) => [id, position<'theirs'>(Array.from(solution.x.subarray(3 * i, 3 * i + 3)))] as const,
      ),
    ),
    readings: readings.flatMap(sisterReadings),
    leftOut: [
      rises > 0 ? `${rises} rises, which a round does not know` : '',
      loose.length > 0 ? `not determined: ${loose.join(', ')}` : '',
    ]
      .filter(Boolean)
      .join('; '),
  };
}

const isLength = (mm: number): boolean => length.safeParse(mm).success;

function sisterReadings(reading: SurveyReading): SisterReading[] {
  if (reading.kind === 'position') return coordinates(reading.point, reading.value);
  if (reading.kind === 'rise') return [];
  if (isPair(reading)) {
    const { from, to, value, pointers, kind } = reading;
    return [
      {
        quantity: 'distance',
        codes: [from, to],
        value,
        measure: kind === 'plan' ? 'level' : 'tip',
        pointers: pointers ?? null,
      },
    ];
  }
  const quantity = { station: 'length', offset: 'width', height: 'height' } as const;
  return [
    { quantity: quantity[reading.kind], codes: [reading.point], value: reading.value, measure: null, pointers: null },
  ];
}
