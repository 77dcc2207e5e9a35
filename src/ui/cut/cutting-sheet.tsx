'use client';

import { Pause, Play } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { CuttingPage, Worked } from '@/core/report/pages/cutting';
import type { Vector } from '@/core/maths/geometry/vector';
import { slackWords } from '@/core/report/cut-words';
import type { Formatter } from '@/formats/formatter';
import { Button } from '../kit/button';
import { FactorSlider, FACTORS } from '../sheet/factor-slider';
import { Ghost } from '../sheet/ghost';
import { Sheet } from '../sheet/sheet';
import { usePlaying } from '../sheet/use-playing';
import { useFormat } from '../shell/preferences-context';
import { Scene } from '../space/fetched-scene';
import { lengthWords } from './length-words';

interface CuttingSheetProps {
  readonly page: CuttingPage;
  readonly worked: Worked;
  /** The part in hand: lit, and chosen by a click on the drawing. */
  readonly part: string | undefined;
  readonly onPart: (code: string | undefined) => void;
  /** Braces proposed, by the points of their ends. */
  readonly proposed: readonly { readonly from: string; readonly to: string }[];
}

/** A movement of the loosest length about so large on the sheet, mm of the shell. */
const SHOWN = 90;

/** The shell after the stage in hand: what is out as outline alone, braces as struts, how it would move as a ghost. */
export function CuttingSheet({ page, worked, part, onPart, proposed }: CuttingSheetProps) {
  const format = useFormat();
  const [braced, setBraced] = useState(true);
  const [inSpace, setInSpace] = useState(false);
  const { playing, phase, toggle } = usePlaying();
  const told = useLoosest(worked, braced);
  const [factor, setFactor] = useState<number>();
  const times = factor ?? told.suggested;
  const stage = page.stages[worked.stage];
  const struts = [...(braced ? strutsOf(page, worked) : []), ...proposed];
  const moved = told.shape && (told.isLoose || playing) ? membersMoved(worked, told.shape, times * phase) : [];
  const out = useMemo(() => new Set(worked.out), [worked.out]);
  return (
    <figure className="flex min-w-0 flex-col gap-2">
      {inSpace ? (
        <Scene
          figure={{ ...worked.figure, points: worked.figure.points.filter(({ id }) => endsOf(struts).has(id)) }}
          factor={times}
          onSelect={() => undefined}
          besides={{ whole: worked.figure, out, struts, ghost: moved }}
        />
      ) : (
        <Sheet
          drawn={{
            figure: worked.figure,
            factor: told.shape ? times : 0,
            title: [
              stage ? `After “${format.name(stage.name)}”` : 'Uncut',
              ...(page.braces.length > 0 ? [braced ? 'with its braces' : 'without braces'] : []),
            ],
            ...{ pairs: struts, plain: true },
            faint: unnamed(worked, struts, told.pointIds),
            shellState: { out, onPart, ...(part === undefined ? {} : { lit: new Set([part]) }) },
            over: (view, layout) => <Ghost {...{ view, layout, moved }} />,
          }}
        />
      )}
      <figcaption className="no-print flex flex-wrap items-center gap-3">
        <span role="status">{told.words(format)}</span>
        <span className="ml-auto flex flex-wrap items-center gap-3">
          <Button aria-pressed={inSpace} onClick={() => setInSpace(!inSpace)}>
            {inSpace ? 'On the sheet' : 'In space'}
          </Button>
          {page.braces.length > 0 ? (
            <Button aria-pressed={!braced} onClick={() => setBraced(!braced)}>
              {braced ? 'Show without braces' : 'Show with braces'}
            </Button>
          ) : null}
          {told.shape ? (
            <Button onClick={toggle} aria-pressed={playing}>
              {playing ? <Pause size={18} aria-hidden /> : <Play size={18} aria-hidden />} {playing ? 'Stop' : 'Play'}
            </Button>
          ) : null}
          {told.shape ? <FactorSlider factor={times} onChange={setFactor} onCommit={setFactor} /> : null}
        </span>
      </figcaption>
    </figure>
  );
}

type Struts = readonly { readonly from: string; readonly to: string; readonly strong?: boolean }[];

const endsOf = (struts: Struts) => new Set(struts.flatMap(({ from, to }) => [from, to]));

/** Points that are not called by their codes: all but those that braces stand at, and the ends of the loosest length. */
function unnamed({ figure }: Worked, struts: Struts, pointIds: readonly string[]): ReadonlySet<string> {
  const named = new Set([...endsOf(struts), ...pointIds]);
  return new Set(figure.points.flatMap(({ id }) => (named.has(id) ? [] : [id])));
}

const strutsOf = (page: CuttingPage, worked: Worked): Struts =>
  page.braces
    .filter(({ brace }) => worked.bracesIn.includes(brace.id))
    .map(({ brace, state }) => ({ from: brace.fromPointId, to: brace.toPointId, strong: state === 'fitted' }));

/** The length that gives most after the stage, and how the shell moves with it. */
function useLoosest({ slack, stage }: Worked, braced: boolean) {
  const state = slack.states[stage];
  const loosest = braced ? state?.loosestBraced : state?.loosest;
  const row = slack.rows.find(({ lengthId }) => lengthId === loosest?.lengthId);
  const cell = row?.stages[stage];
  const range = braced ? (cell?.braced ?? cell?.bare) : cell?.bare;
  const isLoose = range !== undefined && range.words[1] !== 'tight';
  const suggested = useMemo(() => factorFor(loosest?.shape ?? []), [loosest]);
  return {
    ...{ suggested, isLoose, shape: loosest?.shape, pointIds: row?.pointIds ?? [] },
    words: (format: Formatter) =>
      row && range
        ? `${isLoose ? 'Loosest' : 'Nothing is loose; most gives'}: ${lengthWords(row, format)}, ${slackWords(range)}`
        : state
          ? 'This sets nothing loose.'
          : '',
  };
}

function factorFor(shape: readonly number[]): number {
  const most = shape.reduce((best, value) => Math.max(best, Math.abs(value)), 0);
  return FACTORS.findLast((factor) => factor * most <= SHOWN) ?? 1;
}

/** The members where they would stand. */
function membersMoved({ nodes, parts, out }: Worked, shape: readonly number[], by: number): [Vector, Vector][] {
  const at = new Map(
    nodes.map(({ code, at: place }, i) => [
      code,
      place.map((value, k) => value + by * shape[3 * i + k]!) as unknown as Vector,
    ]),
  );
  return parts.flatMap(({ code, kind, ends }): [Vector, Vector][] =>
    kind === 'sheet' || out.includes(code) ? [] : [[at.get(ends[0]!)!, at.get(ends[1]!)!]],
  );
}
