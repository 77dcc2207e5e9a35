import { Job } from '@/core/shell/job/job';
import { createElement } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { analyseRound } from '@/core/findings/analysis';
import { compareRounds } from '@/core/findings/change';
import { judgeRound } from '@/core/round/judge/judge-round';
import { didItMove } from '@/core/findings/movement';
import type { JobRows } from '@/core/shell/job/job-rows';
import { demoRows } from '../../tests/support/demo-rows';
import { rendered, textOf } from '../../tests/support/render';
import { ReferencesPage, type ReferenceActions } from './references/references-page';
import { ControlPanel } from './sheet/control-panel';
import { DimensionList, PointList } from './sheet/lists';
import { PatternPanel } from './sheet/pattern-panel';
import { Why } from './sheet/why';
import { TASKS } from '@/workers/tasks';
import { ComparedSides } from './sides/sides-page';
import { Compare } from '@/ui/work/compare';

vi.mock('next/navigation', () => ({ useRouter: () => ({ push: () => undefined, refresh: () => undefined }) }));

const solbris = demoRows('solbris');
const lodd = demoRows('lodd');
const [asFound] = solbris.rounds;
const judgement = judgeRound(Job.of(solbris), asFound!);
const analysis = analyseRound(Job.of(solbris), judgement, { spreads: 3.5 });
const live = { analysis, milliseconds: 12, busy: false };
const nothing = () => Promise.resolve({ ok: true, value: null } as const);
const idOf = (code: string) => solbris.points.find((point) => point.code === code)!.id;

describe('the pattern panel', () => {
  const html = rendered(createElement(PatternPanel, { rows: solbris, judgement, live, onSelect: () => undefined }));

  it('says what happened in sentences, then in figures', () => {
    const text = textOf(html);
    expect(text).toMatch(
      /The rear has gone .* forward, .* to the right and .* up from the rear seat crossmember hole \(C1/,
    );
    expect(text).toMatch(/hinged at station \d+ ±\d+/);
    expect(html.split('data-component=').length - 1).toBe(6);
  });

  it('speaks the user’s words and units', () => {
    const text = textOf(
      rendered(createElement(PatternPanel, { rows: solbris, judgement, live, onSelect: () => undefined }), {
        words: 'us',
        units: 'in16',
      }),
    );
    expect(text).toMatch(/has gone \d+\/16 ± .* in forward|has gone \d+\/\d+ ± .* in forward/);
    expect(text).toMatch(/hinged at station 8\d.* ±\d.*, amounts at station 12\d.* in/);
    expect(text).toMatch(/\(C1, station 8\d/);
  });

  it('waits while the worker works, and says what is missing without control points', () => {
    expect(
      textOf(
        rendered(
          createElement(PatternPanel, {
            rows: solbris,
            judgement,
            live: { analysis: undefined, milliseconds: undefined, busy: true },
            onSelect: () => undefined,
          }),
        ),
      ),
    ).toContain('Working out the pattern');
    const { pattern: _, ...without } = analysis;
    expect(
      textOf(
        rendered(
          createElement(PatternPanel, {
            rows: solbris,
            judgement,
            live: { ...live, analysis: without },
            onSelect: () => undefined,
          }),
        ),
      ),
    ).toContain('hold control points');
  });
});

describe('the control panel', () => {
  it('lays the choices side by side and offers to hold each that is not held', () => {
    const held = solbris.roundControls.filter(({ roundId }) => roundId === asFound!.id).map(({ pointId }) => pointId);
    const html = rendered(
      createElement(ControlPanel, {
        rows: solbris,
        live,
        agree: 'own',
        setAgree: () => undefined,
        onHold: () => undefined,
        control: held,
      }),
    );
    const text = textOf(html);
    expect(text).toMatch(/\d+ of 47 located points agree with the reference and each other; no larger set does/);
    for (const choice of ['Held now', 'Undisturbed', 'Rival', 'All points']) expect(text).toContain(choice);
    expect(html.split('Hold these').length - 1).toBe(2 * 3);
    expect(text).toContain('The majority may be what moved');
  });
});

describe('the lists', () => {
  it('give every point its verdict, and say when a filter leaves none', () => {
    const common = { control: [], onSelect: () => undefined, onHold: () => undefined };
    const html = rendered(createElement(PointList, { points: judgement.points, ...common }));
    expect(html.split('data-verdict=').length - 1).toBe(solbris.points.length);
    expect(html).toContain('data-code="R4L" data-verdict="outside"');
    expect(textOf(rendered(createElement(PointList, { points: [], ...common })))).toContain(
      'No point is left by the filter',
    );
    expect(textOf(rendered(createElement(DimensionList, { dimensions: [], onSelect: () => undefined })))).toContain(
      'No dimension is left',
    );
  });
});

describe('why', () => {
  const why = (kind: 'point' | 'dimension', id: string) =>
    textOf(
      rendered(
        createElement(Why, {
          subject: { kind, id },
          judgement,
          rows: solbris,
          acceptHref: '/log?round=1',
          onToggleControl: () => undefined,
          chooseReference: nothing,
        }),
      ),
    );

  it('names reference and trust, control points, readings with weights and what was found', () => {
    const text = why('point', idOf('R4L'));
    expect(text).toContain('Maker’s dimension chart');
    expect(text).toContain('trusted to ±0.0 mm');
    expect(text).toContain('Control points: F2L');
    expect(text).toMatch(/Readings behind it \(\d+\)/);
    expect(text).toContain('Left rear corner filled over');
    expect(text).toContain('Accept this deviation with a reason');
  });

  it('says of a length what the other references would say', () => {
    const text = why('dimension', solbris.dimensions.find(({ code }) => code === 'CL1')!.id);
    expect(text).toContain('Sister estate of the Nordby museum would say');
    expect(text).toContain('Old left sill, cut out and kept would say');
    expect(text).toContain('Judge this one by it');
  });

  it('asks for a choice where nothing is chosen', () => {
    const html = rendered(
      createElement(Why, {
        subject: undefined,
        judgement,
        rows: solbris,
        acceptHref: '',
        onToggleControl: () => undefined,
        chooseReference: nothing,
      }),
    );
    expect(textOf(html)).toContain('Choose a point or a dimension');
  });
});

describe('the references', () => {
  const actions = {
    makeReference: nothing,
    rankReferences: nothing,
    trustReference: nothing,
    putInUse: nothing,
    importSister: nothing,
  } as unknown as ReferenceActions;

  it('stand in the order they are judged by, with their trust as ±, and contradictions below', () => {
    const html = rendered(createElement(ReferencesPage, { rows: solbris, actions }));
    expect([...html.matchAll(/data-reference="(\w+)"/g)].map(([, kind]) => kind)).toEqual([
      'chart',
      'sisterCar',
      'keptPart',
    ]);
    expect(html).toContain('value="3.6"');
    expect(textOf(html)).toContain('Where the references contradict each other (1)');
  });

  it('say how to get one where there is none', () => {
    const text = textOf(rendered(createElement(ReferencesPage, { rows: { ...solbris, references: [] }, actions })));
    expect(text).toContain('There is nothing to compare with');
  });
});

describe('left against right', () => {
  const sidesOf = (rows: JobRows) => TASKS.sides(Job.of(rows), { roundId: asFound!.id });

  it('sets off the pairs that differ, and says what it cannot see', () => {
    const html = rendered(
      createElement(ComparedSides, { rows: solbris, sides: sidesOf(solbris), setMirrored: nothing }),
    );
    expect(html).toContain('data-pair="R4L" data-differs="true"');
    expect(html).toContain('data-pair="F2L" data-differs="false"');
    expect(textOf(html)).toContain('Damage that is the same on both sides cannot be seen here');
  });

  it('says what is missing where nothing can be compared', () => {
    const rows = { ...solbris, readings: [] };
    const html = rendered(createElement(ComparedSides, { rows, sides: sidesOf(rows), setMirrored: nothing }));
    expect(textOf(html)).toContain('The sides cannot be compared as a whole: round 1 has no located points');
  });
});

describe('two rounds compared', () => {
  const view = (rows: typeof lodd, from: number, to: number) => {
    const [before, after] = [judgeRound(Job.of(rows), rows.rounds[from]!), judgeRound(Job.of(rows), rows.rounds[to]!)];
    return {
      change: compareRounds(Job.of(rows), before, after),
      movement: didItMove(Job.of(rows), before, after),
      final: after.dimensions,
      accepted: [],
    };
  };

  it('names the points that moved and keeps limit and noise apart', () => {
    const text = textOf(rendered(createElement(Compare, { rows: lodd, view: view(lodd, 0, 2) })));
    expect(text).toMatch(/F1L.* moved\./);
    expect(text).toMatch(/Of \d+ lengths \d+ changed within their limit/);
  });

  it('says first what else differed, and then claims less', () => {
    const supports = lodd.supports.map((support, i) =>
      i === lodd.supports.length - 1 ? { ...support, kind: 'stands' as const } : support,
    );
    const rows = { ...lodd, supports };
    const text = textOf(rendered(createElement(Compare, { rows, view: view(rows, 0, 2) })));
    const caution = text.indexOf('different support');
    expect(caution).toBeGreaterThan(-1);
    expect(text.indexOf('moved or differently supported', caution)).toBeGreaterThan(caution);
  });

  it('asks for a second round where there is one', () => {
    expect(textOf(rendered(createElement(Compare, { rows: lodd })))).toContain('Two rounds are needed');
  });
});
