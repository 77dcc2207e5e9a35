import { heldPanels } from '../../plan/panels/holding';
import { stageState } from '../../plan/cut/stages';
import { isOn } from '../../plan/cut/cut-model';
import { stiffenerMass } from '../../structure/stiffened';
import { CRACK_STEPS } from '../../plan/stiffening/crack';
import { lengthsThroughTime } from '../../findings/through-time';
import { COVERAGE } from '../../maths/statistics/verdict';
import type { RoundJudgement } from '../../round/judge/judgement';
import { benchAt } from '../../shell/benches';
import type { Job } from '../../shell/job/job';
import type { RecordConformity, RecordMade } from '../../shell/record-document';
import { beforeFinal, readAxles } from '../before-final';
import { crackStepsDone } from '../pages/stiffening';
import { plannedJoint } from '../pages/welding';
import { acceptedSubjects } from './accepted';
import { saidOf } from './signed';

// What a record tells of how the shell stood, was cut, fitted and welded, and whether it conforms.

/** How it was set up, cut, fitted, welded, stiffened; each part left away where there is none of it. */
export function madeOf(job: Job): RecordMade {
  const parts = {
    setUps: setUpsOf(job),
    cuts: cutsOf(job),
    fitted: heldPanels(job).map(({ panel, rung }) => ({ code: panel.code, name: panel.name, rung })),
    welds: weldsOf(job),
    cracks: job.cracks.map((crack) => ({
      ...{ code: crack.code, place: crack.place, long: crack.long },
      ...{ done: crackStepsDone(job, crack).length, of: CRACK_STEPS.length },
    })),
    stiffeners: job.stiffeners.map((each) => ({
      ...{ code: each.code, kind: each.kind, on: each.part, kilograms: stiffenerMass(each) },
      isOn: isOn(job, each),
    })),
    history: historyOf(job),
  };
  return Object.fromEntries(Object.entries(parts).filter(([, list]) => list.length > 0));
}

function setUpsOf(job: Job): NonNullable<RecordMade['setUps']> {
  return job.setUps.map((setUp) => {
    const bench = benchAt(job.rows, setUp.benchVersionId);
    const piece = (id: string | null) => bench?.items.find((item) => item.id === id)?.code ?? '';
    return {
      ...{ code: job.item(setUp.id).code, bench: bench?.bench.name ?? '', suspension: setUp.suspension },
      kilograms: setUp.kilograms,
      mounts: job.rows.mounts
        .filter(({ setUpId }) => setUpId === setUp.id)
        .map(({ id, pointId, name, headId, lift }) => ({
          at: pointId === null ? name : job.code(pointId),
          on: [
            ...job.rows.mountPieces
              .filter(({ mountId }) => mountId === id)
              .map(({ shelfItemId }) => piece(shelfItemId)),
            piece(headId),
          ].filter((each) => each !== ''),
          ...(lift === null ? {} : { lift }),
        })),
    };
  });
}

const cutsOf = (job: Job): NonNullable<RecordMade['cuts']> =>
  job.panels.map(({ id, part, choice, joinedAt, stageId }) => ({
    ...{ part, choice, joinedAt, state: stageId === null ? ('planned' as const) : stageState(job, stageId) },
    lines: job.rows.cutLines
      .filter(({ panelId }) => panelId === id)
      .map(({ label, edge, distance, readBack }) => ({ label, edge, distance, readBack })),
  }));

const weldsOf = (job: Job): NonNullable<RecordMade['welds']> =>
  job.rows.joints.flatMap((joint) => {
    const { plan } = plannedJoint(job, joint);
    if (!plan) return [];
    const { seam, layout, done, marks } = plan;
    return [
      {
        ...{ panel: job.item(joint.panelId).name, beside: joint.beside, kind: seam.kind, process: seam.process },
        ...{ long: seam.long, sheets: [joint.thicknessA, joint.thicknessB].flatMap((each) => each ?? []) },
        ...{ places: layout.places.length, laid: done.length },
        shrank: marks.map(({ runs, before, cold }) => ({ runs, by: before - cold })),
      },
    ];
  });

/** Every dimension that more than one round measured, the telling ones first. */
function historyOf(job: Job): NonNullable<RecordMade['history']> {
  const { rounds, series } = lengthsThroughTime(job);
  const number = new Map(rounds.map((round) => [round.id, round.number]));
  return series
    .filter(({ values }) => values.length > 1)
    .map(({ dimension: { code, name }, reference, values }) => ({
      ...{ code, name },
      ...(reference === undefined ? {} : { reference }),
      values: values.map(({ roundId, value, sd }) => ({
        round: number.get(roundId)!,
        ...{ value, plusMinus: COVERAGE * sd },
      })),
    }));
}

/** How the axles stand, as they were read last. */
export function axlesTold(job: Job): { readonly axles?: RecordMade['axles'] } {
  const read = readAxles(job);
  if (!read) return {};
  const { leftBase, rightBase, sd } = read.reading;
  return { axles: { round: read.round, leftBase, rightBase, plusMinus: COVERAGE * sd, stand: read.axles } };
}

/**
 * Whether the shell conforms to its references: every judged figure inside or accepted with a reason. It is not said while
 * something is in the way of a verdict for good.
 */
export function conformityOf(job: Job, judgements: readonly RoundJudgement[]): RecordConformity {
  const { round, points, dimensions } = judgements.at(-1)!;
  const accepted = acceptedSubjects(job, round);
  const figures = [
    ...dimensions.map(({ dimension: { id, code }, judged }) => ({ id, code, judged, by: judged?.deviation })),
    ...points.map(({ point: { id, code }, judged }) => ({ id, code, judged, by: undefined })),
  ].filter(({ judged }) => judged);
  const count = (verdict: string) =>
    figures.filter(({ id, judged }) => judged!.verdict === verdict && !accepted.has(id)).length;
  const [outside, undecided] = [count('outside'), count('undecided')];
  const exceptions = figures
    .filter(({ id }) => accepted.has(id))
    .map(({ id, code, by }) => {
      const subject = job.rows.logSubjects.findLast(
        ({ pointId, dimensionId, acceptedDeviation, entryId }) =>
          (dimensionId ?? pointId) === id &&
          acceptedDeviation !== null &&
          job.logEntries.some((entry) => entry.id === entryId && entry.roundId === round.id),
      );
      const entry = job.logEntries.find((each) => each.id === subject?.entryId);
      return {
        ...{ code, deviation: by ?? subject?.acceptedDeviation ?? 0 },
        ...{
          reason: entry?.reason || entry?.text || '',
          author: entry?.author ?? '',
          at: entry?.at ?? round.startedAt,
        },
      };
    });
  const still = beforeFinal(
    job,
    round,
    judgements.map((each) => each.round),
  );
  return {
    ...{ round: round.number, judged: figures.length, outside, undecided, exceptions },
    verdict: still.length > 0 ? 'notGiven' : saidOf({ outside, undecided, exceptions }),
    still: [...still],
  };
}
