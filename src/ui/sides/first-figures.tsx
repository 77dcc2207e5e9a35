'use client';

import { isReal, type FirstFigure } from '@/core/findings/first-figures';
import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { LengthEnds } from '@/core/shell/job/mirror-image';
import { useTask } from '../kit/use-task';
import { useFormat } from '../shell/preferences-context';
import { subjectText } from '../tape/tape';

const MOST = 6;

/** What the readings say of each other, before anything is located and after: what is more than chance first. */
export function FirstFigures({ rows, roundId }: { rows: JobRows; roundId: string }) {
  const { value: figures = [] } = useTask('firstFigures', rows, { roundId });
  if (figures.length === 0) return null;
  const real = figures.filter(isReal).length;
  return (
    <section aria-label="What the readings say of each other" data-first-figures={figures.length}>
      <h2 className="caps">Reading against reading</h2>
      <ul className="text-sm">
        {figures.slice(0, Math.max(MOST, real)).map((figure, i) => (
          <li key={i} className={isReal(figure) ? 'font-medium' : 'text-soft'} data-figure={figure.kind}>
            <FigureText figure={figure} rows={rows} />
          </li>
        ))}
      </ul>
      {figures.length > Math.max(MOST, real) ? (
        <p className="text-sm text-soft">and {figures.length - Math.max(MOST, real)} more that agree</p>
      ) : null}
    </section>
  );
}

function FigureText({ figure, rows }: { figure: FirstFigure; rows: JobRows }) {
  const format = useFormat();
  const job = Job.of(rows);
  const pair = ([from, to]: LengthEnds) => `${job.code(from)} – ${job.code(to)}`;
  const off = `${format.length(Math.abs(figure.difference))} ${format.plusMinus(2 * figure.sd)} ${format.unit}`;
  if (figure.kind === 'triangle') {
    const [a, c, b] = figure.pointIds.map((id) => job.code(id));
    return (
      <>
        {a} – {b} cannot be: by way of {c} it is shorter by {off}. One of the three lengths is wrong.
      </>
    );
  }
  if (figure.kind === 'repeat') {
    const [first] = figure.readingIds.map((id) => job.reading(id));
    return (
      <>
        {first ? subjectText(rows, first) : ''}, read {figure.readingIds.length} times: {off} apart
        {figure.real ? ', more than the instrument explains' : ''}.
      </>
    );
  }
  const [one, other] = figure.ends.map(pair);
  const [longer, shorter] = figure.difference < 0 ? [one, other] : [other, one];
  return (
    <>
      {figure.kind === 'diagonals' ? 'Diagonals' : 'Left and right'}:{' '}
      {figure.real ? `${longer} is longer than ${shorter} by ${off}` : `${one} and ${other} agree, ${off} apart`}.
    </>
  );
}
