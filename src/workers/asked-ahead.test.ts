import { describe, expect, it } from 'vitest';
import { demoRows } from '../../tests/support/demo-rows';
import { AskedAhead } from './asked-ahead';
import type { TaskOptions } from './pool';

const rows = demoRows('kvist');
const roundId = rows.rounds[0]!.id;

/** What is asked ahead, and of each run its signal. */
function asking() {
  const signals: AbortSignal[] = [];
  const ahead = new AskedAhead((_task, _rows, _input, { signal }: TaskOptions) => {
    signals.push(signal!);
    return Promise.resolve(`answer ${signals.length}` as never);
  });
  return { ahead, signals };
}

const { signal: asLongAsItTakes } = new AbortController();

describe('what is asked before a page is drawn', () => {
  it('is taken up by the page that asks the very same, once', async () => {
    const { ahead } = asking();
    ahead.ask('judge', rows, { roundId });
    expect(await ahead.takeUp('judge', rows, { roundId }, asLongAsItTakes)).toBe('answer 1');
    expect(ahead.takeUp('judge', rows, { roundId }, asLongAsItTakes)).toBeUndefined();
  });

  it('is not taken for another question, of other rows or of another task', () => {
    const { ahead } = asking();
    ahead.ask('judge', rows, { roundId });
    expect(ahead.takeUp('judge', rows, { roundId, warm: true }, asLongAsItTakes)).toBeUndefined();
    expect(ahead.takeUp('judge', { ...rows }, { roundId }, asLongAsItTakes)).toBeUndefined();
    expect(ahead.takeUp('sides', rows, { roundId }, asLongAsItTakes)).toBeUndefined();
  });

  it('is given up when a newer question comes before it was taken up, and when who took it up does so', () => {
    const { ahead, signals } = asking();
    ahead.ask('judge', rows, { roundId });
    ahead.ask('judge', { ...rows }, { roundId });
    const later = { ...rows };
    ahead.ask('judge', later, { roundId });
    expect(signals.map(({ aborted }) => aborted)).toEqual([true, true, false]);
    const control = new AbortController();
    void ahead.takeUp('judge', later, { roundId }, control.signal);
    ahead.ask('judge', rows, { roundId });
    expect(signals[2]!.aborted).toBe(false);
    control.abort();
    expect(signals.map(({ aborted }) => aborted)).toEqual([true, true, true, false]);
  });
});
