import { Pause, Play } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import type { CuttingPage, Worked } from '@/core/report/pages/cutting';
import { project, type SheetLayout, type ViewName } from '@/core/report/drawing/sheet';
import type { Vector } from '@/core/maths/geometry/vector';
import { Button } from '../kit/button';
import { FactorSlider, FACTORS } from '../sheet/factor-slider';
import { Sheet } from '../sheet/sheet';
import { useFormat } from '../shell/preferences-context';

interface CuttingSheetProps {
  readonly page: CuttingPage;
  readonly worked: Worked;
  /** Parts lit: of the panel in hand. */
  readonly lit?: ReadonlySet<string>;
  /** Braces proposed, by the points of their ends. */
  readonly proposed: readonly { readonly from: string; readonly to: string }[];
}

/** A movement of the loosest length about so large on the sheet, mm of the shell. */
const SHOWN = 90;
const BEAT = 60;

/** The shell after the stage in hand: what is out as outline alone, braces as struts, how it would move as a ghost. */
export function CuttingSheet({ page, worked, lit, proposed }: CuttingSheetProps) {
  const format = useFormat();
  const [braced, setBraced] = useState(true);
  const { playing, phase, toggle } = usePlaying();
  const state = worked.slack.states[worked.stage];
  const loosest = braced ? (state?.loosestBraced ?? state?.loosest) : state?.loosest;
  const suggested = useMemo(() => factorFor(loosest?.shape ?? []), [loosest]);
  const [factor, setFactor] = useState<number>();
  const times = factor ?? suggested;
  const row = worked.slack.rows.find(({ lengthId }) => lengthId === loosest?.lengthId);
  const stage = page.stages[worked.stage];
  const braces = braced ? page.braces.filter(({ state: now }) => now !== 'removed') : [];
  const pairs = [
    ...braces.map(({ brace, state: now }) => ({
      from: brace.fromPointId,
      to: brace.toPointId,
      strong: now === 'fitted',
    })),
    ...proposed,
  ];
  // Only what braces stand at, and the ends of the loosest length, are called by their codes.
  const named = new Set([...pairs.flatMap(({ from, to }) => [from, to]), ...(row?.pointIds ?? [])]);
  const faint = new Set(worked.figure.points.flatMap(({ id }) => (named.has(id) ? [] : [id])));
  const ghost = (view: ViewName, layout: SheetLayout) =>
    loosest ? <Ghost {...{ view, layout, worked, shape: loosest.shape }} by={times * phase} /> : null;
  return (
    <figure className="flex min-w-0 flex-col gap-2">
      <Sheet
        drawn={{
          figure: worked.figure,
          factor: times,
          title: [
            stage ? `After “${format.name(stage.name)}”` : 'Uncut',
            braced ? 'with its braces' : 'without braces',
          ],
          pairs,
          plain: true,
          faint,
          shellState: { out: new Set(worked.out), ...(lit ? { lit } : {}) },
          over: ghost,
        }}
      />
      <figcaption className="no-print flex flex-wrap items-center gap-3">
        {loosest && row ? (
          <span role="status">
            Loosest: <strong>{row.code}</strong> {format.name(row.name)}
          </span>
        ) : null}
        <span className="ml-auto flex flex-wrap items-center gap-3">
          <Button aria-pressed={!braced} onClick={() => setBraced(!braced)}>
            {braced ? 'Show without braces' : 'Show with braces'}
          </Button>
          {loosest ? (
            <Button onClick={toggle} aria-pressed={playing}>
              {playing ? <Pause size={18} aria-hidden /> : <Play size={18} aria-hidden />} {playing ? 'Stop' : 'Play'}
            </Button>
          ) : null}
          <FactorSlider factor={times} onChange={setFactor} onCommit={setFactor} />
        </span>
      </figcaption>
    </figure>
  );
}

/** From −1 to 1 and back while it plays; all the way out while it does not. */
function usePlaying() {
  const [playing, setPlaying] = useState(false);
  const [beat, setBeat] = useState(0);
  useEffect(() => {
    if (!playing) return undefined;
    const timer = setInterval(() => setBeat((last) => last + 1), BEAT);
    return () => clearInterval(timer);
  }, [playing]);
  return { playing, phase: playing ? Math.sin(beat / 6) : 1, toggle: () => setPlaying(!playing) };
}

function factorFor(shape: readonly number[]): number {
  const most = shape.reduce((best, value) => Math.max(best, Math.abs(value)), 0);
  return FACTORS.findLast((factor) => factor * most <= SHOWN) ?? 1;
}

interface GhostProps {
  readonly view: ViewName;
  readonly layout: SheetLayout;
  readonly worked: Worked;
  readonly shape: readonly number[];
  readonly by: number;
}

/** The members where they would stand. */
function Ghost({ view, layout, worked, shape, by }: GhostProps) {
  const at = new Map(
    worked.nodes.map(({ code, at: place }, i) => [
      code,
      place.map((value, k) => value + by * shape[3 * i + k]!) as unknown as Vector,
    ]),
  );
  const out = new Set(worked.out);
  return (
    <g stroke="var(--plus)" strokeWidth={1.3} strokeDasharray="6 3" opacity={0.85} data-ghost={view}>
      {worked.parts.map(({ code, kind, ends }) => {
        if (kind === 'sheet' || out.has(code)) return null;
        const [a, b] = ends.map((end) => at.get(end)!) as [Vector, Vector];
        const [[x1, y1], [x2, y2]] = [project(layout, view, a), project(layout, view, b)];
        return <line key={code} {...{ x1, y1, x2, y2 }} />;
      })}
    </g>
  );
}
