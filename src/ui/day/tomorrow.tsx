import { Children, type ReactNode } from 'react';
import type { DaySheet } from '@/core/days/day';
import type { LadderStep } from '@/core/days/ladder';
import type { TomorrowFirst } from '@/core/report/pages/calendar';
import { RUNG_WORD } from '@/core/report/vocabulary/words';
import { byCode } from '@/core/shell/by-code';
import { useFormat } from '../shell/preferences-context';

interface TomorrowProps extends Pick<DaySheet, 'tomorrow'> {
  readonly planned: readonly TomorrowFirst[];
}

/** What is first, by the calendar where something is planned in it and else by the ladder; what cures, what is missing. */
export function Tomorrow({ tomorrow, planned }: TomorrowProps) {
  const format = useFormat();
  return (
    <dl className="grid gap-x-6 gap-y-2 sm:grid-cols-3">
      <div>
        <dt className="caps">First</dt>
        {planned.map(({ who, title, at, goesOn }) => (
          <dd key={who + title} data-first={who}>
            {who ? `${format.name(who)}: ` : ''}
            {format.name(title)}{' '}
            <span className="text-soft">
              {goesOn ? 'goes on, ' : ''}
              {format.moment(at)}
            </span>
          </dd>
        ))}
        {planned.length > 0 ? null : (
          <dd>
            {tomorrow.first ? (
              <>
                {format.name(tomorrow.first.step.title)}{' '}
                <span className="text-soft">({RUNG_WORD[tomorrow.first.step.rung]})</span>
              </>
            ) : (
              'Every step is done.'
            )}
          </dd>
        )}
      </div>
      <Waiting title="Curing" steps={tomorrow.curing} />
      <Waiting title="Missing" steps={tomorrow.missing}>
        {tomorrow.unfitted.length > 0 ? <dd>braces only planned: {codesOf(tomorrow.unfitted)}</dd> : null}
        {tomorrow.unread.length > 0 ? (
          <dd>pulls not finished, or not read after release: {codesOf(tomorrow.unread)}</dd>
        ) : null}
      </Waiting>
    </dl>
  );
}

const codesOf = (rows: readonly { readonly code: string }[]) =>
  rows
    .map(({ code }) => code)
    .sort(byCode)
    .join(', ');

interface WaitingProps {
  readonly title: string;
  readonly steps: readonly LadderStep[];
  readonly children?: ReactNode;
}

function Waiting({ title, steps, children }: WaitingProps) {
  const format = useFormat();
  const more = Children.toArray(children).length > 0;
  return (
    <div>
      <dt className="caps">{title}</dt>
      {steps.length === 0 && !more ? <dd className="text-soft">nothing</dd> : null}
      {steps.map(({ step, event }) => (
        <dd key={step.id}>
          {format.name(step.title)}
          <span className="text-soft">
            {event?.until ? ` until ${format.day(event.until)}` : ''}
            {event?.note ? `, ${format.name(event.note)}` : ''}
          </span>
        </dd>
      ))}
      {children}
    </div>
  );
}
