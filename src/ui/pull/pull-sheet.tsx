'use client';

import { Pause, Play } from 'lucide-react';
import { useMemo, useState } from 'react';
import { norm } from '@/core/maths/geometry/vector';
import { suggestFactor } from '@/core/report/drawing/sheet';
import type { PullPicture } from '@/core/report/pages/pulling';
import { Button } from '../kit/button';
import { FactorSlider } from '../sheet/factor-slider';
import { Ghost } from '../sheet/ghost';
import { layoutOf, Sheet } from '../sheet/sheet';
import { usePlaying } from '../sheet/use-playing';
import { Scene } from '../space/fetched-scene';
import { PullArrows, type Arrow, type TurnedBy } from './pull-arrows';
import { membersAt, nodeIn, together, type Shape } from './shape';

interface PullSheetProps {
  readonly picture: PullPicture;
  readonly arrows: readonly Arrow[];
  /** What the pulls shown leave once they are let go. */
  readonly stays: Shape;
  readonly title: string;
  /** Points to be watched: called by their codes. */
  readonly watched: ReadonlySet<string>;
  readonly on: TurnedBy;
  /** Beside another: without its own switches. */
  readonly small?: boolean;
}

/** The shell as it was read, and as the pulls would leave it: a ghost against where it belongs. */
export function PullSheet({ picture, arrows, stays, title, watched, on, small }: PullSheetProps) {
  const [inSpace, setInSpace] = useState(false);
  const [after, setAfter] = useState(true);
  const { playing, phase, toggle } = usePlaying();
  const suggested = useMemo(
    () =>
      suggestFactor(
        picture.figure.points.flatMap(({ movement }) => (movement ? [norm(movement)] : [])),
        layoutOf(picture.figure),
      ),
    [picture.figure],
  );
  const [factor, setFactor] = useState<number>();
  const times = factor ?? suggested;
  const share = stays.length === 0 ? 0 : playing ? (phase + 1) / 2 : after ? 1 : 0;
  const shape = useMemo(
    () => together([picture.now, stays.map((value) => share * value)]),
    [picture.now, stays, share],
  );
  const figure = useMemo(() => movedFigure(picture, shape), [picture, shape]);
  const moved = useMemo(
    // What stands where it belongs has no ghost.
    () => (shape.some((value) => value !== 0) ? membersAt(picture, shape, times) : []),
    [picture, shape, times],
  );
  const faint = useMemo(() => unnamed(picture, arrows, watched), [picture, arrows, watched]);
  return (
    <figure className="flex min-w-0 flex-col gap-2" data-after={share.toFixed(2)}>
      {inSpace ? (
        <Scene
          figure={{ ...figure, points: figure.points.filter(({ id }) => !faint.has(id)) }}
          factor={times}
          onSelect={() => undefined}
          besides={{ whole: figure, ghost: moved, pulls: arrows.map(({ from, to }) => [from, to] as const) }}
        />
      ) : (
        <Sheet
          drawn={{
            ...{ figure, factor: times, faint },
            title: [title, share > 0 ? 'as the pulls leave it' : 'as it was read'],
            over: (view, layout) => <Ghost {...{ view, layout, moved }} />,
            above: (view, layout) => <PullArrows {...{ view, layout, arrows, on }} />,
          }}
        />
      )}
      {small ? null : (
        <figcaption className="no-print flex flex-wrap items-center gap-3">
          <Button aria-pressed={inSpace} onClick={() => setInSpace(!inSpace)}>
            {inSpace ? 'On the sheet' : 'In space'}
          </Button>
          {stays.length > 0 ? (
            <>
              <Button aria-pressed={!after} onClick={() => setAfter(!after)}>
                {after ? 'Show it as read' : 'Show it pulled'}
              </Button>
              <Button onClick={toggle} aria-pressed={playing}>
                {playing ? <Pause size={18} aria-hidden /> : <Play size={18} aria-hidden />} {playing ? 'Stop' : 'Play'}
              </Button>
            </>
          ) : null}
          <span className="ml-auto">
            <FactorSlider factor={times} onChange={setFactor} onCommit={setFactor} />
          </span>
        </figcaption>
      )}
    </figure>
  );
}

/** The same figure with the movements of its judged points as the shape has them. */
function movedFigure({ figure, nodes }: PullPicture, shape: Shape): PullPicture['figure'] {
  const nodeOf = new Map(nodes.map(({ pointId }, i) => [pointId, i]));
  return {
    ...figure,
    points: figure.points.map((point) => {
      const node = nodeOf.get(point.id);
      return point.movement && node !== undefined ? { ...point, movement: nodeIn(shape, node) } : point;
    }),
  };
}

/** Points that stand right and that nothing is asked of: drawn, not called. */
function unnamed({ figure }: PullPicture, arrows: readonly Arrow[], watched: ReadonlySet<string>): ReadonlySet<string> {
  const at = new Set(arrows.map(({ from }) => from.join(' ')));
  return new Set(
    figure.points.flatMap(({ id, verdict, position }) =>
      verdict === 'outside' || watched.has(id) || at.has(position.join(' ')) ? [] : [id],
    ),
  );
}
