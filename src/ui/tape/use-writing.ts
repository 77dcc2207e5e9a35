import { Job } from '@/core/shell/job/job';
import { useState } from 'react';
import type { PointCondition, Reading, Side } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import { conditionsOf } from '@/core/round/observe/conditions';
import { targetOfReading, tyingTargets } from '@/core/walk/wanted';
import { parseLine, type Subjects } from '@/core/shell/shorthand/line';
import type { LineWithNew } from '@/core/shell/shorthand/new-points';
import type { LengthUnit } from '@/core/maths/units/length';
import { lineText } from './corrected-text';
import type { Correction } from './entry-field';
import type { useInstrumentsInHand } from './instruments-in-hand';
import type { TapeEntry } from './outbox';
import { codesOf } from './reading-lines';
import {
  conditionEntry,
  keepEntry,
  newPoints,
  ofPoints,
  readingsEntry,
  strikeEntry,
  substituteEntry,
  type ReadingContext,
  type Struck,
  type Writer,
} from './tape-entries';
import type { TapeLine } from './use-tape';
import type { useTargets } from './use-targets';

export interface Writing {
  readonly writer: Writer;
  readonly context: ReadingContext;
  readonly rows: JobRows;
  readonly put: (entry: TapeEntry) => void;
  readonly subjects: Subjects;
  readonly unit: LengthUnit;
  readonly read: (line: string) => LineWithNew;
  readonly targets: ReturnType<typeof useTargets>;
  readonly judgement: RoundJudgement | undefined;
  readonly instruments: ReturnType<typeof useInstrumentsInHand>;
  readonly lastLine: TapeLine | undefined;
  /** Told the points and the readings of every line taken. */
  readonly onTaken: (codes: readonly string[], readings: readonly { readonly value: number }[]) => void;
}

/** Everything that goes onto the tape of a round, and the line being corrected or looked at. */
export function useWriting({
  writer,
  context,
  rows,
  put,
  subjects,
  unit,
  read,
  targets,
  judgement,
  instruments,
  lastLine,
  onTaken,
}: Writing) {
  const [selected, select] = useState<string>();
  const [correction, correct] = useState<Correction>();
  const [end, chooseEnd] = useState(1);
  const leave = () => {
    correct(undefined);
    select(undefined);
  };
  /** @param struck the line corrected, whose context the new readings keep */
  const takeAs = (
    line: string,
    struck?: Struck & { readonly context: ReadingContext },
    sides: Readonly<Record<string, Side>> = {},
  ) => {
    const parsed = read(line);
    if (!parsed.ok) return;
    const points = newPoints(rows.jobs[0]!.id, parsed.made ?? [], sides);
    const readings = ofPoints(parsed.readings, points);
    put({
      ...readingsEntry(writer, line, readings, struck?.context ?? context, instruments.versionFor, struck),
      ...(points.length > 0 ? { points } : {}),
    });
    const first = readings[0]!;
    const codes = [first.pointId, first.toPointId].flatMap((id) =>
      [...rows.points, ...points].filter((point) => point.id === id).map(({ code }) => code),
    );
    targets.taken({ key: `${first.quantity} ${[...codes].sort().join(' ')}` });
    onTaken(codes, readings);
    leave();
    chooseEnd(1);
  };
  const repeat = (reading: Reading | undefined) => {
    const target = reading && targetOfReading(Job.of(rows), reading);
    if (target) targets.press([{ ...target, again: true }]);
  };
  return {
    selected,
    select,
    correction,
    leaveCorrection: () => correct(undefined),
    end,
    chooseEnd,
    /** Takes what was typed, in the place of the line under correction where there is one. */
    take: (raw: string, reason: string | undefined, sides?: Readonly<Record<string, Side>>) => {
      if (!correction || !reason) return takeAs(raw, undefined, sides);
      const { lineId, readings } = correction.line;
      takeAs(raw, { lineId, reason, context: readings[0]! }, sides);
    },
    takeLine: (raw: string) => takeAs(raw),
    takeInstead: (reading: Reading, raw: string, reason: string) =>
      takeAs(raw, { lineId: reading.lineId, reason, context: reading }),
    strike: (line: TapeLine, reason: string) => {
      put(strikeEntry(writer, { lineId: line.lineId, reason }));
      leave();
    },
    startCorrection: (line: TapeLine, strikeOnly: boolean) => {
      const reading = line.readings[0]!;
      const whole = line.readings.length === 1 && reading.quantity !== 'fixture' && !reading.stationId;
      const said = parseLine(reading.raw, subjects, unit).ok || !whole ? reading.raw : lineText(rows, reading);
      correct({ line, strikeOnly, text: said });
    },
    mark: (code: string, kind: PointCondition['kind']) => {
      const point = rows.points.find((each) => each.code === code);
      if (point) put(conditionEntry(writer, point.id, kind));
    },
    keep: (reading: Reading) => put(keepEntry(writer, reading.id)),
    repeat,
    repeatLast: () => repeat(lastLine?.readings[0]),
    makeSubstitute: (code: string, name: string, newCode: string) => {
      const original = rows.points.find((each) => each.code === code)!;
      // By what stands now: a mark that was taken back marks nothing.
      const marked = conditionsOf(Job.of(rows), { id: writer.roundId }).has(original.id);
      put(substituteEntry(writer, original, { code: newCode, name }, marked));
      targets.press(tyingTargets(Job.of(rows), newCode, code, judgement));
    },
    /** Codes of the points to light on the sheet: those wanted next, or those of the line looked at. */
    lit: (lines: readonly TapeLine[]): readonly string[] => {
      const { current } = targets;
      if (current && !selected) return current.codes;
      const shown = selected ? lines.find((line) => line.lineId === selected) : lastLine;
      return codesOf(rows, shown?.readings);
    },
  };
}
