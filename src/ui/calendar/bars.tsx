'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { PlannedStep } from '@/core/days/calendar/schedule';
import { weekday } from '@/core/days/calendar/work-time';
import { MS_PER_HOUR } from '@/core/maths/units/time';
import type { CalendarPage, CalendarStep } from '@/core/report/pages/calendar';
import { useFormat } from '../shell/preferences-context';
import type { Axis } from './axis';
import type { Lane } from './lanes';

const LINE = 34;
const HEAD = 40;
/** A pointer that moves less than this takes a bar in hand and moves nothing, px. */
const DRAGS_FROM = 5;

interface BarsProps {
  readonly page: CalendarPage;
  readonly lanes: readonly Lane[];
  readonly axis: Axis;
  /** ms since 1970 */
  readonly now: number;
  readonly critical: ReadonlySet<string>;
  readonly inHand: string | undefined;
  readonly moves: Moves;
}

export interface Moves {
  readonly take: (id: string) => void;
  /** While it is dragged: where it would begin. */
  readonly over: (id: string, at: number) => void;
  /** Where it was let go. */
  readonly put: (id: string, at: number) => void;
}

/** The calendar: a lane each, bars of work, hatched where something only waits, and the line of now. */
export function Bars({ page, lanes, axis, now, critical, inHand, moves }: BarsProps) {
  const format = useFormat();
  const stepOf = new Map(page.steps.map((each) => [each.step.id, each]));
  const tops = lanes.map((_, i) => HEAD + lanes.slice(0, i).reduce((sum, { lines }) => sum + lines.length * LINE, 0));
  const height = HEAD + lanes.reduce((sum, { lines }) => sum + lines.length * LINE, 0);
  const width = axis.days.length * axis.width;
  return (
    <div className="flex border border-rule bg-sheet text-sm" data-calendar>
      <ul className="w-32 shrink-0 border-r border-rule sm:w-44" style={{ paddingTop: HEAD }}>
        {lanes.map(({ key, name, lines }) => (
          <li
            key={key}
            className="flex items-center overflow-hidden border-t border-faint px-2 leading-tight"
            style={{ height: lines.length * LINE }}
          >
            <span className="line-clamp-2" title={format.name(name)}>
              {format.name(name)}
            </span>
          </li>
        ))}
      </ul>
      <div className="min-w-0 grow overflow-x-auto" tabIndex={0} role="group" aria-label="Bars of the calendar">
        <svg width={width} height={height} className="block font-cond">
          <defs>
            <pattern id="waits" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <path d="M0 0V6" stroke="var(--soft)" strokeWidth="1.5" />
            </pattern>
          </defs>
          <Days {...{ axis, height }} closed={page.rows.closed} />
          {lanes.map(({ key, name, lines }, i) => (
            <g key={key}>
              <path d={`M0 ${tops[i]}H${width}`} stroke="var(--faint)" />
              {lines.flatMap((line, row) =>
                line.map((at, place) => (
                  <Bar
                    key={at.id}
                    {...{ at, axis, moves }}
                    room={
                      stepOf.get(at.id)!.step.title === name
                        ? undefined
                        : line[place + 1]
                          ? axis.x(line[place + 1]!.starts)
                          : Infinity
                    }
                    step={stepOf.get(at.id)!}
                    top={tops[i]! + row * LINE}
                    look={{ isCritical: critical.has(at.id), isInHand: at.id === inHand }}
                  />
                )),
              )}
            </g>
          ))}
          <g aria-hidden>
            <path
              d={`M${axis.x(now)} ${HEAD - 8}V${height}`}
              stroke="var(--ink)"
              strokeWidth="1.5"
              strokeDasharray="5 3"
            />
            <text x={axis.x(now) + 4} y={height - 5} fontSize="12" fill="currentColor">
              now
            </text>
          </g>
        </svg>
      </div>
    </div>
  );
}

const WEEKDAY = ['', 'Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'] as const;

interface DaysProps {
  readonly axis: Axis;
  readonly height: number;
  readonly closed: readonly string[];
}

function Days({ axis: { days, width }, height, closed }: DaysProps) {
  return days.map((day, i) => {
    const of = weekday(day);
    return (
      <g key={day}>
        {of > 5 || closed.includes(day) ? (
          <rect x={i * width} y={HEAD} width={width} height={height} fill="var(--faint)" opacity="0.6" />
        ) : null}
        <path
          d={`M${i * width} ${of === 1 ? 0 : HEAD - 12}V${height}`}
          stroke="var(--rule)"
          strokeWidth={of === 1 ? 1 : 0.5}
        />
        <text x={i * width + 4} y={HEAD - 14} fontSize="12" fill="currentColor">
          {WEEKDAY[of]} {Number(day.slice(8))}
        </text>
        {of === 1 || i === 0 ? (
          <text x={i * width + 4} y={12} fontSize="11" fill="var(--soft)">
            {day.slice(0, 7)}
          </text>
        ) : null}
      </g>
    );
  });
}

interface BarProps {
  readonly at: PlannedStep;
  readonly step: CalendarStep;
  readonly axis: Axis;
  readonly top: number;
  /** Where the next bar of its line begins, px; nothing where the lane is named as it is. */
  readonly room: number | undefined;
  readonly look: { readonly isCritical: boolean; readonly isInHand: boolean };
  readonly moves: Moves;
}

function Bar({ at, step, axis, top, room, look, moves }: BarProps) {
  const format = useFormat();
  const from = useRef<{ readonly x: number; readonly at: number }>(undefined);
  const [drags, setDrags] = useState(false);
  const { step: row, state } = step;
  const [x, end, ready] = [axis.x(at.starts), axis.x(at.ends), axis.x(at.ready)];
  const width = Math.max(4, end - x);
  const canMove = state === 'open' || state === 'missing';
  const isOver = state === 'done' || state === 'curing';
  const title = format.name(row.title);
  const place = (event: PointerEvent) => axis.at(axis.x(from.current!.at) + event.clientX - from.current!.x);
  const moved = (event: PointerEvent) => {
    if (!from.current || !canMove) return;
    if (!drags && Math.abs(event.clientX - from.current.x) < DRAGS_FROM) return;
    setDrags(true);
    moves.over(row.id, place(event));
  };
  const letGo = (event: PointerEvent) => {
    if (from.current && drags) moves.put(row.id, place(event));
    from.current = undefined;
    setDrags(false);
  };
  const keyed = (event: KeyboardEvent) => {
    if (event.key === 'Enter' || event.key === ' ') moves.take(row.id);
    else if (canMove && (event.key === 'ArrowRight' || event.key === 'ArrowLeft'))
      moves.put(row.id, at.starts + (event.key === 'ArrowRight' ? 1 : -1) * (event.shiftKey ? 24 : 1) * MS_PER_HOUR);
    else return;
    event.preventDefault();
  };
  return (
    <>
      <g
        role="button"
        tabIndex={0}
        data-bar={row.title}
        data-starts={new Date(at.starts).toISOString()}
        aria-label={`${title}, ${format.moment(new Date(at.starts).toISOString())}`}
        aria-pressed={look.isInHand}
        className={`touch-none ${canMove ? 'cursor-grab' : 'cursor-pointer'}`}
        onClick={() => moves.take(row.id)}
        onKeyDown={keyed}
        onPointerDown={(event) => {
          from.current = { x: event.clientX, at: at.starts };
          if (canMove) event.currentTarget.setPointerCapture(event.pointerId);
        }}
        onPointerMove={moved}
        onPointerUp={letGo}
        onPointerCancel={letGo}
      >
        <rect x={x} y={top} width={Math.max(44, ready - x)} height={LINE} fill="transparent" />
        {at.ready > at.ends ? (
          <rect
            x={end}
            y={top + 9}
            width={Math.max(3, ready - end)}
            height={LINE - 18}
            fill="url(#waits)"
            stroke="var(--soft)"
            strokeWidth="0.75"
          />
        ) : null}
        <rect
          x={x}
          y={top + 4}
          width={width}
          height={LINE - 8}
          fill={isOver ? 'var(--soft)' : state === 'begun' ? 'var(--lit)' : 'var(--paper)'}
          stroke="var(--ink)"
          strokeWidth={look.isInHand ? 3 : look.isCritical ? 2.25 : 1}
        />
      </g>
      {/* What is cut short is no name: the bar has its own. */}
      {room === undefined ? null : (
        <BarText {...{ title, x, width, room, isOver }} y={top + 21} behind={Math.max(x + width, ready)} />
      )}
    </>
  );
}

/** Of a letter, px; and what a name must have room for to be written. */
const LETTER = 6.2;
const FEWEST = 5;

interface BarTextProps {
  readonly title: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  /** Where the bar and what it waits end, and where the next begins, px. */
  readonly behind: number;
  readonly room: number;
  readonly isOver: boolean;
}

/** The name of a step behind its bar where there is room, else in it, as far as it goes; the whole of it on pointing at it. */
function BarText({ title, x, y, width, behind, room, isOver }: BarTextProps) {
  const [after, within] = [room - behind - 8, width - 8].map((px) => Math.floor(px / LETTER)) as [number, number];
  const fits = Math.max(after, within);
  if (fits < FEWEST) return null;
  const isBehind = after >= Math.min(title.length, within + 1);
  const most = Math.min(isBehind ? after : within, 44);
  return (
    <text
      x={isBehind ? behind + 4 : x + 4}
      y={y}
      fontSize="12"
      fill={!isBehind && isOver ? 'var(--sheet)' : 'currentColor'}
      aria-hidden
      className="pointer-events-none select-none"
    >
      {title.length > most ? `${title.slice(0, most - 1)}…` : title}
    </text>
  );
}
