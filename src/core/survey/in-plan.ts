import { solveDetermined } from './determined';
import { covarianceOf, sumOfSquares, type NetSolution } from './solve';
import { pointsOf, type Survey, type SurveyReading } from './survey';

/** A point that is known in plan while its height is not, in the axes of the round, mm. */
export interface PlanPoint {
  readonly id: string;
  readonly at: readonly [number, number];
  /** One standard deviation in the worse direction of the plan, the unknown heights in it. */
  readonly sd: number;
  /** Nothing was read of its height. */
  readonly heightMissing: boolean;
}

/** How far a height nobody read may be from where it is taken to be, one standard deviation, mm. */
const UNREAD_HEIGHT = 120;
/** A point less sure than this is not called located in plan, mm. */
const LOOSE_IN_PLAN = 10;
/** Heights are begun so far off a plane, mm: in one, no length says anything of them. */
const OFF_THE_PLANE = 90;
/** So unsure a height may come out, mm. */
const LOOSE_HEIGHT = 4 * UNREAD_HEIGHT;
const TRIES = 6;
/** A larger net is begun from fewer sides: what is many lengths hardly has a second best. */
const LARGE = 20;
const FEWEST = 3;

/**
 * Locates in plan what the lengths alone locate: every height that nobody read is given a wide spread about where it is
 * taken to be, and the net solved with that. What the lengths do say of heights, they say twice, upward and downward
 * alike; so the solve is begun from several sides of the plane and the best is kept. Heights that come out are not told.
 *
 * @param survey what is not located yet; points already located are held fixed in it
 */
export function locateInPlan(survey: Survey): PlanPoint[] {
  const spoken = new Set(survey.readings.flatMap(pointsOf));
  const points = survey.points.filter(({ id, hold }) => spoken.has(id) || hold !== undefined);
  if (points.length < FEWEST) return [];
  const read = new Set(survey.readings.flatMap(heightOf));
  const unread = points.filter(({ id, hold }) => hold === undefined && !read.has(id));
  const wide = unread.map(({ id, start }): SurveyReading => ({
    ...{ id: `height of ${id}`, kind: 'height', point: id },
    value: start[2],
    sigma: UNREAD_HEIGHT,
  }));
  const widened = { points, readings: [...survey.readings.filter(isAbout(points)), ...wide] };
  return best(widened, new Set(unread.map(({ id }) => id)));
}

const heightOf = (reading: SurveyReading): string[] =>
  reading.kind === 'height' || (reading.kind === 'position' && !reading.body) ? [reading.point] : [];

const isAbout = (points: Survey['points']) => {
  const known = new Set(points.map(({ id }) => id));
  return (reading: SurveyReading) => pointsOf(reading).every((id) => known.has(id));
};

/** The largest part that hangs together, as the best of several starts has it. */
function best(survey: Survey, unread: ReadonlySet<string>): PlanPoint[] {
  const tries = survey.points.length > LARGE ? 1 : TRIES;
  const solutions = Array.from({ length: tries }, (_, k) => offThePlane(survey, unread, k)).flatMap(
    (from) => solveDetermined(from, undefined, LOOSE_HEIGHT).pieces[0] ?? [],
  );
  const size = ({ survey: { points } }: NetSolution) => points.length;
  const most = Math.max(0, ...solutions.map(size));
  const [first, ...others] = solutions.filter((each) => size(each) === most);
  return first
    ? planPoints(
        others.reduce((a, b) => (sumOfSquares(b) < sumOfSquares(a) ? b : a), first),
        unread,
      )
    : [];
}

/** The unread heights up and down by turns, each try its own way. */
const offThePlane = ({ points, readings }: Survey, unread: ReadonlySet<string>, k: number): Survey => ({
  readings,
  points: points.map((point, i) => {
    const [x, y, z] = point.start;
    return unread.has(point.id)
      ? { ...point, start: [x, y, z + OFF_THE_PLANE * Math.sin(2.4 * i * (k + 1) + 1.3 * k)] }
      : point;
  }),
});

function planPoints(solution: NetSolution, unread: ReadonlySet<string>): PlanPoint[] {
  const { survey, x, equations } = solution;
  const covariance = covarianceOf(solution);
  return survey.points.flatMap(({ id, hold }, i): PlanPoint[] => {
    const column = equations.column[i]!;
    if (hold !== undefined || column < 0) return [];
    const [xx, xy, yy] = [
      covariance.get(column, column),
      covariance.get(column, column + 1),
      covariance.get(column + 1, column + 1),
    ];
    // The larger root of the 2×2 block: the variance in the worse direction.
    const sd = Math.sqrt((xx + yy) / 2 + Math.hypot((xx - yy) / 2, xy));
    return sd > LOOSE_IN_PLAN ? [] : [{ id, at: [x[3 * i]!, x[3 * i + 1]!], sd, heightMissing: unread.has(id) }];
  });
}
