import { Printer } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useState } from 'react';
import { createPortal } from 'react-dom';
import { boundsOf, layOutToScale, VIEWS } from '@/core/report/drawing/sheet';
import { buttonClass } from '../kit/button';
import type { SheetDrawing } from './sheet';
import { TitleBlock } from './title-block';
import { Marks, Movements, ViewBase } from './view';

/** Papers, lying, mm; and the margin a printer leaves. */
const PAPERS = { A4: [297, 210], A3: [420, 297] } as const;
type Paper = keyof typeof PAPERS;
const EDGE = 10;
/** Sheet units a millimetre of paper: words keep the size they have on the screen. */
const UNITS = 3.4;
const MARGIN = 26;

/** Prints the sheet on a paper of one's choice, at a scale that stands on it. */
export function PrintSheet({ drawn }: { drawn: SheetDrawing }) {
  const [paper, setPaper] = useState<Paper>();
  useEffect(() => {
    if (!paper) return;
    const over = () => setPaper(undefined);
    window.addEventListener('afterprint', over);
    window.print();
    return () => window.removeEventListener('afterprint', over);
  }, [paper]);
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={buttonClass()}>
          <Printer size={18} aria-hidden /> Print
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="z-10 border border-ink bg-sheet p-1" sideOffset={4}>
            {(Object.keys(PAPERS) as Paper[]).map((each) => (
              <DropdownMenu.Item
                key={each}
                className="flex min-h-11 cursor-pointer items-center px-3 data-[highlighted]:bg-faint"
                onSelect={() => setPaper(each)}
              >
                On {each}, 1:{scaleOn(drawn, each)}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {paper ? createPortal(<PaperSheet drawn={drawn} paper={paper} />, document.body) : null}
    </>
  );
}

/** The sheet laid out on a paper: in sheet units, so many a millimetre. */
function onPaper({ figure }: SheetDrawing, paper: Paper) {
  const [width, height] = PAPERS[paper];
  const size = { width: (width - 2 * EDGE) * UNITS, height: (height - 2 * EDGE) * UNITS };
  const bounds = boundsOf(figure.points.map(({ position }) => position));
  return layOutToScale(bounds, size, MARGIN, UNITS);
}

const scaleOn = (drawn: SheetDrawing, paper: Paper): number => onPaper(drawn, paper).oneTo;

/** Seen by the printer alone. */
function PaperSheet({ drawn, paper }: { drawn: SheetDrawing; paper: Paper }) {
  const { layout, oneTo } = onPaper(drawn, paper);
  const { figure, factor, title, pairs = [], faint, stations, ghost } = drawn;
  const [width, height] = PAPERS[paper];
  const parts = { layout, figure, selected: [], pairs, faint, stations };
  return (
    <div className="paper-sheet">
      <style>{`@page { size: ${paper} landscape; margin: ${EDGE}mm; }`}</style>
      <svg
        viewBox={`0 0 ${layout.width} ${layout.height}`}
        style={{ width: `${width - 2 * EDGE}mm`, height: `${height - 2 * EDGE}mm` }}
        role="img"
        aria-label={`The sheet on ${paper}, 1:${oneTo}`}
      >
        {VIEWS.map((view) => (
          <g key={view}>
            <ViewBase view={view} {...parts} />
            <Movements {...{ view, layout, figure, factor, faint }} ghost={ghost?.movements} />
            <Marks view={view} {...parts} />
          </g>
        ))}
        <TitleBlock
          layout={layout}
          title={[...title, `${paper}, scale 1:${oneTo}`]}
          factor={factor}
          ghost={ghost?.name}
        />
      </svg>
    </div>
  );
}
