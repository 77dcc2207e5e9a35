import { describe, expect, it } from 'vitest';
import { NEW_POINT, type Brace, type WorkEvent } from '../../shell/job/entities';
import { Job } from '../../shell/job/job';
import { emptyJobRows, type JobRows } from '../../shell/job/job-rows';
import { goesThrough } from '../../maths/geometry/through';
import { Cutting, leftSideOut } from '../../../../tests/support/cutting';
import { adviseBraces, trappedBy } from './brace-advice';
import { blastings } from './blasting';
import { withoutBraces } from './braces-out';
import { cutModel } from './cut-model';
import { gatesBefore } from './gates';
import { removalOrder } from './removal-order';
import { slackTable } from './slack-table';
import { braceForces, givesAfter } from './worked-stages';

const modelOf = (rows: JobRows) => cutModel(Job.of(rows))!;
const event = (itemId: string, kind: WorkEvent['kind'], at = '2026-11-20T10:00:00.000Z'): WorkEvent => ({
  ...{
    id: `${itemId} ${kind} ${at}`,
    itemId,
    kind,
    key: '',
    at,
    author: 'Nils',
    personId: null,
    reason: '',
    value: null,
  },
});
const worstBraced = (rows: JobRows, stage: number) =>
  Math.max(...slackTable(modelOf(rows)).rows.map((row) => (row.stages[stage]!.braced?.high ?? 0) / row.limit));

/** A brace across the left door opening while the sill and the floor are out. */
const doorBrace = (more: Partial<Brace>) => leftSideOut().brace('X1', 'A1L', 'B2L', more).rows;

describe('new metal', () => {
  const at = (...events: WorkEvent[]) => {
    const { rows } = leftSideOut();
    return { ...rows, workEvents: events };
  };

  it('is back for the stages after it once it is welded in, and for its own cut it is out', () => {
    const { stages } = modelOf(at(event('sill', 'removed'), event('sill', 'fitted')));
    expect(stages[0]!.left.get('S1L-S2L')).toBe(0);
    expect(stages[1]!.left.get('S1L-S2L')).toBeGreaterThanOrEqual(1);
    expect([stages[0]!.goneIds.size > 0, stages[1]!.goneIds.size]).toEqual([true, 0]);
    expect(modelOf(at(event('sill', 'removed'))).stages[1]!.left.get('S1L-S2L')).toBe(0);
  });

  it('counts as tacks while it is tacked: the floor sets more loose then than beside a welded sill', () => {
    const out = worstBraced(at(event('sill', 'removed')), 1);
    const tacked = worstBraced(at(event('sill', 'removed'), event('sill', 'tacked')), 1);
    const welded = worstBraced(at(event('sill', 'removed'), event('sill', 'fitted')), 1);
    expect(tacked).toBeLessThan(out);
    expect(welded).toBeLessThan(tacked);
  });

  it('is sound where what it replaced was rotten: welded in it is stiffer than the shell was found', () => {
    const rows = at();
    const told = withoutBraces(modelOf(rows));
    expect(told.length).toBeGreaterThan(5);
    const whole = slackTable(modelOf(rows)).rows;
    const sum = (of: (lengthId: string) => number) => told.reduce((all, { lengthId }) => all + of(lengthId), 0);
    const by = new Map(told.map((each) => [each.lengthId, each]));
    const welded = sum((id) => by.get(id)!.welded.usual / by.get(id)!.limit);
    expect(welded).toBeLessThan(sum((id) => by.get(id)!.tacked.usual / by.get(id)!.limit));
    // The demo's left sill is half gone as it was found.
    expect(welded).toBeLessThan(
      sum((id) => whole.find(({ lengthId }) => lengthId === id)!.whole!.usual / by.get(id)!.limit),
    );
  });
});

describe('what holds besides tubes', () => {
  const loose = worstBraced(leftSideOut().rows, 1);

  it('a slip brace holds while it is tight and nothing while it is loosened', () => {
    const rows = doorBrace({ kind: 'slip', force: 50 });
    const fitted = event('X1', 'fitted', '2026-11-20T10:00:00.000Z');
    const loosened = event('X1', 'loosened', '2026-11-20T11:00:00.000Z');
    const again = event('X1', 'fitted', '2026-11-20T12:00:00.000Z');
    const tight = worstBraced({ ...rows, workEvents: [fitted] }, 1);
    expect(tight).toBeLessThan(loose);
    expect(worstBraced({ ...rows, workEvents: [fitted, loosened] }, 1)).toBeCloseTo(loose, 9);
    expect(worstBraced({ ...rows, workEvents: [fitted, loosened, again] }, 1)).toBeCloseTo(tight, 9);
    const [force] = braceForces(modelOf(rows), 1);
    // What 200 N anywhere brings into it is no more than 200 N many times over, and no less than some of it.
    expect(force!.hand).toBeGreaterThan(20);
    expect(force!.hand).toBeLessThan(2000);
  });

  it('a part that stays holds as stiff as it was said to be', () => {
    const held = (stiffness: number | null) => worstBraced(doorBrace({ kind: 'part', stiffness }), 1);
    expect(held(20_000)).toBeLessThan(held(null));
    expect(held(null)).toBeLessThan(held(50));
    expect(held(50)).toBeLessThan(loose);
  });

  it('a prop that only touches holds nothing the hand can pull; wedged it holds like a tube', () => {
    const gives = (more: Partial<Brace>) => {
      const cut = modelOf(doorBrace(more));
      return { all: givesAfter(cut, 1, 1, true)!, forces: braceForces(cut, 1) };
    };
    const tube = gives({});
    const wedged = gives({ kind: 'prop', force: 5000 });
    const touching = gives({ kind: 'prop', force: null });
    expect(wedged.forces[0]).toMatchObject({ braceId: 'X1' });
    expect(wedged.forces[0]!.least).toBeGreaterThan(0);
    expect(touching.forces[0]!.least).toBeCloseTo(0, 6);
    wedged.all.forEach((give, d) => {
      if (!give) return;
      // The tube's own weight apart, which a prop does not hang on the shell.
      expect(give.hand).toBeCloseTo(tube.all[d]!.hand, 6);
    });
    const most = (all: typeof tube.all) => Math.max(...all.map((give, d) => (give ? give.hand / limits[d]! : 0)));
    const limits = modelOf(leftSideOut().rows).lengths.map(({ limit }) => limit);
    expect(most(touching.all)).toBeGreaterThan(1.05 * most(wedged.all));
  });
});

describe('the order of removal', () => {
  const three = new Cutting()
    .stage('left side')
    .panel('sill', 'left side', ['S1L-S2L', 'S2L-S3L'], ['S2L', 'S3L'])
    .panel('floor', 'left side', ['T2-S2L-S3L-C1L', 'S3L-T2', 'S3L-C1L'])
    .panel('post foot', 'left side', ['S3L-B1L']);
  const order = removalOrder(Job.of(three.rows), modelOf(three.rows), 0)!;

  it('leaves the shell as tight as any order can, for as long', () => {
    const ids = order.panels.map(({ panelId }) => panelId);
    expect(ids.toSorted()).toEqual(['floor', 'post foot', 'sill']);
    const along = (wanted: readonly string[]) => {
      const panels = three.rows.panels.map((panel) => ({ ...panel, ordinal: wanted.indexOf(panel.id) }));
      const ratios = wanted.slice(1).map((_, i) => {
        const out = new Set(wanted.slice(0, i + 1));
        const rows = { ...three.rows, panels: panels.filter(({ id }) => out.has(id)) };
        return worstBraced(rows, 0);
      });
      return [Math.max(...ratios), ratios.reduce((sum, each) => sum + each, 0)] as const;
    };
    const all = ['floor', 'post foot', 'sill'];
    const orders = all.flatMap((a) =>
      all.flatMap((b) => all.flatMap((c) => (new Set([a, b, c]).size === 3 ? [[a, b, c]] : []))),
    );
    const best = along(ids);
    for (const other of orders) {
      const [loosest, sum] = along(other);
      expect(best[0]).toBeLessThanOrEqual(loosest * (1 + 1e-6));
      if (Math.abs(best[0] - loosest) < 1e-6 * loosest) expect(best[1]).toBeLessThanOrEqual(sum * (1 + 1e-6));
    }
    for (let i = 1; i < order.panels.length; i++)
      expect(order.panels[i]!.looseness).toBeGreaterThan(0.5 * order.panels[i - 1]!.looseness);
  });

  it('says so where it is as good as planned, and nothing of one panel', () => {
    const ids = order.panels.map(({ panelId }) => panelId);
    const rows = {
      ...three.rows,
      panels: three.rows.panels.map((each) => ({ ...each, ordinal: ids.indexOf(each.id) })),
    };
    const again = removalOrder(Job.of(rows), modelOf(rows), 0)!;
    expect(again.asPlanned).toBe(true);
    expect(Job.of(rows).panels.map(({ id }) => id)).toEqual(ids);
    const one = leftSideOut().rows;
    expect(removalOrder(Job.of(one), modelOf(one), 0)).toBeUndefined();
  });
});

describe('braces that are proposed', () => {
  it('are bolted where both ends find a threaded hole, and cost less work than to weld', () => {
    const { rows } = leftSideOut();
    const bolts = { ...rows, points: rows.points.map((point) => ({ ...point, kind: 'bolt' as const })) };
    const advice = adviseBraces(Job.of(bolts), modelOf(bolts), 1, []);
    if (!('proposals' in advice) || advice.proposals.length === 0) throw new Error(advice.outcome);
    for (const { what, why, cost } of advice.proposals) {
      expect(what).toMatchObject({ kind: 'boltedFrame', fromEnd: 'bolted', toEnd: 'bolted' });
      expect(why.some(({ kind }) => kind === 'bolts')).toBe(true);
      expect(cost.minutes).toBeLessThan(25);
    }
  });

  it('have a thread where what they hold is not right yet', () => {
    const { rows } = leftSideOut();
    const advice = adviseBraces(Job.of(rows), modelOf(rows), 1, []);
    if (!('proposals' in advice)) throw new Error(advice.outcome);
    const cut = modelOf(rows);
    for (const { what, why } of advice.proposals) {
      const off = why
        .flatMap((each) => (each.kind === 'holds' ? [each.lengthId] : []))
        .filter((id) => {
          const judged = cut.latest!.dimensions.find(({ dimension }) => dimension.id === id)?.judged;
          return judged !== undefined && judged.verdict !== 'inside';
        });
      expect(what.kind).toBe(off.length > 0 ? 'adjustable' : 'weldedTube');
      expect(why.some(({ kind }) => kind === 'sets')).toBe(off.length > 0);
    }
  });
});

describe('a brace where a panel comes in again', () => {
  it('is told to be trapped where it goes through its sheet, and not where it goes by', () => {
    const { nodes, sheets } = modelOf(new Cutting().rows).structure.model;
    const at = (node: number) => nodes[node]!.at;
    const named = nodes.flatMap(({ pointId }, i) => (pointId === null ? [] : [i]));
    // The bulkhead, between a strut tower and the cabin.
    const through = sheets.flatMap((sheet) =>
      named.flatMap((from) =>
        named.flatMap((to) => {
          const corners = sheet.nodes.map(at) as unknown as Parameters<typeof goesThrough>[2];
          const ends = [from, to].some((node) => sheet.nodes.includes(node));
          return from < to && !ends && goesThrough(at(from), at(to), corners) ? [{ sheet, from, to }] : [];
        }),
      ),
    );
    const [found] = through;
    const [a, b] = [nodes[found!.from]!.code, nodes[found!.to]!.code];
    const told = (code: string) => {
      const { rows } = new Cutting().stage('s').panel('new sheet', 's', [code]).brace('X1', a, b);
      return trappedBy(Job.of(rows), modelOf(rows), 0);
    };
    expect(told(found!.sheet.code)).toEqual([{ code: 'X1', of: 'new sheet' }]);
    const by = sheets.find(
      (sheet) => !through.some((each) => each.sheet === sheet && each.from === found!.from && each.to === found!.to),
    )!;
    expect(told(by.code)).toEqual([]);
  });
});

describe('a shell of which nobody measured anything', () => {
  /** Two doors by its picture, with points chosen on it; the left sill is to come out. */
  const shell = (): JobRows => {
    const { rows } = leftSideOut();
    const places = ['S1L', 'S2L', 'S3L', 'S1R', 'S3R', 'A1L', 'B1L', 'B2L', 'T2', 'C1L', 'C1R'];
    const point = (code: string, i: number) => ({
      ...{ ...NEW_POINT, id: `p${i}`, jobId: rows.jobs[0]!.id, code, name: '', place: code },
      side: code.endsWith('L') ? ('left' as const) : code.endsWith('R') ? ('right' as const) : ('centre' as const),
    });
    return {
      ...emptyJobRows(),
      ...{
        jobs: rows.jobs.map((job) => ({
          ...job,
          body: 'twoDoor' as const,
          wheelbase: 2440,
          track: 1280,
          height: 1350,
        })),
      },
      ...{ points: places.map(point), sections: rows.sections, workItems: rows.workItems },
      ...{ stages: rows.stages, panels: rows.panels, panelParts: rows.panelParts },
    };
  };

  it('is held across its doors and its floor, from the points that were chosen on the picture', () => {
    const rows = shell();
    const cut = modelOf(rows);
    const told = cut.lengths.map(({ name }) => name);
    expect(told.filter((name) => /^(Left|Right) door/.test(name))).toHaveLength(6);
    expect(told.filter((name) => name.startsWith('Floor'))).toHaveLength(2);
    expect(cut.structure.model.nodes.find(({ code }) => code === 'S1L')!.pointId).toBe('p0');
    const loose = slackTable(cut).rows.filter(({ whole, stages }) => stages[1]!.bare!.high > 2 * whole!.high);
    expect(loose.map(({ name }) => name)).toEqual(['Left door, other diagonal', 'Floor, other diagonal']);
    const advice = adviseBraces(Job.of(rows), cut, 1, []);
    expect(advice.outcome).toBe('advised');
  });
});

describe('blasting', () => {
  const blasted = (done?: string): JobRows => {
    const { rows } = leftSideOut();
    const item = {
      id: 'sand',
      jobId: rows.jobs[0]!.id,
      kind: 'blasting' as const,
      code: 'b',
      name: 'floor',
      version: 1,
    };
    return {
      ...rows,
      points: rows.points.map((point, i) => (i < 2 ? { ...point, kind: i === 0 ? 'drawn' : 'punch' } : point)),
      workItems: [...rows.workItems, item],
      workEvents: done ? [event('sand', 'done', done)] : [],
    };
  };

  it('takes what is only drawn, and nothing that was punched', () => {
    const rows = blasted();
    expect(blastings(Job.of(rows))).toMatchObject([{ drawn: [{ id: rows.points[0]!.id }], found: 0 }]);
  });

  it('wants a new round before the next cut, and the gate is open until there is one', () => {
    const gateOf = (rows: JobRows) => gatesBefore(Job.of(rows), modelOf(rows), 0).find(({ key }) => key === 'blasting');
    expect(gateOf(leftSideOut().rows)).toBeUndefined();
    expect(gateOf(blasted('2026-12-01T10:00:00.000Z'))).toMatchObject({ state: 'open', open: ['floor'] });
    const early = blasted('2000-01-01T10:00:00.000Z');
    expect(blastings(Job.of(early))[0]!.readAgain).toBeDefined();
    expect(gateOf(early)).toMatchObject({ state: 'done' });
  });
});
