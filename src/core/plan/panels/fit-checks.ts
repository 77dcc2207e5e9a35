import { judge, type Judgement } from '../../maths/statistics/verdict';
import type { CalledPanel, FitCheck, FitReading } from '../../shell/job/entities';
import type { Job } from '../../shell/job/job';

/** A check with what it was last read as, and what that comes to. */
export interface JudgedCheck {
  readonly check: FitCheck;
  readonly panel?: string;
  readonly last?: FitReading;
  /** What is read less what is wanted, against how far it may be under and over. */
  readonly judged?: Judgement & { readonly deviation: number };
}

/** What is read besides gap and flush. Where more may be missing than over, the middle of the two is what is held against. */
export function judgedChecks(job: Job): JudgedCheck[] {
  return job.rows.fitChecks.map((check) => {
    const last = job.rows.fitReadings.findLast(({ checkId }) => checkId === check.id);
    const panel = job.hungPanels.find(({ id }) => id === check.hungId)?.code;
    const of = { check, ...(panel ? { panel } : {}) };
    if (!last) return of;
    const { wanted, under, over } = check;
    const [deviation, limit] = [last.value - wanted, Math.max((under + over) / 2, LEAST)];
    return { ...of, last, judged: { ...judge(deviation - (over - under) / 2, last.sd, limit), deviation } };
  });
}

/** A limit of nothing is one that no reading keeps: it is taken as this, mm. */
const LEAST = 0.01;

type Draft = Omit<FitCheck, 'id' | 'jobId'>;

/** What the whole is looked at for once its panels hang: of each kind of panel what it must do, then lamps, bumper and screen. */
export function usualChecks(panels: readonly Pick<CalledPanel, 'id' | 'kind'>[]): readonly Draft[] {
  const of = (
    hungId: string | null,
    kind: Draft['kind'],
    place: string,
    [wanted, under, over]: readonly [number, number, number],
  ): Draft => ({ hungId, kind, place, wanted, under, over });
  const own = panels.flatMap(({ id, kind }): Draft[] => {
    if (kind === 'door')
      return [
        of(id, 'latch', 'striker off the middle of its latch', [0, 1.5, 1.5]),
        of(id, 'jointStep', 'rear edge low, never proud', [0, 0.5, 0]),
        of(id, 'swage', 'step of the swage line', [0, 1, 1]),
      ];
    if (kind === 'bonnet' || kind === 'bootLid' || kind === 'tailgate')
      return [
        of(id, 'latch', 'striker off the middle of its latch', [0, 1.5, 1.5]),
        of(id, 'lidSeal', 'room for its seal', [10, 1, 2]),
      ];
    return [of(id, 'offset', 'off a straight edge along its swage', [0, 1, 1])];
  });
  return [
    ...own,
    of(null, 'lamp', 'left lamp, off its bowl', [0, 1, 1]),
    of(null, 'lamp', 'right lamp, off its bowl', [0, 1, 1]),
    of(null, 'bumper', 'left bracket, off its hole', [0, 2, 2]),
    of(null, 'bumper', 'right bracket, off its hole', [0, 2, 2]),
  ];
}

/** A screen opening: its width at several heights and its diagonals, which are held against each other where nothing says more. */
export const SCREEN_PLACES: readonly (readonly [FitCheck['kind'], string])[] = [
  ['screenWidth', 'screen opening, along the bottom'],
  ['screenWidth', 'screen opening, half way up'],
  ['screenWidth', 'screen opening, along the top'],
  ['screenDiagonal', 'screen opening, left bottom to right top'],
  ['screenDiagonal', 'screen opening, right bottom to left top'],
];

/** What a reading is good to, one standard deviation: by a feeler, a straight edge, a rule; of an angle degrees. */
export const CHECK_SD: Readonly<Record<FitCheck['kind'], number>> = {
  ...{ jointStep: 0.05, swage: 0.2, offset: 0.2, profile: 0.3, angle: 0.2 },
  ...{ latch: 0.3, lamp: 0.3, bumper: 0.5, lidSeal: 0.3, screenWidth: 0.5, screenDiagonal: 0.5 },
};
