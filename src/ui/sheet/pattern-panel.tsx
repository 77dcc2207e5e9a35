'use client';

import { Job } from '@/core/shell/job/job';
import type { JobRows } from '@/core/shell/job/job-rows';
import { COMPONENT_WORD, patternSentences } from '@/core/report/pattern-sentences';
import type { RoundJudgement } from '@/core/round/judge/judgement';
import { placeNear, stationText } from '@/core/findings/place-names';
import { useFormat } from '../shell/preferences-context';
import type { LiveAnalysis } from './use-analysis';

/** What happened to the shell, in sentences and in figures. */
export function PatternPanel({
  rows,
  judgement,
  live,
  onSelect,
}: {
  rows: JobRows;
  judgement: RoundJudgement;
  live: LiveAnalysis;
  onSelect: (code: string) => void;
}) {
  const format = useFormat();
  const { analysis, busy } = live;
  if (!analysis)
    return (
      <p role="status" className="py-3">
        {live.failure ?? 'Working out the pattern …'}
      </p>
    );
  const { pattern, againstUndisturbed } = analysis;
  if (!pattern)
    return (
      <p className="py-3">
        There is nothing to measure a pattern against: hold control points, or look for undisturbed ones under Control.
      </p>
    );
  const point = (id: string) => rows.points.find((each) => each.id === id)!;
  const words = {
    length: format.length,
    uncertainty: format.uncertainty,
    unit: format.unit,
    near: (station: number) => stationText(station, placeNear(Job.of(rows), judgement, station), format),
    code: (id: string) => point(id).code,
    section: format.name,
    side: (id: string) => ({ left: -1, right: 1, centre: 0 })[point(id).side],
  };
  return (
    <section
      aria-label="Pattern of the damage"
      aria-busy={busy}
      className={`flex flex-col gap-3 py-3 ${busy ? 'opacity-60' : ''}`}
    >
      <div
        className="flex flex-col gap-1 text-lg"
        data-pattern={pattern.sections.map(({ section }) => section).join(' ')}
      >
        {patternSentences(pattern, words).map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
      </div>
      {againstUndisturbed ? (
        <p className="text-sm">
          No control points are held: this is against the undisturbed points found by the search.
        </p>
      ) : null}
      {pattern.sections.map(({ section, hinge, hingeSd, components }) => (
        <table key={section} className="ruled">
          <caption className="pb-1 text-left">
            <span className="font-cond text-lg capitalize">{format.name(section)}</span>{' '}
            <span className="text-sm text-soft">
              hinged at station {format.station(hinge.hinge)} ±{format.station(2 * hingeSd)}, amounts at station{' '}
              {format.station(hinge.end)} {format.unit}
            </span>
          </caption>
          <thead>
            <tr>
              <th>What</th>
              <th className="num">Amount</th>
              <th className="num">± {format.unit}</th>
              <th>More than chance</th>
            </tr>
          </thead>
          <tbody>
            {components.map(({ name, amount, sd, significant }) => (
              <tr key={name} data-component={name}>
                <td>{COMPONENT_WORD[name]}</td>
                <td className={`num ${significant ? 'font-semibold' : 'text-soft'}`}>{format.difference(amount)}</td>
                <td className="num text-soft">{format.uncertainty(2 * sd)}</td>
                <td>{significant ? 'yes' : 'no'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      {pattern.local.length > 0 ? (
        <p>
          By themselves:{' '}
          {pattern.local.map(({ id }) => (
            <button key={id} type="button" className="min-h-11 px-2 underline" onClick={() => onSelect(point(id).code)}>
              {point(id).code}
            </button>
          ))}
        </p>
      ) : null}
      <p className="text-sm text-soft">
        Mean of the two sides: mash, sway, sag; right minus left: diamond, spread, twist. Rearward, right and up are
        plus. “More than chance” means that in an undamaged shell measured like this one no more than one in a hundred
        shows any pattern, the search for the hinge included.
        {live.milliseconds ? ` Worked out in ${Math.round(live.milliseconds)} ms.` : ''}
      </p>
    </section>
  );
}
