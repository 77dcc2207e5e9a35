import { END_WORD } from '@/core/report/cut-words';
import { BRACE_WORD } from '@/core/report/vocabulary/words';
import type { SawnBrace } from '@/core/plan/cut/saw-list';
import { writeCsv } from '../csv';

const tenth = (mm: number | undefined): number | null => (mm === undefined ? null : Math.round(mm * 10) / 10);

/** The braces for the saw, a line each, in the order they are fitted; millimetres, degrees and kilograms. */
export const braceListCsv = (braces: readonly SawnBrace[]): string =>
  writeCsv(
    braces.map((sawn, i) => ({
      order: i + 1,
      brace: sawn.brace.code,
      from: sawn.from,
      'from place': sawn.fromName,
      to: sawn.to,
      'to place': sawn.toName,
      'cut to mm': tenth(sawn.sawn),
      'between points mm': tenth(sawn.between),
      'rise deg': tenth(sawn.geometry?.rise),
      'in plan deg': tenth(sawn.geometry?.heading),
      tube: sawn.brace.section,
      kind: BRACE_WORD[sawn.brace.kind],
      'from end': END_WORD[sawn.brace.fromEnd],
      'to end': END_WORD[sawn.brace.toEnd],
      'thread mm a turn': sawn.brace.threadPitch,
      kg: tenth(sawn.kilograms),
      'goes in before': sawn.goesIn,
      'comes out before': sawn.comesOut,
      holds: sawn.holds.map(({ code }) => code).join(' '),
      state: sawn.state,
    })),
  );
