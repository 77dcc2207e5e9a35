import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import {
  entryKey,
  forgetEntry,
  forgetTaken,
  halfTyped,
  keepEntry,
  keepHalfTyped,
  keepTaken,
  sendEntry,
  takenEntries,
  waitingEntries,
} from './outbox';
import { keepEntry as keptReading, readingsEntry, strikeEntry } from './tape-entries';

/** The browser's storage for as long as a test runs. */
class Storage {
  private readonly kept = new Map<string, string>();
  getItem = (key: string) => this.kept.get(key) ?? null;
  /** What another window does just before this one's next write arrives. */
  meanwhile: (() => void) | undefined;
  get length() {
    return this.kept.size;
  }
  key = (i: number) => [...this.kept.keys()][i] ?? null;
  setItem = (key: string, value: string) => {
    this.others();
    this.kept.set(key, value);
  };
  removeItem = (key: string) => {
    if (!this.kept.has(key)) return;
    this.others();
    this.kept.delete(key);
  };

  private others() {
    const { meanwhile } = this;
    this.meanwhile = undefined;
    meanwhile?.();
  }
}

const writer = { roundId: 'round', author: 'Ronja' };
const height = { quantity: 'height', value: 151, measure: null, pointId: 'S1L', toPointId: null } as never;
const line = (raw: string) =>
  readingsEntry(writer, raw, [height], { pullId: null, phase: 'none' }, () => ({ id: 'tape' }));

let storage: Storage;
beforeEach(() => vi.stubGlobal('localStorage', (storage = new Storage())));
afterEach(() => vi.unstubAllGlobals());

describe('what the server has not acknowledged', () => {
  it('waits in the order it was typed, each round by itself', () => {
    const entries = [line('S1L h 151'), line('S1R h 150')];
    entries.forEach(keepEntry);
    keepEntry({ ...line('S1L h 1'), roundId: 'another' });
    expect(waitingEntries('round').map(({ readings }) => readings[0]!.raw)).toEqual(['S1L h 151', 'S1R h 150']);
    forgetEntry(entries[0]!);
    expect(waitingEntries('round')).toEqual([entries[1]]);
    expect(waitingEntries('another')).toHaveLength(1);
  });

  it('is told apart by what it holds, whatever that is', () => {
    const first = line('S1L h 151');
    const struck = strikeEntry(writer, { lineId: first.readings[0]!.lineId, reason: 'misread' });
    const kept = keptReading(writer, 'reading');
    expect(new Set([first, struck, kept, keptReading(writer, 'reading')].map(entryKey)).size).toBe(4);
    [first, struck, kept].forEach(keepEntry);
    forgetEntry(struck);
    expect(waitingEntries('round')).toEqual([first, kept]);
  });

  it('is not written away by another window that writes at the same moment', () => {
    const [sent, typed, third] = [line('S1L h 151'), line('S1R h 150'), line('F1L h 540')];
    keepEntry(sent);
    storage.meanwhile = () => keepEntry(typed);
    forgetEntry(sent);
    expect(waitingEntries('round')).toEqual([typed]);
    storage.meanwhile = () => forgetEntry(typed);
    keepEntry(third);
    expect(waitingEntries('round')).toEqual([third]);
  });

  it('is taken over from the one list it was kept in before', () => {
    const [first, second, later] = [line('S1L h 151'), line('S1R h 150'), line('F1L h 540')];
    localStorage.setItem('vinkel.outbox.round', JSON.stringify([first, second]));
    keepEntry(later);
    expect(waitingEntries('round')).toEqual([first, second, later]);
    forgetEntry(first);
    expect(waitingEntries('round')).toEqual([second, later]);
  });

  it('is nothing where the storage holds nonsense', () => {
    localStorage.setItem('vinkel.outbox.round', '{"half": ');
    expect(waitingEntries('round')).toEqual([]);
  });
});

describe('what the server has acknowledged', () => {
  it('is remembered until a page has it from the server itself', () => {
    const entries = [line('S1L h 151'), line('S1R h 150')];
    entries.forEach(keepTaken);
    forgetTaken('round', (entry) => entryKey(entry) === entryKey(entries[0]!));
    expect(takenEntries('round')).toEqual([entries[1]]);
  });

  it('is remembered five hundred lines back', () => {
    for (let i = 0; i < 503; i++) keepTaken(line(`S1L h ${i}`));
    const left = takenEntries('round').map(({ readings }) => readings[0]!.raw);
    expect([left.length, left[0], left.at(-1)]).toEqual([500, 'S1L h 3', 'S1L h 502']);
  });
});

describe('what is half typed', () => {
  it('is offered back until it is taken', () => {
    keepHalfTyped('round', 'S1L h 1');
    expect(halfTyped('round')).toBe('S1L h 1');
    keepHalfTyped('round', '');
    expect(halfTyped('round')).toBe('');
  });
});

describe('sending a line', () => {
  const answered = (status: number, body: unknown = {}) =>
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(body), { status })));

  it('knows taken from refused from not reached', async () => {
    answered(200);
    expect(await sendEntry(line('S1L h 151'))).toEqual({ result: 'taken' });
    answered(422, { faults: [{ message: 'this round is not here any more' }] });
    expect(await sendEntry(line('S1L h 151'))).toEqual({
      result: 'refused',
      message: 'this round is not here any more',
    });
    answered(503);
    expect(await sendEntry(line('S1L h 151'))).toEqual({ result: 'unreachable' });
    answered(507, { faults: [{ message: 'the disk is full' }] });
    expect(await sendEntry(line('S1L h 151'))).toEqual({ result: 'unreachable' });
    answered(500);
    expect((await sendEntry(line('S1L h 151'))).result).toBe('refused');
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')));
    expect(await sendEntry(line('S1L h 151'))).toEqual({ result: 'unreachable' });
  });
});
