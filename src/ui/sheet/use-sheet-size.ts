import { useLayoutEffect, useRef, useState, type RefObject } from 'react';

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

/**
 * The sheet in the pixels of its place on the page, so that its words keep their size however wide it is; on a phone it
 * is drawn as for a small window and scaled down.
 */
export function useSheetSize(): { place: RefObject<HTMLDivElement | null>; size: SheetSize } {
  const place = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState(AT_FIRST);
  useLayoutEffect(() => {
    const element = place.current;
    if (!element) return;
    const measure = () => {
      const width = Math.max(NARROWEST, Math.round(element.clientWidth));
      const height = Math.round(Math.min(SHAPE * width, Math.max(LOWEST, window.innerHeight - AROUND)));
      setSize((before) => (before.width === width && before.height === height ? before : { width, height }));
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { place, size };
}
