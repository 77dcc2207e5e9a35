import { useLayoutEffect, useRef, useState, useSyncExternalStore, type RefObject } from 'react';

export interface SheetSize {
  readonly width: number;
  readonly height: number;
}

/** What stands above and below the sheet on its page, px. */
const AROUND = 190;
const SHAPE = 0.59;
const LOWEST = 360;
const NARROWEST = 560;
const AT_FIRST: SheetSize = { width: 1000, height: 590 };

/** Where a window notes how large its last sheet was, at which width and height of its own. */
const NOTED = 'vinkel-sheet-size';
const noted = () => `${NOTED} ${window.innerWidth} ${window.innerHeight}`;

/** The last sheet of this window was so large, and so will the next be: it need not be drawn twice. */
let last: SheetSize | undefined;

function lastSize(): SheetSize | undefined {
  const [width, height] = (sessionStorage.getItem(noted()) ?? '').split(' ').map(Number);
  return (last ??= width && height ? { width, height } : undefined);
}

function note(size: SheetSize): void {
  last = size;
  sessionStorage.setItem(noted(), `${size.width} ${size.height}`);
}

const never = () => () => undefined;

/**
 * The sheet in the pixels of its place on the page, so that its words keep their size however wide it is; on a phone it
 * is drawn as for a small window and scaled down.
 */
export function useSheetSize(): { place: RefObject<HTMLDivElement | null>; size: SheetSize } {
  const place = useRef<HTMLDivElement>(null);
  const expected = useSyncExternalStore(
    never,
    () => lastSize() ?? AT_FIRST,
    () => AT_FIRST,
  );
  const [measured, setMeasured] = useState<SheetSize>();
  useLayoutEffect(() => {
    const element = place.current;
    if (!element) return;
    const measure = () => {
      const width = Math.max(NARROWEST, Math.round(element.clientWidth));
      const height = Math.round(Math.min(SHAPE * width, Math.max(LOWEST, window.innerHeight - AROUND)));
      if (last?.width !== width || last.height !== height) note({ width, height });
      setMeasured(last);
    };
    // To ask now has the whole page laid out at once; the observer asks when it has been.
    if (lastSize() === undefined) measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { place, size: measured ?? expected };
}
