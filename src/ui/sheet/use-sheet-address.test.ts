import { describe, expect, it } from 'vitest';
import { readSheetState, writeSheetState, type SheetState } from './use-sheet-address';

describe('the address of the sheet', () => {
  it('says exactly this view, there and back', () => {
    const state: SheetState = {
      point: 'R4L',
      factor: 30,
      panel: 'pattern',
      verdict: 'outside',
      section: 'rear',
      side: 'left',
      ghost: 1,
      zoom: { times: 3, focus: [2600, -400, 500] },
    };
    expect(readSheetState(new URLSearchParams(writeSheetState(state)))).toEqual({ dimension: undefined, ...state });
  });

  it('leaves out what it does not understand', () => {
    const state = readSheetState(new URLSearchParams('panel=nonsense&times=-4&zoom=1,2&verdict=maybe&side=up'));
    expect(state).toMatchObject({
      panel: 'points',
      factor: undefined,
      zoom: undefined,
      verdict: undefined,
      side: undefined,
    });
    expect(writeSheetState(state)).toBe('');
  });
});
