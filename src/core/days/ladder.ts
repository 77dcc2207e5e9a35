import { RUNGS, type Rung, type Step, type StepEvent } from '../shell/job/entities';
import type { Job } from '../shell/job/job';

export type StepState = 'open' | 'begun' | 'curing' | 'missing' | 'done' | 'dropped';

export interface LadderStep {
  readonly step: Step;
  readonly state: StepState;
  /** The event the state comes from. */
  readonly event?: StepEvent;
}

export interface LadderRung {
  readonly rung: Rung;
  readonly steps: readonly LadderStep[];
  readonly state: 'done' | 'here' | 'ahead';
}

export interface Ladder {
  readonly rungs: readonly LadderRung[];
  /** The rung the job stands on: the first with a step that is not finished; none when all are. */
  readonly here?: Rung;
  /** The next step that can be taken up: not curing, not waiting for something missing. */
  readonly next?: LadderStep;
}

const STATE_AFTER: Readonly<Record<StepEvent['kind'], StepState>> = {
  begun: 'begun',
  curing: 'curing',
  missing: 'missing',
  done: 'done',
  dropped: 'dropped',
  reopened: 'open',
};

export const isFinished = (step: LadderStep): boolean => step.state === 'done' || step.state === 'dropped';

/** The ladder of a job as its steps and their events make it. */
export function ladderOf(job: Job): Ladder {
  const last = new Map(job.stepEvents.map((event) => [event.stepId, event]));
  const all = job.rows.steps.map((step): LadderStep => {
    const event = last.get(step.id);
    return { step, state: event ? STATE_AFTER[event.kind] : 'open', ...(event ? { event } : {}) };
  });
  const grouped = RUNGS.map((rung) => ({
    rung,
    steps: all.filter((each) => each.step.rung === rung),
  }));
  const here = grouped.findIndex(({ steps }) => steps.some((step) => !isFinished(step)));
  const next = grouped.flatMap(({ steps }) => steps).find((step) => step.state === 'begun' || step.state === 'open');
  return {
    rungs: grouped.map(({ rung, steps }, i) => ({
      rung,
      steps,
      state: i === here ? 'here' : here === -1 || i < here ? 'done' : 'ahead',
    })),
    ...(here >= 0 ? { here: RUNGS[here]! } : {}),
    ...(next ? { next } : {}),
  };
}

/** The steps a new job starts with; the user adds, renames and drops them. */
export const FIRST_STEPS: readonly {
  readonly rung: Rung;
  readonly title: string;
  readonly needs: string;
  readonly doneBy?: Step['doneBy'];
}[] = [
  { rung: 'look', title: 'Walk round, note old repairs, rust, creases and cracks', needs: '' },
  { rung: 'look', title: 'Decide what to measure from', needs: '' },
  { rung: 'setUp', title: 'Set the shell on its support and write down which', needs: '' },
  { rung: 'measure', title: 'Measure the shell as found', needs: '' },
  { rung: 'measure', title: 'Choose the control points', needs: '' },
  { rung: 'brace', title: 'Plan the braces for every cut', needs: '' },
  {
    rung: 'brace',
    title: 'Fit the braces and measure again',
    needs: 'Every dimension a brace is there to hold',
  },
  {
    rung: 'cut',
    title: 'Scribe and label the cut lines, then cut',
    needs: 'Photographs of the joints; brackets on the part measured to something that stays',
  },
  { rung: 'pull', title: 'Pull back what moved', needs: 'The dimensions that should not change' },
  { rung: 'fit', title: 'Fit the new panels dry, doors hung', needs: '' },
  { rung: 'weld', title: 'Weld, measuring tacked and after each side', needs: '' },
  { rung: 'verify', title: 'Measure cold, on the same support', needs: '' },
  { rung: 'verify', title: 'Sign the record', needs: '', doneBy: 'signing' },
];

/** The usual cautions where a rung can hurt somebody, in plain words. */
/** Wherever a spark can fly, whatever the work is called: brace, cut, pull plate, grinding, weld. */
const FIRE_WATCH =
  'Blanket and extinguisher; fire watch for an hour after the last spark, grinding too, both sides felt for heat, then another look.';
/** Before the first spark, not only before the first cut. */
const TANK_OUT =
  'Fuel, brake and refrigerant lines drained or out; the tank outside and capped, an empty one too, never cut or heated.';

export const CAUTIONS: Readonly<Partial<Record<Rung, readonly string[]>>> = {
  look: ['Old underseal, pads and gaskets may hold asbestos: test before scraping.'],
  setUp: ['Stands under the shell before anybody is under it.', 'Lift only at points that carry.'],
  brace: [
    TANK_OUT,
    FIRE_WATCH,
    'Earth clamp beside the weld, electronics disconnected.',
    'Measure before and after: welding a brace in can itself pull a dimension.',
  ],
  cut: [
    TANK_OUT,
    FIRE_WATCH,
    'Battery and airbag or belt-tensioner charges disconnected by the maker’s procedure.',
    'Eye, ear and hand protection; sharp edges. Body lead: low heat, hand scrape, never power-sand.',
  ],
  pull: [
    'Nobody in line with a chain, nobody under or inside the shell. Safety cable, rated clamps.',
    `Pull plates are welded on. ${FIRE_WATCH}`,
    'Set pointers before the pull; read with the pump stopped and held, from outside the chain’s sweep.',
  ],
  fit: ['Gas struts off before heat. Sharp edges.'],
  weld: [
    'No chlorinated cleaner near an arc: phosgene. Lead and zinc fume: extraction and a proper mask.',
    FIRE_WATCH,
    'Glass out or covered, gas struts off before heat. Tank out, outside and capped; battery and airbag or belt-tensioner charges disconnected by the maker’s procedure; earth clamp beside the weld.',
    'Shielding gas in a closed shell or pit suffocates. Foam, sealer and wax burn to poison: clear them first.',
  ],
};

export const DEFERENCE =
  'High-strength steel must not be heated or sectioned except where the maker says. Vinkel records and calculates: the maker’s instructions, local rules and the licensed inspector decide.';
