import { CHOICE_WORD } from '@/core/report/cut-words';
import { HOLDING_WORD } from '@/core/report/fitting-words';
import { STIFFENER_WORD } from '@/core/report/stiffening-words';
import { axleSentences, beforeFinalText } from '@/core/report/verification-words';
import { counted, SUSPENSION_WORD } from '@/core/report/vocabulary/words';
import { PROCESS_WORD, WELD_WORD } from '@/core/report/weld-words';
import type { RecordConformity, RecordMade } from '@/core/shell/record-document';
import type { Formatter } from './formatter';

/** A part of a record that is told in lines. */
export interface ToldPart {
  readonly title: string;
  readonly lines: readonly string[];
}

const CUT_STATE = {
  planned: 'planned',
  out: 'out',
  tacked: 'out, and the new metal tacked',
  in: 'out, and the new metal in',
} as const;

/** How the shell stood, was cut, fitted, welded, stiffened and read last, a part of the record each. */
export function madeParts(made: RecordMade, format: Formatter): ToldPart[] {
  const { setUps = [], cuts = [], fitted = [], welds = [], cracks = [], stiffeners = [], history = [], axles } = made;
  const length = (mm: number) => `${format.thin(mm)} ${format.unit}`;
  return [
    {
      title: 'How it stood',
      lines: setUps.flatMap(({ code, bench, suspension, kilograms, mounts }) => [
        `${code}: ${bench}, ${SUSPENSION_WORD[suspension as 'off'] ?? suspension}${kilograms === null ? '' : `, ${Math.round(kilograms)} kg`}`,
        ...mounts
          .filter(({ on }) => on.length > 0)
          .map(
            ({ at, on, lift }) =>
              `under ${at}: ${on.join(', ')}${lift === undefined ? '' : `, screwed out ${length(lift)}`}`,
          ),
        ...plain(mounts),
      ]),
    },
    {
      title: 'What was cut',
      lines: cuts.map(({ part, choice, joinedAt, state, lines }) =>
        [
          part,
          CUT_STATE[state],
          ...(choice ? [CHOICE_WORD[choice]] : []),
          ...(joinedAt ? [`joined at ${joinedAt}`] : []),
          ...lines.map(
            ({ label, edge, distance, readBack }) =>
              `line ${label} ${length(distance)} from ${edge}${readBack === null ? '' : `, read back ${length(readBack)}`}`,
          ),
        ].join('; '),
      ),
    },
    {
      title: 'How panels are held',
      lines: fitted.map(({ code, name, rung }) => `${code} ${name}: ${HOLDING_WORD[rung]}`),
    },
    {
      title: 'What was welded',
      lines: welds.map(({ panel, beside, kind, process, long, sheets, places, laid, shrank }) =>
        [
          `${panel}, ${beside}: ${WELD_WORD[kind]}${process ? `, ${PROCESS_WORD[process]}` : ''}, ${length(long)}`,
          ...(sheets.length > 0 ? [`sheets ${sheets.map((mm) => format.thin(mm)).join(' and ')} ${format.unit}`] : []),
          ...(places > 0 ? [`${laid} of ${counted(places, 'place')} laid`] : []),
          ...shrank.map(({ runs, by }) => `shrank ${length(by)} ${runs}`),
        ].join('; '),
      ),
    },
    {
      title: 'Cracks',
      lines: cracks.map(
        ({ code, place, long, done, of }) =>
          `${code} ${place}, ${length(long)}: ${done === of ? 'mended' : `${done} of ${counted(of, 'step')} done`}`,
      ),
    },
    {
      title: 'Put on to stiffen',
      lines: stiffeners.map(
        ({ code, kind, on, kilograms, isOn }) =>
          `${code}: ${STIFFENER_WORD[kind]} on ${on}, ${kilograms.toFixed(2)} kg${isOn ? '' : '; planned'}`,
      ),
    },
    {
      title: `Every dimension through the rounds, ${format.unit}`,
      lines: history.map(
        ({ code, name, reference, values }) =>
          `${code} ${name}${reference === undefined ? '' : `, right ${format.length(reference)}`}: ${values
            .map(
              ({ round, value, plusMinus }) => `round ${round} ${format.length(value)} ${format.plusMinus(plusMinus)}`,
            )
            .join('; ')}`,
      ),
    },
    { title: 'Wheelbases and axles, read last', lines: axles ? axleLines(axles, format) : [] },
  ];
}

/** Places of which nobody wrote down what stands under them. */
function plain(mounts: NonNullable<RecordMade['setUps']>[number]['mounts']): string[] {
  const names = mounts.flatMap(({ at, on }) => (on.length === 0 ? [at] : []));
  return names.length > 0 ? [`held at ${names.join(', ')}`] : [];
}

const axleLines = (
  { round, leftBase, rightBase, plusMinus, stand }: NonNullable<RecordMade['axles']>,
  format: Formatter,
): string[] => [
  `${round}: left ${format.length(leftBase)}, right ${format.length(rightBase)} ${format.unit}, ${format.plusMinus(plusMinus)}`,
  ...axleSentences(stand, format),
];

const VERDICT: Readonly<Record<RecordConformity['verdict'], string>> = {
  conforms: 'The shell conforms to its references: every figure that was judged is inside.',
  except: 'The shell conforms to its references, but for what was accepted with a reason.',
  undecided: 'Whether the shell conforms is not decided: figures reach across their limits.',
  doesNot: 'The shell does not conform to its references.',
  notGiven: 'No verdict is given on the whole shell.',
};

/** The statement of conformity, in lines. */
export interface ConformityPart extends ToldPart {
  /** What was accepted, each with the reason as it was typed. */
  readonly accepted: readonly { readonly what: string; readonly reason: string }[];
}

export function conformityPart(conformity: RecordConformity, format: Formatter): ConformityPart {
  const { round, verdict, judged, outside, undecided, exceptions, still } = conformity;
  return {
    title: 'Statement of conformity',
    lines: [
      `${VERDICT[verdict]} Round ${round}: ${counted(judged, 'figure')} judged, ${outside} outside, ${undecided} undecided, ${exceptions.length} accepted.`,
      ...still.map(beforeFinalText),
    ].map(format.name),
    accepted: exceptions.map(({ code, deviation, reason, author, at }) => ({
      what: `Accepted by ${author}, ${format.day(at)}: ${code}, ${format.difference(deviation)} ${format.unit}.`,
      reason: format.name(reason),
    })),
  };
}
