'use client';

import { Link } from '../kit/link';
import { usePathname } from 'next/navigation';
import type { LadderRung } from '@/core/days/ladder';
import { useFormat } from '../shell/preferences-context';
import { RUNG_PATH, RUNG_WORD } from '@/core/report/vocabulary/words';

const PAGES: readonly (readonly [path: string, text: string])[] = [
  ['', 'Day sheet'],
  ['/chart', 'Chart'],
  ['/references', 'References'],
  ['/calendar', 'Calendar'],
  ['/time', 'Over time'],
  ['/log', 'Log'],
  ['/record', 'Record'],
];

/** The ladder: the rungs of the work, the one the job stands on, what it wants, and what is next. */
export function LadderRail({ jobId, rungs, next }: { jobId: string; rungs: readonly LadderRung[]; next?: string }) {
  const here = usePathname();
  const format = useFormat();
  const base = `/jobs/${jobId}`;
  return (
    <nav
      aria-label="The job"
      className="no-print flex shrink-0 flex-col gap-1 border-rule p-2 max-lg:border-b lg:w-52 lg:border-r lg:p-3"
    >
      <ul className="flex flex-wrap gap-x-1 lg:grid lg:grid-cols-[1.2fr_1fr]">
        {PAGES.map(([path, text]) => (
          <li key={path}>
            <Link
              href={base + path}
              aria-current={here === base + path ? 'page' : undefined}
              className="flex min-h-11 items-center px-2 hover:bg-faint aria-[current=page]:bg-faint aria-[current=page]:font-semibold"
            >
              {text}
            </Link>
          </li>
        ))}
      </ul>
      <ol className="relative flex overflow-x-auto lg:mt-2 lg:flex-col lg:border-x-2 lg:border-ink lg:px-1.5 lg:py-1">
        {rungs.map((rung) => (
          <Rung
            key={rung.rung}
            rung={rung}
            href={`${base}/${RUNG_PATH[rung.rung]}`}
            current={here === `${base}/${RUNG_PATH[rung.rung]}`}
          />
        ))}
      </ol>
      {next ? (
        <p className="px-1 pt-2 text-sm max-lg:hidden">
          <span className="caps block">Next</span>
          {format.name(next)}
        </p>
      ) : null}
    </nav>
  );
}

function Rung({ rung, href, current }: { rung: LadderRung; href: string; current: boolean }) {
  const open = rung.steps.filter((step) => step.state !== 'done' && step.state !== 'dropped');
  const waiting = open.find((step) => step.state === 'curing' || step.state === 'missing');
  return (
    <li className="shrink-0 lg:border-b-2 lg:border-ink lg:last:border-b-0">
      <Link
        href={href}
        aria-current={current ? 'page' : rung.state === 'here' ? 'step' : undefined}
        className={`flex min-h-11 items-center gap-2 px-2 hover:bg-faint aria-[current=page]:bg-faint ${rung.state === 'here' ? 'font-semibold' : ''} ${rung.state === 'ahead' ? 'text-soft' : ''}`}
      >
        <RungMark state={rung.state} />
        <span>{RUNG_WORD[rung.rung]}</span>
        <span className="ml-auto text-sm font-normal text-soft">
          {waiting ? (waiting.state === 'curing' ? 'curing' : 'waiting') : open.length > 0 ? `${open.length} open` : ''}
        </span>
      </Link>
    </li>
  );
}

/** Done: a tick of two strokes; here: a solid foot on the rung; ahead: an empty rung. */
function RungMark({ state }: { state: LadderRung['state'] }) {
  return (
    <svg
      viewBox="0 0 16 16"
      width="16"
      height="16"
      role="img"
      aria-label={state === 'here' ? 'the job stands here' : state}
    >
      {state === 'done' ? <path d="M2 8l4 4 8-9" fill="none" stroke="currentColor" strokeWidth="2" /> : null}
      {state === 'here' ? <path d="M1 3l9 5-9 5z" fill="currentColor" /> : null}
      {state === 'ahead' ? <path d="M3 8h10" stroke="currentColor" strokeWidth="1.5" /> : null}
    </svg>
  );
}
