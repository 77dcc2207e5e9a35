import { Job } from '@/core/shell/job/job';
import { createElement } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { daySheet } from '@/core/days/day';
import type { Reading, Rung } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { CAUTIONS } from '@/core/days/ladder';
import { judgeRound } from '@/core/round/judge/judge-round';
import { gapsPage } from '@/core/report/pages/gaps';
import { demoRows } from '../../tests/support/demo-rows';
import { rendered, textOf } from '../../tests/support/render';
import { DayPage } from './day/day-page';
import { Gaps } from './gaps/gaps';
import { Steps } from './ladder/steps';
import { JobList } from './shell/job-list';
import { Doubts } from './tape/doubts';
import { Standing } from './tape/standing';
import { Tape } from './tape/tape';
import { WalkSheet } from './tape/walk-sheet';
import { cuttingPage } from '@/core/report/pages/cutting';
import { pullingPage } from '@/core/report/pages/pulling';
import { settleNames } from '@/core/report/settle-words';
import { BraceList } from '@/ui/cut/brace-list';
import { packRows } from '@/formats/packed-rows';
import type { PullActions } from '@/ui/pull/actions';
import { PullingPlace } from '@/ui/pull/pulling-place';

vi.mock('next/navigation', () => ({ useRouter: () => ({ push: () => undefined, refresh: () => undefined }) }));

const solbris = demoRows('solbris');
const lodd = demoRows('lodd');
const [asFound, braced] = solbris.rounds;
const found = judgeRound(Job.of(solbris), asFound!);
const nothing = () => undefined;
const action = () => Promise.resolve({ ok: true, value: null } as const);

describe('the day sheet', () => {
  const page = (rows: JobRows) => {
    const { latest, ...day } = daySheet(Job.of(rows));
    const view = { ...day, ...(latest ? { latestRound: latest.round } : {}) };
    return textOf(
      rendered(
        createElement(DayPage, {
          actions: { editJob: async () => ({ ok: false as const, faults: [] }), writeMorning: action },
          ...{ job: rows.jobs[0]!, day: view, printedAt: '2026-11-24T17:00:00Z' },
          names: settleNames(Job.of(rows)),
        }),
      ),
    );
  };

  it('answers the five questions of the end of a day', () => {
    const text = page(solbris);
    expect(text).toMatch(/What moved, and after which step\? .*From “As found” to “Braced” , after: brace X1 fitted/);
    expect(text).toMatch(/What holds it tonight, and must stay\? .*X3 welded tube.*holds CD1 .*, CD2/);
    expect(text).toMatch(/What must be measured or photographed before the next cut\?/);
    expect(text).toMatch(/F2L – R4L 3327\.6 .*does not fit the rest; likely the tape was started at the 100 mm mark/);
    expect(text).toMatch(/CURING|Curing .*Rust dissolver/);
  });

  it('says that other instruments were used before it says what moved', () => {
    const text = page(solbris);
    expect(text.indexOf('Not the same instruments')).toBeLessThan(text.indexOf('XL2'));
  });

  it('has something to say of a job nobody has measured', () => {
    const bare = { ...solbris, rounds: [], readings: [], braces: [], pulls: [], pullEvents: [] };
    expect(page(bare)).toMatch(/What moved, and after which step\?/);
  });
});

describe('the tape', () => {
  const readings = solbris.readings.filter((reading) => reading.roundId === asFound!.id).slice(0, 6);
  const lines = [...new Set(readings.map(({ lineId }) => lineId))].map((lineId, i) => ({
    lineId,
    readings: readings.filter((reading) => reading.lineId === lineId),
    state: i === 1 ? ('waiting' as const) : ('taken' as const),
    ...(i === 0
      ? {
          strike: {
            ...{
              id: 's',
              readingId: readings[0]!.id,
              struckAt: '2026-11-10T09:00:00Z',
              author: 'Nils',
              personId: null,
            },
            ...{ reason: 'misread', replacedByLineId: null },
          },
        }
      : {}),
  }));
  const html = rendered(
    createElement(Tape, {
      ...{ rows: solbris, lines, doubtful: new Set([lines[1]!.lineId]) },
      on: { select: nothing, correct: nothing, strike: nothing },
    }),
  );

  it('marks the lines that are doubtful, and no other', () => {
    expect(html.match(/data-doubtful/g)).toHaveLength(1);
  });

  it('keeps a struck line, with who struck it and why', () => {
    expect(html).toMatch(/line-through|<s>|<del/);
    expect(textOf(html)).toContain('misread');
    expect(textOf(html)).toContain('Nils');
  });

  it('says which lines the server does not have yet', () => {
    expect(textOf(html)).toMatch(/waiting/i);
  });
});

describe('doubts', () => {
  const doubts = found.net.doubts;
  const corrected: string[] = [];
  const html = rendered(
    createElement(Doubts, {
      ...{ rows: solbris, doubts, onAgain: nothing, onKeep: nothing },
      onCorrect: (_: Reading, line: string) => corrected.push(line),
    }),
  );

  it('name the likely cause and the one correction, where there is one', () => {
    const text = textOf(html);
    expect(text).toMatch(/F2L – R4L 3327\.6 does not fit the rest .* Likely: the tape was started at the 100 mm mark/);
    expect(text).toContain('Correct it to F2L R4L 3227.6');
    // Either end may have been exchanged: nothing is offered that would be a guess.
    expect(text.split('Correct it to').length - 1).toBe(1);
    expect(text.split('Measure again').length - 1).toBe(doubts.length);
  });

  it('are written in inches to those who read them', () => {
    const parts = { rows: solbris, doubts, onAgain: nothing, onKeep: nothing, onCorrect: nothing };
    expect(textOf(rendered(createElement(Doubts, parts), { units: 'in16' }))).toMatch(/F2L – R4L 131/);
  });
});

describe('how a round stands', () => {
  it('is how much is known, how well, and what has just become known', () => {
    const text = textOf(rendered(createElement(Standing, { rows: solbris, judgement: found, newly: ['K4'] })));
    expect(text).toMatch(/47 of 51 points located, 32 of 32 dimensions known; the least sure is \w+, ±\d\.\d mm/);
    expect(text).toContain('K4');
    expect(textOf(rendered(createElement(Standing, { rows: solbris, newly: [] })))).toContain('Solving');
  });
});

describe('the walk on paper', () => {
  it('has a line for every reading in its order', () => {
    const targets = [
      { key: 'a', kind: 'distance', codes: ['F1L', 'S2R'], measure: 'tip', why: 'diagonal' },
      { key: 'b', kind: 'height', codes: ['F1L'], why: 'height' },
    ] as never;
    const text = textOf(rendered(createElement(WalkSheet, { rows: solbris, round: braced!, targets })));
    expect(text).toContain('2 readings in the order of the walk');
    expect(text.indexOf('S2R')).toBeGreaterThan(0);
    const none = textOf(rendered(createElement(WalkSheet, { rows: solbris, round: braced!, targets: [] })));
    expect(none).toContain('no chart to plan a walk from');
  });
});

describe('braces', () => {
  const page = cuttingPage(Job.of(solbris));
  const actions = {
    planBrace: action,
    recordItemEvent: action,
    correctBrace: action,
    withdraw: action,
    addSection: action,
  };

  it('show their length and what they are there to hold', () => {
    const text = textOf(rendered(createElement(BraceList, { page, actions })));
    for (const { brace, sawn, holds } of page.braces) {
      expect(text).toContain(brace.code);
      expect(text).toContain(sawn!.toFixed(1));
      for (const { code } of holds) expect(text).toContain(code);
    }
  });

  it('none planned says what to do', () => {
    const text = textOf(rendered(createElement(BraceList, { page: { ...page, braces: [], bars: [] }, actions })));
    expect(text).toMatch(/No brace|brace/i);
  });
});

describe('pulls', () => {
  const made = pullingPage(Job.of(solbris));
  const listed = made.pulls;
  const actions = new Proxy({}, { get: () => action }) as PullActions;
  const pagesText = (page: typeof made) =>
    textOf(rendered(createElement(PullingPlace, { rows: packRows(solbris), page, actions })));
  const text = pagesText(made);

  it('say what holds them, and offer the points of an older note', () => {
    expect(text).toContain('Held at C1L (clamp), C1R (clamp)');
    const older = pagesText(pullingPage(Job.of({ ...solbris, holds: [] })));
    expect(older).toMatch(/The note names C1L, C1R.*A note is not calculated with.*Make them holds/);
  });

  it('say where to and how far, and what sprang back', () => {
    const [pull] = listed;
    expect(text).toContain(pull!.pull.code);
    expect(text).toContain(pull!.distance.toFixed(1));
    expect(text).toMatch(/rearward|forward/);
  });

  it('say what comes home, the next mark, what to watch, and what the rig may bear', () => {
    expect(text).toMatch(/Comes home by [\d.]+ ±[\d.]+ mm, from 1 stroke in this region/);
    expect(text).toMatch(/Next: pull to [\d.]+ under load, expect it to rest at [\d.]+ ±[\d.]+/);
    expect(text).toMatch(/must stay/);
    expect(text).toMatch(/Never harder than [\d.]+ kN \([\d]+ bar at the pump\)/);
  });
});

describe('a rung where work can hurt somebody', () => {
  const steps = (rung: Rung) =>
    textOf(
      rendered(
        createElement(Steps, {
          ...{ jobId: solbris.jobs[0]!.id, rung, steps: [] },
          actions: { addStep: action, recordStepEvent: action, correctStep: action, setTimer: action },
        }),
      ),
    );

  it.each(['setUp', 'brace', 'cut', 'pull', 'weld'] as const)('%s: cautions first, and who decides', (rung) => {
    const text = steps(rung);
    for (const caution of CAUTIONS[rung]!) expect(text).toContain(caution);
    expect(text).toMatch(/the maker’s instructions, local rules and the licensed inspector decide/);
  });

  it('keeps people out of a chain’s line, and fire watched', () => {
    expect(steps('pull')).toMatch(/Nobody in line with a chain, nobody under or inside the shell/);
    expect(steps('weld')).toMatch(/fire watch for an hour/);
    expect(steps('cut')).toMatch(/Fuel, brake and refrigerant lines drained/);
  });
});

describe('gaps', () => {
  const actions = { addSeam: action, correctSeam: action, withdraw: action };
  it('stand left beside right with their verdicts', () => {
    const page = gapsPage(Job.of(lodd));
    const { pairs } = page;
    const text = textOf(rendered(createElement(Gaps, { rows: lodd, page, actions })));
    expect(pairs.length).toBeGreaterThan(0);
    for (const { left, right } of pairs)
      for (const side of [left, right]) if (side) expect(text).toContain(side.seam.code);
    expect(textOf(rendered(createElement(Gaps, { rows: lodd, page: { ...page, pairs: [] }, actions })))).toContain(
      'No seam is named',
    );
  });
});

describe('the list of jobs', () => {
  it('counts as one speaks', () => {
    const [job] = solbris.jobs;
    const jobs = [{ ...job!, pointCount: 1, roundCount: 2 }] as never;
    const props = { jobs, find: '', most: 40, actions: { putAwayJob: action, removeJob: action } };
    const counts = { all: 1, inHand: 1, away: 0 };
    expect(textOf(rendered(createElement(JobList, { ...props, counts })))).toMatch(/1 point, 2 rounds/);
  });

  it('says how many are not shown, and looks for a word where there are many', () => {
    const jobs = [{ ...solbris.jobs[0]!, pointCount: 1, roundCount: 2 }] as never;
    const props = { jobs, find: 'sol', most: 40, actions: { putAwayJob: action, removeJob: action } };
    const counts = { all: 500, inHand: 45, away: 0 };
    const text = textOf(rendered(createElement(JobList, { ...props, counts })));
    expect(text).toMatch(/45 jobs with/);
    expect(text).toMatch(/1 of 45 jobs/);
    expect(text).toMatch(/Show 40 more/);
  });
});
