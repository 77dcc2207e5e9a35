import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { bookedAgainstPlan, calendarPage } from '@/core/report/pages/calendar';
import type { PersonInput } from '@/formats/inputs/calendar';
import { Job } from '@/core/shell/job/job';
import { archiveDocuments, readArchiveDocuments } from '@/formats/archive/documents';
import * as actions from '@/server/actions/calendar';
import { addStep, addStepsInTurn, recordStepEvent } from '@/server/actions/steps';
import { benchPerTest, faultsOf, valueOf } from '../support/bench';

const shop = benchPerTest();
const refusal = (outcome: Parameters<typeof faultsOf>[0]) =>
  faultsOf(outcome)
    .map(({ message }) => message)
    .join(' ');
const NOW = Date.parse('2026-11-27T09:00:00Z');
const page = async () => calendarPage(Job.of(await shop().rows()), NOW);
const stepCalled = async (title: string) => (await page()).steps.find(({ step }) => step.title === title)!;

const nils: PersonInput = {
  ...{ id: randomUUID(), name: 'Nils', kind: 'person', days: [1, 2, 3, 4, 5], starts: 480, ends: 960 },
  ...{ noiseStarts: 540, noiseEnds: 900, retiredAt: null },
};

/** Two steps behind one another on one rung. */
async function twoSteps() {
  const { jobId } = shop();
  const words = { jobId, rung: 'weld' as const, note: '', needs: '' };
  for (const title of ['Seal', 'Wax']) valueOf(await addStep({ ...words, id: randomUUID(), title }));
  return { seal: await stepCalled('Seal'), wax: await stepCalled('Wax') };
}

describe('a calendar', () => {
  it('has every new step behind the one before it on the ladder, until it is said otherwise', async () => {
    const { seal, wax } = await twoSteps();
    expect(wax.needs).toEqual([seal.step.id]);
    valueOf(await actions.planStep({ step: { ...wax.step, minutes: 60 }, needs: [], people: [] }));
    expect(await stepCalled('Wax')).toMatchObject({ needs: [], step: { minutes: 60 } });
    const { changes } = await shop().rows();
    expect(changes.at(-1)).toMatchObject({ tableName: 'step', rowId: wax.step.id });
  });

  it('refuses steps that would need each other in a circle, by their names, and an edit that came second', async () => {
    const { seal, wax } = await twoSteps();
    const circle = await actions.planStep({ step: seal.step, needs: [wax.step.id], people: [] });
    expect(refusal(circle)).toMatch(/in a circle: .*“Wax”/);
    expect(refusal(await actions.planStep({ step: wax.step, needs: [wax.step.id], people: [] }))).toMatch(
      /does not need itself/,
    );
    valueOf(await actions.planStep({ step: { ...wax.step, minutes: 30 }, needs: [], people: [] }));
    expect((await actions.planStep({ step: { ...wax.step, minutes: 45 }, needs: [], people: [] })).ok).toBe(false);
    expect((await stepCalled('Wax')).step.minutes).toBe(30);
  });

  it('keeps people, days off, bookings and timers, and goes to another shop with all of it', async () => {
    const { jobId } = shop();
    const { seal } = await twoSteps();
    expect(refusal(await actions.putPerson({ ...nils, ends: 300 }))).toMatch(/ends after it begins/);
    valueOf(await actions.putPerson(nils));
    valueOf(await actions.putPerson(nils));
    expect(refusal(await actions.putPerson({ ...nils, id: randomUUID() }))).toMatch(/a Nils already/);
    valueOf(await actions.planStep({ step: { ...seal.step, minutes: 90, waits: 1440 }, needs: [], people: [nils.id] }));
    const off = { id: randomUUID(), day: '2026-12-24', kind: 'closed' as const, name: 'Christmas' };
    valueOf(await actions.addClosedDays({ days: [off] }));
    valueOf(await actions.addClosedDays({ days: [{ ...off, id: randomUUID() }] }));
    const booking = { id: randomUUID(), stepId: seal.step.id, minutes: 45, note: '' };
    valueOf(await actions.book(booking));
    valueOf(await actions.book(booking));
    expect(refusal(await actions.book({ ...booking, id: randomUUID(), minutes: 0 }))).not.toBe('');
    const timer = {
      id: randomUUID(),
      jobId,
      name: 'sealer',
      stepId: seal.step.id,
      ringsAt: '2026-11-28T09:00:00.000Z',
    };
    valueOf(await actions.setTimer(timer));
    const { closedDays, timers, rows } = await page();
    expect(closedDays.map(({ day }) => day)).toEqual(['2026-12-24']);
    expect(timers.map(({ name }) => name)).toEqual(['sealer']);
    expect(rows.closed).toEqual(['2026-12-24']);
    expect(await stepCalled('Seal')).toMatchObject({ booked: 45, wait: 1440, people: [nils.id] });
    // What is not finished says nothing of how well it was planned.
    expect(bookedAgainstPlan((await page()).steps)).toEqual({ planned: 0, booked: 0 });
    valueOf(await recordStepEvent({ id: randomUUID(), stepId: seal.step.id, kind: 'done', until: null, note: '' }));
    expect(bookedAgainstPlan((await page()).steps)).toEqual({ planned: 90, booked: 45 });

    const all = await shop().rows();
    const read = readArchiveDocuments(archiveDocuments(all));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    for (const table of ['steps', 'stepNeeds', 'stepPeople', 'bookings', 'closedDays', 'timers'] as const)
      expect(read.value[table], table).toEqual(all[table]);
    // Of the shop's people those go along who have a step.
    expect(read.value.people).toEqual(all.people.filter(({ id }) => id === nils.id));

    valueOf(await actions.hearTimer({ id: timer.id }));
    valueOf(await actions.hearTimer({ id: timer.id }));
    expect((await page()).timers).toEqual([]);
    valueOf(await actions.removeClosedDay({ id: closedDays[0]!.id }));
    expect((await page()).closedDays).toEqual([]);
  });

  it('puts steps one after another behind the rungs before theirs, once however often it is said', async () => {
    const { jobId } = shop();
    await twoSteps();
    const plan = { minutes: 30, waits: null, curesAt: null, keeps: null, noise: false, itemId: null };
    const steps = ['Strip', 'Prime'].map((title) => ({ ...plan, id: randomUUID(), title }));
    for (let i = 0; i < 2; i++) valueOf(await addStepsInTurn({ jobId, rung: 'weld', steps }));
    const { steps: all } = await page();
    expect(all.filter(({ step }) => step.title === 'Strip')).toHaveLength(1);
    const [strip, prime] = await Promise.all(['Strip', 'Prime'].map(stepCalled));
    expect(prime!.needs).toEqual([strip!.step.id]);
    // Not behind what else is welded: two joints are prepared beside each other.
    const before = all.filter(({ step }) => step.rung === 'fit').at(-1)!;
    expect(strip!.needs).toEqual([before.step.id]);
  });

  it('lets what follows begin when the wait is over that was said', async () => {
    const { seal, wax } = await twoSteps();
    const until = '2026-11-28T08:00:00.000Z';
    valueOf(await recordStepEvent({ id: randomUUID(), stepId: seal.step.id, kind: 'curing', until, note: '' }));
    const { rows } = await page();
    expect(rows.steps.find(({ id }) => id === seal.step.id)!.is).toMatchObject({
      kind: 'worked',
      ready: Date.parse(until),
    });
    expect(rows.steps.find(({ id }) => id === wax.step.id)!.needs).toEqual([seal.step.id]);
  });
});
