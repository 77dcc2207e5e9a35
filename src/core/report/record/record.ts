import { dimensionsOf } from '../../days/day';
import type { SheetFigure } from '../drawing/points';
import type { Vector } from '../../maths/geometry/vector';
import type { CodedBrace, CodedPull } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';
import { courseOf } from '../../findings/strokes';
import { braceGeometry, braceState, pullDistance, pullProgress, pullState } from '../../findings/brace-pull';
import { compareRounds } from '../../findings/change';
import { doubtsOf, entryOf, morningsOf, partsOf, stepsDone, takenBackOf } from './told';
import { openOf } from './open';
import { judgeRound } from '../../round/judge/judge-round';
import type { RoundJudgement } from '../../round/judge/judgement';
import { referencePosition } from '../../shell/references/chosen';
import { stationsAsLastRead } from '../../round/judge/last-read';
import { COVERAGE } from '../../maths/statistics/verdict';
import { acceptedSubjects } from './accepted';
import { foundOf } from './found';
import { axlesTold, conformityOf, madeOf } from './made';
import type {
  RecordBrace,
  RecordChanges,
  RecordDocument,
  RecordFinal,
  RecordPull,
  RecordRound,
} from '../../shell/record-document';

/** Writes the record of a job as it stands. `madeAt` is the time printed on it. */
export function buildRecord(job: Job, madeAt: string): RecordDocument {
  const { name, shell, identityNumber, owner, shop, bench, driverSide, startedAt } = job.row;
  const judgements = job.ownRounds.map((round) => judgeRound(job, round));
  const withReadings = judgements.filter((each) => job.standingReadings(each.round).length > 0);
  const last = withReadings.at(-1);
  const beforeLast = withReadings.at(-2);
  const codes = codesOf(job);
  const found = withReadings[0] && foundOf(job, withReadings[0]);
  return {
    format: 'vinkel.record/1',
    madeAt,
    job: { name, shell, identityNumber, owner, shop, bench, driverSide, startedAt },
    references: job.rows.references
      .filter(({ inUse }) => inUse)
      .toSorted((a, b) => a.rank - b.rank)
      .map(({ kind, name: title, source, trust, edition }) => ({ kind, name: title, source, trust, edition })),
    rounds: judgements.map((judgement) => roundOf(job, judgement, codes)),
    ...(found ? { found } : {}),
    ...(last ? { final: finalOf(job, withReadings, codes) } : {}),
    ...(last && beforeLast ? { changes: changesOf(job, beforeLast, last) } : {}),
    braces: job.braces.map((brace) => braceOf(job, brace, judgements, codes)),
    pulls: job.pulls.map((pull) => pullOf(job, pull, judgements, codes)),
    log: job.logEntries.map((entry) => entryOf(job, entry, codes)),
    doubts: withReadings.flatMap((judgement) => doubtsOf(job, judgement)),
    steps: stepsDone(job),
    takenBack: takenBackOf(job),
    parts: partsOf(job),
    mornings: morningsOf(job),
    open: openOf(job, withReadings),
    ...madeOf(job),
    ...axlesTold(job),
    ...(last ? { conformity: conformityOf(job, withReadings) } : {}),
    photographs: job.rows.photographs.map(({ id, name: title, author, at, width, height }) => ({
      id,
      name: title,
      author,
      at,
      width,
      height,
    })),
    lines: linesOf(job, last ?? judgements.at(-1)),
  };
}

const codesOf = (job: Job): ReadonlyMap<string, string> =>
  new Map([...job.rows.points, ...job.rows.dimensions].map((each) => [each.id, each.code]));

type Codes = ReadonlyMap<string, string>;

function roundOf(job: Job, { round, alignment }: RoundJudgement, codes: Codes): RecordRound {
  const own = job.rows.readings.filter((reading) => reading.roundId === round.id);
  const ids = new Set(own.map((reading) => reading.id));
  const versions = new Set([round.instrumentVersionId, ...own.map((reading) => reading.instrumentVersionId)]);
  const support = job.supportOf(round);
  return {
    number: round.number,
    name: round.name,
    state: job.stateOf(round).kind,
    support: support.kind,
    suspension: support.suspension,
    supportNote: support.note,
    instruments: job.rows.instrumentVersions
      .filter((version) => versions.has(version.id))
      .map((version) => job.instrument(version).name),
    temperature: round.temperature,
    author: round.author,
    startedAt: round.startedAt,
    readings: own.length,
    struck: job.rows.readingStrikes.filter((strike) => ids.has(strike.readingId)).length,
    control: alignment.ok ? alignment.controlIds.map((id) => codes.get(id)!) : [],
    ...(alignment.ok ? { rms: alignment.rms } : {}),
  };
}

function finalOf(job: Job, judgements: readonly RoundJudgement[], codes: Codes): RecordFinal {
  const judgement = judgements.at(-1)!;
  const accepted = acceptedSubjects(job, judgement.round);
  return {
    round: judgement.round.number,
    points: judgement.points.flatMap(({ point, control, judged }) => {
      const row = judgement.references.points.get(point.id)?.row;
      if (!judged || !row) return [];
      const plusMinus: Vector = [judged.axes.x.plusMinus, judged.axes.y.plusMinus, judged.axes.z.plusMinus];
      return [
        {
          code: point.code,
          name: point.name,
          position: [row.x, row.y, row.z] as Vector,
          deviation: judged.deviation.by,
          plusMinus,
          limit: judged.limit,
          verdict: judged.verdict,
          control,
        },
      ];
    }),
    dimensions: judgement.dimensions.flatMap(({ dimension, measured, judged }) =>
      measured && judged
        ? [
            {
              code: dimension.code,
              name: dimension.name,
              measure: dimension.measure,
              ends: `${codes.get(dimension.fromPointId)} – ${codes.get(dimension.toPointId)}`,
              reference: judged.reference,
              measured: measured.value,
              deviation: judged.deviation,
              plusMinus: judged.plusMinus,
              limit: judged.limit,
              verdict: judged.verdict,
              accepted: accepted.has(dimension.id),
            },
          ]
        : [],
    ),
    gaps: stationsAsLastRead(job, judgements).flatMap(({ seam, stations }) =>
      stations.flatMap(({ station, quantity, measured, target, judged, round }) =>
        measured && target && judged
          ? [
              {
                round,
                seam: seam.code,
                name: seam.name,
                side: seam.side,
                station: station.number,
                quantity,
                measured: measured.value,
                target: target.value,
                plusMinus: judged.plusMinus,
                verdict: judged.verdict,
              },
            ]
          : [],
      ),
    ),
  };
}

function changesOf(job: Job, earlier: RoundJudgement, later: RoundJudgement): RecordChanges {
  const change = compareRounds(job, earlier, later);
  return {
    earlier: earlier.round.number,
    later: later.round.number,
    cautions: [...change.cautions],
    rows: change.dimensions.map(({ dimension, change: by, sd, verdict }) => ({
      code: dimension.code,
      name: dimension.name,
      change: by,
      plusMinus: COVERAGE * sd,
      verdict,
    })),
  };
}

const ofRound = (judgements: readonly RoundJudgement[], roundId: string | null) =>
  judgements.find((each) => each.round.id === roundId);

function braceOf(job: Job, brace: CodedBrace, judgements: readonly RoundJudgement[], codes: Codes): RecordBrace {
  const judgement = ofRound(judgements, brace.roundId);
  const references = (judgement ?? judgements[0])?.references;
  const length = references && braceGeometry(brace, judgement, references)?.length;
  return {
    code: brace.code,
    ends: `${codes.get(brace.fromPointId)} – ${codes.get(brace.toPointId)}`,
    kind: brace.kind,
    section: brace.section,
    ...(length === undefined ? {} : { length }),
    state: braceState(job, brace),
    holds: dimensionsOf(job, brace).map((dimension) => dimension.code),
  };
}

function pullOf(job: Job, pull: CodedPull, judgements: readonly RoundJudgement[], codes: Codes): RecordPull {
  const judgement = ofRound(judgements, pull.roundId);
  return {
    code: pull.code,
    point: codes.get(pull.pointId)!,
    aim: [pull.aimX, pull.aimY, pull.aimZ],
    distance: pullDistance(pull),
    heldAt: pull.heldAt,
    state: pullState(job, pull),
    springBacks: pullProgress(job, pull, judgement).flatMap((progress) =>
      progress.cycles.flatMap((cycle) => (cycle.springBack === undefined ? [] : [cycle.springBack])),
    ),
    ...(pull.againstPointId === null ? {} : { against: codes.get(pull.againstPointId)! }),
    ...(pull.attach === null ? {} : { attach: pull.attach }),
    strokes: courseOf(job, pull, judgement).strokes.map(({ loaded, rested }, i) => {
      const mark = job.rows.strokes.find(({ pullId, ordinal }) => pullId === pull.id && ordinal === i)?.target;
      return { loaded, rested, ...(mark === undefined ? {} : { mark }) };
    }),
    by: [...new Set(job.pullReadings(pull).map(({ author }) => author))],
  };
}

function linesOf(job: Job, judgement: RoundJudgement | undefined): [Vector, Vector][] {
  if (!judgement) return [];
  return job.rows.memberLines.flatMap((line) => {
    const [from, to] = [line.fromPointId, line.toPointId].map((id) => referencePosition(judgement.references, id));
    return from && to ? [[from, to]] : [];
  });
}

/** What the sheet draws of a record: its judged points and its outline. */
export function figureOfRecord(record: RecordDocument): SheetFigure {
  return {
    points: (record.final?.points ?? []).map((point) => ({
      id: point.code,
      code: point.code,
      name: point.name,
      position: point.position,
      movement: point.deviation,
      verdict: point.verdict,
      control: point.control,
    })),
    lines: record.lines,
  };
}
