import { loopModel, pullHome, restingPlaces, type LoopResult } from '../support/pull-loop';
import { Job } from '@/core/shell/job/job';
import { demoRows } from '../support/demo-rows';

/** `npm run bench:pulls`: the closed loop plan, pull, measure over many hidden shells, beside the recipe; and how well resting places are stated. */
const [loops = 50, rests = 200] = process.argv.slice(2).map(Number);
const job = Job.of(demoRows('solbris'));
const model = loopModel(job);
const mean = (list: readonly number[]) => list.reduce((sum, each) => sum + each, 0) / list.length;
const median = (list: readonly number[]) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)]!;

const told = (name: string, results: readonly LoopResult[]) => {
  const strokes = results.map((each) => each.strokes);
  const count = (of: (each: LoopResult) => boolean) => results.filter(of).length;
  console.log(
    `${name}: strokes ${mean(strokes).toFixed(1)} on average, ${median(strokes)} in the middle, ${Math.max(...strokes)} at most; ` +
      `${count(({ outside }) => outside.length > 0)} not home; what must stay past its limit under load in ${count(({ disturbed }) => disturbed > 1)}, ` +
      `at rest in ${count(({ disturbedAtRest }) => disturbedAtRest > 1)} of ${results.length}`,
  );
};
const seeds = Array.from({ length: loops }, (_, i) => i + 1);
told(
  'planned',
  seeds.map((seed) => pullHome(job, model, seed, 'plan')),
);
told(
  'recipe',
  seeds.map((seed) => pullHome(job, model, seed, 'recipe')),
);
const places = Array.from({ length: rests }, (_, i) => restingPlaces(model, 1000 + i));
const [covered, strokes] = (['covered', 'strokes'] as const).map((key) =>
  places.reduce((sum, each) => sum + each[key], 0),
) as [number, number];
console.log(
  `resting places within what was stated after three strokes: ${covered} of ${strokes} = ${(covered / strokes).toFixed(3)}`,
);
