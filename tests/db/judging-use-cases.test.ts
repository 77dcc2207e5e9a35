import { NEW_BRACE, NEW_PULL } from '@/core/shell/job/entities';
import { buildRecord } from '@/core/report/record/record';
import { Job } from '@/core/shell/job/job';
import { loadJob } from '@/db/jobs';
import { store } from '@/server/store';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { chooseReferences } from '@/core/shell/references/chosen';
import * as jobs from '@/server/actions/jobs';
import { writeLogEntry } from '@/server/actions/log';
import { signRecord } from '@/server/actions/record';
import * as references from '@/server/actions/references';
import { importSister } from '@/server/actions/sister';
import * as work from '@/server/actions/work';
import type { MakeOf } from '@/formats/inputs/references';
import { benchPerTest, faultsOf, valueOf } from '../support/bench';

const bench = benchPerTest();

describe('references', () => {
  const make = (of: MakeOf, name = 'Another reference') =>
    references.makeReference({ jobId: bench().jobId, name, source: 'seen in the shop', of });

  it('put a planned change first and everything else last', async () => {
    const { point } = await bench().point('R1L');
    valueOf(await make({ kind: 'keptPart', figures: 'S1L 760 -690 148', unit: 'mm', trust: 0.8 }, 'Old sill'));
    valueOf(await make({ kind: 'plannedChange', pointIds: [point.id], offset: [0, -20, 0] }, 'Widened arch'));
    const ranked = (await bench().rows()).references.toSorted((a, b) => a.rank - b.rank).map(({ name }) => name);
    expect(ranked).toEqual(['Widened arch', 'Maker’s chart', 'Old sill']);
    const chosen = chooseReferences(await bench().rows());
    expect(chosen.points.get(point.id)!.row.y).toBe(-440);
  });

  it('name the line of what was typed that makes no sense', async () => {
    const figures = 'S1L 760 -690 148\nS9L 1 2 3';
    const [fault] = faultsOf(await make({ kind: 'keptPart', figures, unit: 'mm', trust: 1 }));
    expect(fault).toMatchObject({ path: 'of', message: expect.stringMatching(/^line 2: .*S9L/) });
    expect((await bench().rows()).references).toHaveLength(1);
  });

  it('change places, and are taken out of use and back', async () => {
    const { referenceId } = valueOf(
      await make({ kind: 'keptPart', figures: 'S1L 760 -690 148', unit: 'mm', trust: 1 }),
    );
    const { point, reference } = await bench().point('S1L');
    const used = async () => chooseReferences(await bench().rows()).points.get(point.id)!.row.z;
    expect(await used()).toBe(150);
    valueOf(await references.rankReferences({ jobId: bench().jobId, ids: [referenceId, reference.referenceId] }));
    expect(await used()).toBe(148);
    valueOf(await references.putInUse({ jobId: bench().jobId, id: referenceId, inUse: false }));
    expect(await used()).toBe(150);
    valueOf(await references.putInUse({ jobId: bench().jobId, id: referenceId, inUse: true }));
    valueOf(await references.trustReference({ id: referenceId, trust: 2.5 }));
    expect((await bench().rows()).references.find(({ id }) => id === referenceId)).toMatchObject({
      inUse: true,
      trust: 2.5,
    });
  });

  it('chosen by hand for one point hold against the ranks until taken back', async () => {
    const { referenceId } = valueOf(
      await make({ kind: 'keptPart', figures: 'S1L 760 -690 148', unit: 'mm', trust: 1 }),
    );
    const { point } = await bench().point('S1L');
    const choose = async (id: string | null) =>
      valueOf(
        await references.chooseReference({
          ...{ id: randomUUID(), jobId: bench().jobId, pointId: point.id, dimensionId: null, referenceId: id },
          reason: 'the old sill is sound',
        }),
      );
    await choose(referenceId);
    expect(chooseReferences(await bench().rows()).points.get(point.id)!.row.z).toBe(148);
    await choose(null);
    expect(chooseReferences(await bench().rows()).points.get(point.id)!.row.z).toBe(150);
  });

  it('say what a round lacks to be made into one', async () => {
    const roundId = await bench().openRound('As found');
    const faults = faultsOf(await make({ kind: 'earlierRound', roundId }));
    expect(faults).toMatchObject([{ path: 'of' }]);
    expect(faults[0]!.message.length).toBeGreaterThan(20);
  });

  it('remember which points were never meant to mirror each other', async () => {
    const ids = [(await bench().point('R1L')).point.id, (await bench().point('R1R')).point.id];
    valueOf(await references.setMirrored({ pointIds: ids, mirrored: false }));
    const marked = (await bench().rows()).points.filter(({ mirrored }) => !mirrored).map(({ code }) => code);
    expect(marked.sort()).toEqual(['R1L', 'R1R']);
  });
});

describe('a sister car', () => {
  const file = {
    name: 'sister.csv',
    text: 'id;side;x;y;z\nA;left;0;-401;541\nB;right;1;400;540\nC;left;761;-690;150\n',
  };

  it('comes in under this shell’s names as a round of its own', async () => {
    const [tape] = (await bench().rows()).instrumentVersions;
    const codes = { A: 'F1L', B: 'F1R', C: 'S1L' };
    const mapping = Object.fromEntries(
      await Promise.all(Object.entries(codes).map(async ([a, b]) => [a, (await bench().point(b)).point.id] as const)),
    );
    const common = { jobId: bench().jobId, shell: 'estate of the museum', unit: 'mm' as const, file };
    const input = { ...common, instrumentVersionId: tape!.id };
    expect(valueOf(await importSister({ ...input, mapping })).readings).toBe(9);
    const rows = await bench().rows();
    expect(rows.rounds).toMatchObject([{ shell: 'estate of the museum', number: 1 }]);
    const [fault] = faultsOf(await importSister({ ...input, mapping: {} }));
    expect(fault!.message).toMatch(/match at least three points/);
    const [noName] = faultsOf(await importSister({ ...input, shell: ' ', mapping }));
    expect(noName).toMatchObject({ path: 'shell', message: 'say which car it is' });
  });
});

describe('the log', () => {
  const form = (entry: Record<string, unknown>, photographs: readonly File[] = []) => {
    const data = new FormData();
    const usual = { kind: 'finding', text: 'The sill is soft', reason: '', roundId: null };
    const whole = { id: randomUUID(), jobId: bench().jobId, supersedes: null, ...usual, ...entry };
    data.set('entry', JSON.stringify({ entry: whole, subjects: [] }));
    for (const photograph of photographs) data.append('photograph', photograph);
    return data;
  };

  it('wants the reason of a decision', async () => {
    const [fault] = faultsOf(await writeLogEntry(form({ kind: 'decision', text: 'Leave it as it is' })));
    expect(fault).toMatchObject({ path: 'reason', message: 'a decision needs its reason' });
  });

  it('keeps an entry with its photographs, or neither', async () => {
    const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#886644' } })
      .png()
      .toBuffer();
    const picture = new File([new Uint8Array(png)], 'sill.png', { type: 'image/png' });
    const fake = new File(['<svg onload="x">'], 'sill.jpg', { type: 'image/jpeg' });
    const refused = await writeLogEntry(form({}, [picture, fake]));
    expect(faultsOf(refused)).toMatchObject([{ path: 'sill.jpg' }]);
    expect((await bench().rows()).logEntries).toEqual([]);
    valueOf(await writeLogEntry(form({}, [picture])));
    const rows = await bench().rows();
    expect(rows.logEntries).toHaveLength(1);
    expect(rows.photographs).toMatchObject([
      { name: 'sill.png', width: 40, height: 30, entryId: rows.logEntries[0]!.id },
    ]);
  });
});

describe('work on the shell', () => {
  it('is planned with what it is there for and changes by events alone', async () => {
    const [a, b] = [(await bench().point('S1L')).point.id, (await bench().point('S1R')).point.id];
    const { dimension } = await bench().dimension('S1L');
    const brace = {
      ...{ id: randomUUID(), jobId: bench().jobId, fromPointId: a, toPointId: b },
      ...{ kind: 'weldedTube' as const, ...NEW_BRACE, sectionId: '00000000-0000-4000-8000-000000000501' },
    };
    const item = { id: brace.id, jobId: brace.jobId, kind: 'brace' as const, code: 'X1', name: 'X1' };
    valueOf(await work.planBrace({ item, brace, dimensionIds: [dimension.id] }));
    const fitted = { id: randomUUID(), itemId: brace.id, kind: 'fitted' as const, key: '', reason: '', value: null };
    valueOf(await work.recordItemEvent(fitted));
    const roundId = await bench().openRound('As found');
    const pull = {
      ...{ id: randomUUID(), jobId: bench().jobId, pointId: a, roundId, aimX: 3, aimY: 0, aimZ: -1 },
      ...{ ...NEW_PULL, heldAt: 'sill clamps' },
    };
    valueOf(await work.planPull({ item: { ...item, id: pull.id, kind: 'pull', code: 'P1', name: 'P1' }, pull }));
    valueOf(await work.recordItemEvent({ ...fitted, id: randomUUID(), itemId: pull.id, kind: 'loaded' }));
    const mark = { id: randomUUID(), pullId: pull.id, ordinal: 0, target: 4, rest: 1.5, plusMinus: 1 };
    valueOf(await work.setStroke(mark));
    valueOf(await work.setStroke(mark));
    const plate = { id: randomUUID(), itemId: pull.id, pointId: b, share: 0.4 };
    valueOf(await work.setPlates({ itemId: pull.id, plates: [plate] }));
    const own = await work.setPlates({ itemId: pull.id, plates: [{ ...plate, pointId: a }] });
    expect(faultsOf(own)).toMatchObject([{ path: 'plates' }]);
    const all = await work.setPlates({ itemId: pull.id, plates: [plate, { ...plate, id: randomUUID(), share: 0.7 }] });
    expect(faultsOf(all)).toMatchObject([{ path: 'plates', message: expect.stringMatching(/less than 100 %/) }]);
    const rows = await bench().rows();
    expect(Job.of(rows).platesOf(pull)).toEqual([plate]);
    expect(Job.of(rows).braceEvents.map(({ kind }) => kind)).toEqual(['planned', 'fitted']);
    expect(rows.braceDimensions).toEqual([{ braceId: brace.id, dimensionId: dimension.id }]);
    expect(rows.strokes.map(({ target, rest }) => [target, rest])).toEqual([[4, 1.5]]);
    expect(Job.of(rows).pullEvents.map(({ kind }) => kind)).toEqual(['planned', 'loaded']);
    const twin = await work.planBrace(
      ((id) => ({ item: { ...item, id }, brace: { ...brace, id }, dimensionIds: [] }))(randomUUID()),
    );
    expect(faultsOf(twin)).toMatchObject([{ path: 'code' }]);
  });
});

/** What is open in a job as it stands. */
const openNow = async (jobId: string) =>
  buildRecord(Job.of((await loadJob((await store()).database, jobId))!), '').open ?? [];

describe('a signed record', () => {
  it('is numbered, and stays as it was when the job goes on', async () => {
    const { jobId } = bench();
    const accepted = (await openNow(jobId)).map((each) => ({ ...each, reason: 'begun only' }));
    const sign = (id: string = randomUUID()) => signRecord({ id, jobId, accepted });
    const first = randomUUID();
    expect(valueOf(await sign(first)).number).toBe(1);
    expect(valueOf(await sign(first)).number).toBe(1);
    const [job] = (await bench().rows()).jobs;
    valueOf(await jobs.editJob({ ...job!, owner: 'Harbour museum' }));
    expect(valueOf(await sign()).number).toBe(2);
    const records = (await bench().rows()).signedRecords.toSorted((a, b) => a.number - b.number);
    expect(records.map(({ snapshot }) => snapshot.job.owner)).toEqual(['', 'Harbour museum']);
  });

  it('is refused over what is open and nobody accepted, holds what was, and does its step', async () => {
    const { jobId } = bench();
    const open = await openNow(jobId);
    expect(open.map(({ kind }) => kind)).toContain('openStep');
    const [fault] = faultsOf(await signRecord({ id: randomUUID(), jobId }));
    expect(fault!.message).toMatch(/is open: settle it, or say why it is signed all the same/);
    const accepted = open.map((each) => ({ ...each, reason: 'handed over as it is' }));
    valueOf(await signRecord({ id: randomUUID(), jobId, accepted }));
    const rows = await bench().rows();
    expect(rows.signedRecords[0]!.snapshot.open).toEqual(accepted);
    const step = rows.steps.find(({ doneBy }) => doneBy === 'signing')!;
    expect(rows.stepEvents).toMatchObject([{ stepId: step.id, kind: 'done', author: 'Ronja', note: 'record 1' }]);
  });

  it('of no job is refused in words', async () => {
    const [fault] = faultsOf(await signRecord({ id: randomUUID(), jobId: randomUUID() }));
    expect(fault!.message).toBe('this job is not here any more');
  });
});
