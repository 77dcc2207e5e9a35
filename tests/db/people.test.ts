import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { PERSON, requestBy } from '../support/request';
import { benchPerTest, faultsOf, valueOf } from '../support/bench';
import { buildRecord } from '@/core/report/record/record';
import { Job } from '@/core/shell/job/job';
import type { Database } from '@/db/database';
import { migrate } from '@/db/migrate';
import { setPassphrase, setPin } from '@/db/people';
import { AWAY_IN_WORDS } from '@/formats/people';
import { readSignedRecord, signedRecordFile } from '@/formats/signed-record';
import { checkRecord } from '@/server/actions/check';
import { putPerson } from '@/server/actions/calendar';
import { addStep } from '@/server/actions/steps';
import { changePassphrase, givePassphrase, putMember, takePin } from '@/server/actions/people';
import { signRecord } from '@/server/actions/record';
import { takeTapeEntry } from '@/server/readings';
import { Entrance } from '@/server/people/entrance';
import { hashOfSecret, isSecret, Tries } from '@/server/people/secrets';
import { Sessions } from '@/server/people/sessions';
import { setSessions, theSessions } from '@/server/people/shared';
import { store } from '@/server/store';
import { pglite } from '../support/engines';

const shop = benchPerTest();
const WORDS = 'four words that stay';

const member = (name: string, more: object = {}) => ({
  ...{ id: randomUUID(), name, roles: ['measure' as const], owner: false, here: true },
  ...more,
});
const messages = (outcome: Parameters<typeof faultsOf>[0]) =>
  faultsOf(outcome).map(({ path, message }) => `${path}: ${message}`);

describe('what is kept of a passphrase', () => {
  it('is a salted argon2id hash: two of one differ, and each is of it and of nothing else', async () => {
    const [one, other] = await Promise.all([hashOfSecret(WORDS), hashOfSecret(WORDS)]);
    expect(one).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    expect(one).not.toBe(other);
    expect(await isSecret(WORDS, one)).toBe(true);
    expect(await isSecret(`${WORDS} `, one)).toBe(false);
    // However an accent is typed it is the same.
    expect(await isSecret('cafe\u0301 au lait', await hashOfSecret('caf\u00e9 au lait'))).toBe(true);
    for (const known of [undefined, null, 'no hash']) expect(await isSecret(WORDS, known)).toBe(false);
  });

  it('is tried so often under a name and from an address, and then it waits', async () => {
    const tries = new Tries('test', 2, async () => (await store()).database);
    expect(await tries.count('a', 'x')).toBe(true);
    await tries.forget('a');
    expect(await tries.count('a', 'x')).toBe(true);
    expect(await tries.count('a', 'x')).toBe(false);
    expect(await tries.count('b', 'y')).toBe(true);
  });
});

describe('the people of a shop', () => {
  it('are whoever said their name once; rows carry whom, and a form cannot say otherwise', async () => {
    const { jobId } = shop();
    const step = { id: randomUUID(), jobId, rung: 'weld' as const, title: 'Seal', note: '', needs: '' };
    valueOf(await addStep(step));
    const rows = await shop().rows();
    const ronja = rows.people.find(({ name }) => name === PERSON)!;
    expect(ronja).toMatchObject({ kind: 'person', roles: ['measure'], owner: false });
    const roundId = await shop().openRound('As found');
    expect((await shop().rows()).rounds[0]).toMatchObject({ author: PERSON, personId: ronja.id });
    const line = await shop().height(roundId, 'F1L', 541);
    const forged = { ...line, readings: line.readings.map((each) => ({ ...each, personId: randomUUID() })) };
    expect(messages(await takeTapeEntry(forged, randomUUID))[0]).toMatch(/personId: unknown field/);
    valueOf(await takeTapeEntry(line, randomUUID));
    expect((await shop().rows()).readings[0]).toMatchObject({ author: PERSON, personId: ronja.id });
  });

  it('have one name each, and keep what they may do when their hours change', async () => {
    const nils = member('Nils', { roles: ['measure', 'plan'] });
    valueOf(await putMember(nils));
    expect(messages(await putMember(member(' nils ')))).toEqual(['name: there is a nils already: say which']);
    const [person] = (await shop().rows()).people.filter(({ id }) => id === nils.id);
    const { roles: _, owner: __, ...hours } = person!;
    valueOf(await putPerson({ ...hours, starts: 420 }));
    expect((await shop().rows()).people.find(({ id }) => id === nils.id)).toMatchObject({
      ...{ starts: 420, roles: ['measure', 'plan'] },
    });
    // One who left gives the name free.
    valueOf(await putMember({ ...nils, here: false }));
    valueOf(await putMember(member('Nils')));
  });

  it('are never left without an owner who can get in', async () => {
    const [alva, nils] = [member('Nora', { owner: true }), member('Olof', { owner: true })];
    for (const each of [alva, nils]) valueOf(await putMember(each));
    // An owner without a passphrase cannot get in anyway.
    valueOf(await putMember({ ...nils, owner: false }));
    valueOf(await putMember({ ...nils, owner: true }));
    valueOf(await givePassphrase({ personId: alva.id, passphrase: WORDS }));
    const last = 'owner: nobody would own the shop: make somebody else with a passphrase an owner first';
    expect(messages(await putMember({ ...alva, owner: false }))).toEqual([last]);
    expect(messages(await putMember({ ...alva, here: false }))).toEqual([last]);
    valueOf(await givePassphrase({ personId: nils.id, passphrase: WORDS }));
    // Each takes the other's away at once: one of them is too late.
    const both = await Promise.all([alva, nils].map((each) => putMember({ ...each, owner: false })));
    expect(both.map(({ ok }) => ok).toSorted()).toEqual([false, true]);
  });

  it('take a passphrase long enough, and say the one before', async () => {
    const ronja = (await shop().rows()).people.find(({ name }) => name === PERSON)!;
    expect(messages(await givePassphrase({ personId: ronja.id, passphrase: 'short' }))[0]).toMatch(
      /at least ten signs/,
    );
    valueOf(await givePassphrase({ personId: ronja.id, passphrase: WORDS }));
    expect(messages(await changePassphrase({ before: 'not that one', passphrase: 'another one here' }))).toEqual([
      'before: that is not your passphrase: type it again',
    ]);
    valueOf(await changePassphrase({ before: WORDS, passphrase: 'another one here' }));
    expect(messages(await takePin({ passphrase: 'another one here', pin: '12' }))[0]).toMatch(/four to eight digits/);
    valueOf(await takePin({ passphrase: 'another one here', pin: '4711' }));
    expect(messages(await givePassphrase({ personId: randomUUID(), passphrase: WORDS }))[0]).toMatch(
      /not here any more/,
    );
  });
});

describe('a record', () => {
  // Whoever signs has no passphrase at first, whatever the tests before gave them.
  beforeEach(async () => {
    await (await store()).database.query('delete from credential');
  });
  const signNow = async (passphrase?: string) => {
    const open = buildRecord(Job.of(await shop().rows()), '').open ?? [];
    const accepted = open.map((each) => ({ ...each, reason: 'begun only' }));
    return signRecord({ id: randomUUID(), jobId: shop().jobId, accepted, ...(passphrase ? { passphrase } : {}) });
  };

  it('is signed with the passphrase said again, by whoever has one; ten wrong ones and it waits', async () => {
    valueOf(await signNow());
    const ronja = (await shop().rows()).people.find(({ name }) => name === PERSON)!;
    valueOf(await givePassphrase({ personId: ronja.id, passphrase: WORDS }));
    expect(messages(await signNow())).toEqual(['passphrase: your passphrase again']);
    expect(messages(await signNow('not that one'))).toEqual(['passphrase: that is not your passphrase: type it again']);
    valueOf(await signNow(WORDS));
    const signed = (await shop().rows()).signedRecords.find(({ number }) => number === 2)!;
    expect(signed).toMatchObject({ signedBy: PERSON, personId: ronja.id });
    for (let k = 0; k < 10; k++) await signNow('not that one');
    expect(messages(await signNow(WORDS))).toEqual([`passphrase: ${AWAY_IN_WORDS.tooOften}`]);
    expect((await shop().rows()).signedRecords).toHaveLength(2);
  });

  it('brought back is known by its file and by its digits, and one other figure is seen', async () => {
    valueOf(await signNow());
    const signed = (await shop().rows()).signedRecords[0]!;
    const file = signedRecordFile(signed);
    const record = { jobId: shop().jobId, jobName: 'Solbris', number: 1, signedBy: PERSON };
    expect(valueOf(await checkRecord({ file }))).toMatchObject({ kind: 'same', record });
    // How it is set out does not matter, nor the order of its fields.
    const { format, hash, ...rest } = JSON.parse(file) as Record<string, unknown>;
    expect(valueOf(await checkRecord({ file: JSON.stringify({ ...rest, hash, format }) }))).toMatchObject({
      kind: 'same',
    });
    expect(valueOf(await checkRecord({ file: file.replace('begun only', 'begun only.') }))).toMatchObject({
      ...{ kind: 'altered', record },
    });
    const digits = signed.hash!;
    expect(
      valueOf(await checkRecord({ digits: `${digits.slice(0, 8)} ${digits.slice(8, 16).toUpperCase()}` })),
    ).toEqual({
      ...{ kind: 'digits', record: expect.objectContaining(record) },
    });
    expect(messages(await checkRecord({ digits: digits.slice(0, 8) }))[0]).toMatch(/12 of them at least/);
    expect(messages(await checkRecord({ digits: 'f'.repeat(11) + '0123456789' }))[0]).toMatch(/no record signed here/);
    expect(messages(await checkRecord({ file: '{"format": 1' }))[0]).toMatch(/line 1/);
    expect(messages(await checkRecord({ file: '{}' }))[0]).toMatch(/no signed record/);
    // Altered and given digits of its own it is whole, but nobody signed it here.
    const altered = { ...signed, id: randomUUID(), number: 7 };
    const { hashOfRecord } = await import('@/server/record-hash');
    const own = signedRecordFile({ ...altered, hash: hashOfRecord(altered) });
    expect(readSignedRecord(own).ok).toBe(true);
    expect(valueOf(await checkRecord({ file: own }))).toEqual({ kind: 'elsewhere' });
  });
});

describe('a browser in which somebody said their passphrase', () => {
  let database: Database;
  let now = Date.parse('2026-11-28T08:00:00Z');
  let sessions: Sessions;
  let entrance: Entrance;
  const people = { alva: randomUUID(), nils: randomUUID() };
  const doorstep = { deviceId: null, address: '127.0.0.2', session: undefined };
  beforeAll(async () => {
    database = await pglite.open();
    await migrate(database);
    for (const [name, id] of Object.entries(people)) {
      await database.query(
        `insert into person (id, name, kind, days, starts, ends, noise_starts, noise_ends, roles, owner)
         values ($1, $2, 'person', '{1}', 480, 960, 480, 960, '{measure}', false)`,
        [id, name],
      );
      await setPassphrase(database, id, await hashOfSecret(`${name} and three more`), new Date(now).toISOString());
      await setPin(database, id, await hashOfSecret('4711'), new Date(now).toISOString());
    }
    sessions = new Sessions(
      async () => database,
      () => now,
    );
    entrance = new Entrance(async () => database, sessions);
  });
  afterAll(() => database.close());

  const come = async (name: string, at: Parameters<Entrance['signIn']>[2] = doorstep) => {
    const entered = await entrance.signIn(name, `${name.toLowerCase()} and three more`, at);
    if (!entered.ok) throw new Error(entered.why);
    return entered.token!;
  };

  it('is known by what it shows, on its own device alone, and locks itself after a quarter of an hour', async () => {
    const token = await come('Alva');
    const session = (await sessions.ofToken(token, null))!;
    expect(session).toMatchObject({ personId: people.alva, known: [people.alva] });
    for (const [shown, device] of [
      ['guessed', null],
      [undefined, null],
      [token, randomUUID()],
    ] as const)
      expect(await sessions.ofToken(shown, device)).toBeUndefined();
    const kept = await database.query('select * from session');
    expect(JSON.stringify(kept)).not.toContain(token);
    const locked = async () => sessions.isLocked((await sessions.ofToken(token, null))!);
    expect(await locked()).toBe(false);
    now += 14 * 60_000;
    await sessions.use(session);
    now += 14 * 60_000;
    expect(await locked()).toBe(false);
    now += 60_000;
    expect(await locked()).toBe(true);
    expect(await entrance.changeHands(session, people.alva, '4711')).toEqual({ ok: true });
    expect(await locked()).toBe(false);
    await sessions.lock(session);
    expect(await locked()).toBe(true);
    // After a month the passphrase is asked for.
    now += 31 * 24 * 3_600_000;
    expect(await sessions.ofToken(token, null)).toBeUndefined();
  });

  it('changes hands with a PIN between those who are known there, and asks for the passphrase after five wrong ones', async () => {
    const first = (await sessions.ofToken(await come('Alva'), null))!;
    expect(await entrance.changeHands(first, people.nils, '4711')).toEqual({ ok: false, why: 'passphraseAgain' });
    const both = (await sessions.ofToken(await come('Nils', { ...doorstep, session: first }), null))!;
    expect(both).toMatchObject({ personId: people.nils, known: [people.alva, people.nils] });
    expect(await sessions.byId(first.id)).toBeUndefined();
    expect(await entrance.changeHands(both, people.alva, '4711')).toEqual({ ok: true });
    expect((await sessions.byId(both.id))!.personId).toBe(people.alva);
    for (let k = 0; k < 5; k++)
      expect(await entrance.changeHands(both, people.nils, '0000')).toEqual({ ok: false, why: 'wrongPin' });
    expect(await entrance.changeHands(both, people.nils, '4711')).toEqual({ ok: false, why: 'passphraseAgain' });
    expect((await sessions.byId(both.id))!.known).toEqual([people.alva]);
    await sessions.forgetEverywhere(people.alva);
    expect(await sessions.byId(both.id)).toBeUndefined();
  });

  it('is not come into by trying, and learns nothing from being refused', async () => {
    const at = { ...doorstep, address: '127.0.0.9' };
    const wrong = { ok: false, why: 'wrong' };
    expect(await entrance.signIn('Nobody', 'whatever it is', at)).toEqual(wrong);
    for (let k = 0; k < 9; k++) expect(await entrance.signIn('Nils', 'whatever it is', at)).toEqual(wrong);
    expect(await entrance.signIn('Nils', 'nils and three more', at)).toEqual({ ok: false, why: 'tooOften' });
    // Others from elsewhere are not kept out by that.
    expect((await entrance.signIn('Alva', 'alva and three more', doorstep)).ok).toBe(true);
  });
});

describe('what somebody may not do', () => {
  const before = theSessions();
  afterAll(() => {
    requestBy(undefined);
    if (before) setSessions(before);
  });

  it('is refused with who may, where people prove who they are; what waited is taken from those known there', async () => {
    const { database } = await store();
    const roundId = await shop().openRound('As found');
    const [nils, alva] = [member('Pär'), member('Saga', { owner: true })];
    for (const each of [nils, alva]) valueOf(await putMember(each));
    const sessions = new Sessions(async () => database);
    setSessions(sessions);
    const token = await sessions.signIn(nils.id, null, undefined);
    const session = (await sessions.ofToken(token, null))!;
    requestBy({ session: session.id });
    const step = { id: randomUUID(), jobId: shop().jobId, rung: 'weld' as const, title: 'Seal', note: '', needs: '' };
    expect(messages(await addStep(step))).toEqual([
      'role: Pär may not plan here: ask somebody who may, or the owner of the shop for it',
    ]);
    expect(messages(await putMember(member('Ulf')))[0]).toMatch(/may not say who may do what/);
    const line = await shop().height(roundId, 'F1L', 541);
    const by = (author: string) => ({ ...line, readings: line.readings.map((each) => ({ ...each, author })) });
    expect(messages(await takeTapeEntry(by('Saga'), randomUUID))).toEqual([
      'signedOut: Saga has to say the passphrase on this device first',
    ]);
    valueOf(await takeTapeEntry(by('Pär'), randomUUID));
    expect((await shop().rows()).readings[0]).toMatchObject({ author: 'Pär', personId: nils.id });
    // An owner may everything; a request of the network that proved nothing may nothing.
    const owners = await sessions.ofToken(await sessions.signIn(alva.id, null, session), null);
    requestBy({ session: owners!.id });
    valueOf(await addStep(step));
    requestBy({ device: randomUUID() });
    expect(messages(await addStep({ ...step, id: randomUUID() }))).toEqual(['role: say who you are first']);
    requestBy({ session: randomUUID() });
    expect(messages(await addStep({ ...step, id: randomUUID() }))).toEqual(['role: say who you are first']);
  });
});
