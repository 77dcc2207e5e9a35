import { createElement, type ReactElement } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { daySheet } from '@/core/days/day';
import { ladderOf } from '@/core/days/ladder';
import { seeded, type Random } from '@/core/maths/random/seeded';
import { cuttingAdvice, cuttingPage, type CuttingAdvice } from '@/core/report/pages/cutting';
import { gapsPage } from '@/core/report/pages/gaps';
import { pullingPage } from '@/core/report/pages/pulling';
import { roundsPage } from '@/core/report/pages/rounds';
import { buildRecord } from '@/core/report/record/record';
import { settleNames } from '@/core/report/settle-words';
import { takenBack } from '@/core/report/taken-back';
import { TERMS } from '@/core/report/vocabulary/terms';
import * as entity from '@/core/shell/job/entities';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { walkTargets } from '@/core/walk/targets';
import { demoRows } from '../../tests/support/demo-rows';
import { rendered, textOf } from '../../tests/support/render';
import { DayPage } from './day/day-page';
import { Gaps } from './gaps/gaps';
import { LadderRail } from './ladder/ladder-rail';
import { Steps } from './ladder/steps';
import { LogPage } from './log/log-page';
import { RecordPage } from './record/record-page';
import { WalkSheet } from './tape/walk-sheet';
import type { CuttingActions } from './cut/actions';
import { BraceAdviceList } from './cut/brace-advice';
import { PanelOrder } from './cut/removal-order';
import { CuttingPlace } from './cut/cutting-place';
import { Instruments } from './work/instruments';
import { packRows } from '@/formats/packed-rows';
import type { PullActions } from './pull/actions';
import { PullingPlace } from './pull/pulling-place';
import { Rounds } from './work/rounds';

vi.mock('next/navigation', () => ({
  useRouter: () => ({ push: () => undefined, refresh: () => undefined, replace: () => undefined }),
  usePathname: () => '/',
  useSearchParams: () => new URLSearchParams(),
}));

const { millimetre: _mm, metre: _m, ...parts } = TERMS;
const BRITISH = Object.values(parts).map(({ uk }) => uk);
const action = () => Promise.resolve({ ok: true, value: null } as never);

/** A job with everything a schema allows drawn by chance, and British words wherever somebody can type. */
function drawn(seed: number): JobRows {
  const random = seeded(seed);
  const rows = demoRows('solbris');
  const one = <T>(list: readonly T[]): T => list[Math.floor(random.next() * list.length)]!;
  const words = () => `${one(BRITISH)} beside the ${one(BRITISH)}`;
  const spoken = <Row>(list: readonly Row[], fields: readonly (keyof Row)[]): Row[] =>
    list.map((row) => ({ ...row, ...Object.fromEntries(fields.map((field) => [field, words()])) }));
  const entries = spoken(rows.logEntries, ['text', 'reason']).map((entry) => ({
    ...entry,
    kind: one(entity.ENTRY_KINDS),
    overturnedBy: words(),
  }));
  const at = '2026-11-25T07:00:00.000Z';
  return {
    ...rows,
    points: spoken(rows.points, ['name']),
    dimensions: spoken(rows.dimensions, ['name']),
    seams: spoken(rows.seams, ['name']),
    seamStations: spoken(rows.seamStations, ['name']),
    references: spoken(rows.references, ['name', 'source']),
    steps: spoken(rows.steps, ['title', 'needs']),
    stepEvents: spoken(rows.stepEvents, ['note']),
    pulls: spoken(rows.pulls, ['heldAt', 'note']),
    supports: spoken(rows.supports, ['note']).map((each) => ({
      ...each,
      kind: one(entity.SUPPORT_KINDS),
      suspension: one(['off', 'onUnloaded', 'loaded'] as const),
    })),
    shellStates: rows.shellStates.map((each) => ({ ...each, kind: one(entity.STATE_KINDS) })),
    rounds: rows.rounds.map((each) => ({ ...each, temperature: Math.round(40 * random.next()) })),
    instrumentVersions: rows.instrumentVersions.map((each) => ({ ...each, pointers: '50 120 300', startMark: 100 })),
    logEntries: entries,
    findingDetails: entries.map(({ id: entryId }) => ({ entryId, ...findingOf(random, one) })),
    decisionDetails: entries.map(({ id: entryId }) => ({
      ...{ entryId, hours: 3, ownerSays: one(['yes', 'no'] as const), ownerSaidAt: at },
    })),
    partTags: spoken(rows.partTags, ['part', 'takenFrom', 'state', 'keepUntil']),
    withdrawals: rows.braces.slice(0, 1).map(({ id, jobId }) => ({
      ...{ id: random.uuid(), jobId, tableName: 'work_item' as const, rowId: id, kind: 'withdrawn' as const },
      ...{ at, author: 'Nils', personId: null, reason: words() },
    })),
  };
}

const findingOf = (random: Random, one: <T>(list: readonly T[]) => T) => ({
  sort: one(entity.FINDING_SORTS),
  grade: one(entity.WELD_GRADES),
  before: 0.5 + random.next(),
  after: random.next() + 0.1,
  weight: one(['structural', 'cosmetic'] as const),
  otherSide: random.next() < 0.5,
});

/** Every page of a job that is rendered from its rows alone. */
/** What is proposed for a stage, which a page asks for once it is there. */
function adviceOf(job: Job): Readonly<Record<string, ReactElement>> {
  const page = cuttingPage(job);
  const { worked } = page;
  const stage = worked && page.stages[worked.stage];
  if (!stage) return {};
  const actions = new Proxy({}, { get: () => action }) as CuttingActions;
  const [{ braces: advice }, { order }] = (['brace', 'cut'] as const).map((room) =>
    cuttingAdvice(job, { stage: worked.stage, room }),
  ) as [CuttingAdvice, CuttingAdvice];
  return {
    bracing: createElement(BraceAdviceList, { page, worked, actions, advice }),
    order: createElement(PanelOrder, { page, stage, actions, ...(order ? { order } : {}) }),
  };
}

function pagesOf(rows: JobRows): Readonly<Record<string, ReactElement>> {
  const job = Job.of(rows);
  const { latest, ...day } = daySheet(job);
  const ladder = ladderOf(job);
  const round = rows.rounds[0]!;
  const stepActions = { addStep: action, correctStep: action, recordStepEvent: action, setTimer: action };
  const work = { withdraw: action };
  return {
    day: createElement(DayPage, {
      ...{ job: job.row, names: settleNames(job), printedAt: '2026-11-24T17:00:00Z' },
      day: { ...day, ...(latest ? { latestRound: latest.round } : {}) },
      actions: { editJob: action, writeMorning: action },
    }),
    ladder: createElement(LadderRail, { jobId: job.row.id, rungs: ladder.rungs, next: ladder.next?.step.title }),
    steps: createElement(
      'div',
      null,
      ladder.rungs.map(({ rung, steps }) =>
        createElement(Steps, { key: rung, jobId: job.row.id, rung, steps, actions: stepActions }),
      ),
    ),
    ...Object.fromEntries(
      (['brace', 'cut'] as const).map((room) => [
        room,
        createElement(CuttingPlace, {
          ...{ room, rows: packRows(rows), page: cuttingPage(job), instruments: [] },
          actions: new Proxy({}, { get: () => action }) as CuttingActions,
        }),
      ]),
    ),
    ...adviceOf(job),
    pulls: createElement(PullingPlace, {
      ...{ rows: packRows(rows), page: pullingPage(job) },
      actions: new Proxy({}, { get: () => action }) as PullActions,
    }),
    gaps: createElement(Gaps, {
      ...{ rows, page: gapsPage(job) },
      actions: { addSeam: action, correctSeam: action, ...work },
    }),
    log: createElement(LogPage, {
      ...{ rows, takenBack: takenBack(job) },
      actions: { writeLogEntry: action, tagPart: action, correctTag: action, ...work },
    }),
    record: createElement(RecordPage, {
      ...{ jobId: job.row.id, record: buildRecord(job, '2026-11-24T12:00:00.000Z'), signatures: [] },
      signing: { signRecord: action, asksPassphrase: false },
    }),
    rounds: createElement(Rounds, { rows, rounds: roundsPage(job), openRound: action }),
    walk: createElement(WalkSheet, {
      ...{ rows, round },
      targets: walkTargets(job, round, { height: 0.7, distance: () => 1 }),
    }),
    instruments: createElement(Instruments, {
      ...{ instruments: rows.instruments, versions: rows.instrumentVersions },
      ...{ reviseInstrument: action, addInstrument: action },
    }),
  };
}

const METRIC = /\d ?mm\b|\bmm\b|°C|\bmillimet/gi;
const WORDS = new RegExp(`\\b(${BRITISH.join('|')})s?\\b`, 'gi');

describe.each([11, 12, 13])('a job drawn from the schemas (%i), in inches and US words', (seed) => {
  it('speaks no millimetre and no British word on any page', () => {
    for (const [name, page] of Object.entries(pagesOf(drawn(seed)))) {
      const text = textOf(rendered(page, { units: 'in16', words: 'us' })).replace(
        // What somebody miscounted on a tape in millimeters they miscounted in these.
        /the (100|50) mm mark|ten millimeters were miscounted/g,
        '',
      );
      const found = [...text.matchAll(METRIC), ...text.matchAll(WORDS)].map(([hit]) => `${name}: ${hit}`);
      expect([...new Set(found)]).toEqual([]);
    }
  });
});
