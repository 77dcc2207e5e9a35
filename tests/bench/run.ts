import { kernel } from '@/core/maths/linear/kernel';
import type { Case } from './case';
import { nets } from './nets';
import { panels } from './panels';
import { calendar } from './calendar';
import { welds } from './welds';
import { rounds } from './rounds';
import { stacks } from './stacks';
import { structure } from './structure';
import { undisturbed } from './undisturbed';
import { yardstick } from './yardstick';

/** Each is run for so long, ms, after a third of that to warm up. */
const FOR = 1200;
const FEWEST = 7;

/** Median of its runs, ms. */
function timed({ run }: Case): number {
  const runs = (forMs: number, fewest: number) => {
    const taken: number[] = [];
    for (const end = performance.now() + forMs; performance.now() < end || taken.length < fewest;) {
      const start = performance.now();
      run();
      taken.push(performance.now() - start);
    }
    return taken.sort((a, b) => a - b);
  };
  runs(FOR / 3, 2);
  const taken = runs(FOR, FEWEST);
  return taken[Math.floor(taken.length / 2)]!;
}

const wanted = process.argv[2] ?? '';
const chosen = [...nets, ...rounds, ...undisturbed, ...stacks, ...structure, ...panels, ...welds, ...calendar].filter(
  ({ of, what }) => `${of} ${what}`.includes(wanted),
);
const cases = [...yardstick, ...chosen, ...yardstick];
console.log(
  JSON.stringify({
    kernel: kernel.name,
    cases: cases.map((each) => ({ of: each.of, what: each.what, median: timed(each) })),
  }),
);
