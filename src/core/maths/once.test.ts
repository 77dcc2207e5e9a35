import { describe, expect, it, vi } from 'vitest';
import { onceFor, onceForSame } from './once';

describe('work that is done once', () => {
  it('is done anew for another thing, though it looks the same, and not where it came to nothing', () => {
    const work = vi.fn(({ size }: { size: number }) => (size > 1 ? { size } : undefined));
    const once = onceFor(work);
    const [small, large, alike] = [{ size: 1 }, { size: 2 }, { size: 2 }];
    expect(once(large)).toBe(once(large));
    expect(once(large)).not.toBe(once(alike));
    expect([once(small), once(small)]).toEqual([undefined, undefined]);
    expect(work).toHaveBeenCalledTimes(3);
  });

  it('is known again by what was asked, and forgotten when so much else was asked since', () => {
    const work = vi.fn((a: number, b: { readonly c: readonly number[] }) => a + b.c.length);
    const once = onceForSame(2, work);
    expect([once(1, { c: [1] }), once(1, { c: [1] }), once(1, { c: [2, 3] })]).toEqual([2, 2, 3]);
    expect(work).toHaveBeenCalledTimes(2);
    once(1, { c: [1] });
    once(5, { c: [] });
    once(1, { c: [1] });
    expect(work).toHaveBeenCalledTimes(3);
    once(1, { c: [2, 3] });
    expect(work).toHaveBeenCalledTimes(4);
  });
});
