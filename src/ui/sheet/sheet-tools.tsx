'use client';

import { Download, Maximize2, Minus, Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { ReactNode, RefObject } from 'react';
import { SIDES } from '@/core/shell/job/entities';
import { SECTIONS } from '@/core/shell/sections';
import type { Ghost } from '@/core/report/pages/ghosts';
import { Button, buttonClass } from '../kit/button';
import { FactorSlider } from './factor-slider';
import { saveSvg } from './save-svg';
import { SHOWN_VERDICTS, type SheetState, type ShownVerdict, type useFactor } from './use-sheet-address';
import { Select } from '../kit/select';
import { useFormat } from '../shell/preferences-context';

const VERDICT_WORD: Readonly<Record<ShownVerdict, string>> = {
  outside: 'outside',
  undecided: 'undecided',
  inside: 'inside',
  notJudged: 'not judged',
};

interface SheetToolsProps {
  readonly state: SheetState;
  readonly change: (some: Partial<SheetState>) => void;
  readonly exaggeration: ReturnType<typeof useFactor>;
  readonly ghosts: readonly Ghost[];
  readonly drawing: RefObject<SVGSVGElement | null>;
  /** Where the round's files are made. */
  readonly exports: string;
  readonly children?: ReactNode;
}

/** What is shown of the sheet: exaggeration, filters, the ghost of another round, a closer look, and ways to take it along. */
export function SheetTools({ state, change, exaggeration, ghosts, drawing, exports, children }: SheetToolsProps) {
  const format = useFormat();
  const { factor, slide, commit } = exaggeration;
  const zoom = (by: number) => {
    const times = (state.zoom?.times ?? 1) * by;
    const box = drawing.current?.dataset.middle?.split(' ').map(Number) as [number, number, number] | undefined;
    change({ zoom: times <= 1.001 ? undefined : { times, focus: state.zoom?.focus ?? box ?? [1500, 0, 500] } });
  };
  const filter = <T extends string>(
    label: string,
    key: 'verdict' | 'section' | 'side',
    values: readonly T[],
    word: (value: T) => string,
  ) => (
    <Select
      aria-label={label}
      value={state[key] ?? ''}
      onChange={(event) => change({ [key]: event.target.value || undefined })}
      options={[['', `${label}: all`], ...values.map((value) => [value, word(value)] as const)]}
    />
  );
  return (
    <div className="no-print flex flex-wrap items-center gap-x-3 gap-y-2">
      <FactorSlider factor={factor} onChange={slide} onCommit={commit} />
      {filter('Verdict', 'verdict', SHOWN_VERDICTS, (value) => VERDICT_WORD[value])}
      {filter('Section', 'section', SECTIONS, format.name)}
      {filter('Side', 'side', SIDES, format.name)}
      {ghosts.length > 0 ? (
        <Select
          aria-label="Ghost of another round"
          value={state.ghost ?? ''}
          onChange={(event) => change({ ghost: event.target.value ? Number(event.target.value) : undefined })}
          options={[
            ['', 'No ghost'],
            ...ghosts.map(({ number, name }) => [number, `Ghost: ${number}. ${name}`] as const),
          ]}
        />
      ) : null}
      <span className="flex">
        <Button aria-label="Closer" title="Closer (+)" onClick={() => zoom(1.5)}>
          <Plus size={18} aria-hidden />
        </Button>
        <Button aria-label="Farther" title="Farther (−)" onClick={() => zoom(1 / 1.5)} disabled={!state.zoom}>
          <Minus size={18} aria-hidden />
        </Button>
        <Button
          aria-label="Whole sheet"
          title="Whole sheet (0)"
          onClick={() => change({ zoom: undefined })}
          disabled={!state.zoom}
        >
          <Maximize2 size={18} aria-hidden />
        </Button>
      </span>
      <Select
        aria-label="Views"
        value={state.view ?? ''}
        onChange={(event) => change({ view: (event.target.value || undefined) as SheetState['view'], zoom: undefined })}
        options={[
          ['', 'All three views'],
          ['plan', 'Plan alone'],
          ['side', 'Side alone'],
          ['end', 'End alone'],
        ]}
      />
      <Button
        aria-pressed={state.beside ?? false}
        className="max-xl:hidden"
        onClick={() => change({ beside: state.beside ? undefined : true })}
      >
        {state.beside ? 'Lists below' : 'Lists beside'}
      </Button>
      {children}
      <TakeAlong {...{ factor, drawing, exports }} />
    </div>
  );
}

type Taking = Pick<SheetToolsProps, 'drawing' | 'exports'> & { factor: number };

const TakeAlong = ({ factor, drawing, exports }: Taking) => (
  <DropdownMenu.Root>
    <DropdownMenu.Trigger className={buttonClass()}>
      <Download size={18} aria-hidden /> Take along
    </DropdownMenu.Trigger>
    <DropdownMenu.Portal>
      <DropdownMenu.Content className="z-10 border border-ink bg-sheet p-1" sideOffset={4}>
        <DropdownMenu.Item
          className={MENU_ITEM}
          onSelect={() => drawing.current && saveSvg(drawing.current, 'sheet.svg')}
        >
          This sheet as SVG
        </DropdownMenu.Item>
        {(
          [
            ['dxf', 'Drawing as DXF, true scale'],
            ['csv', 'Points with deviations as CSV'],
            ['ply', 'Points in space as PLY'],
          ] as const
        ).map(([kind, text]) => (
          <DropdownMenu.Item key={kind} asChild>
            <a className={MENU_ITEM} href={`${exports}/${kind}?times=${factor}`} download>
              {text}
            </a>
          </DropdownMenu.Item>
        ))}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  </DropdownMenu.Root>
);

const MENU_ITEM = 'flex min-h-11 cursor-pointer items-center px-3 no-underline data-[highlighted]:bg-faint';
