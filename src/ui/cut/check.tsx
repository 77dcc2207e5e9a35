import { useState } from 'react';
import type { JudgedCheck } from '@/core/plan/cut/checks';
import { AFTER_WORD, causeText, DOOR_WORD } from '@/core/report/cut-words';
import type { CuttingPage, TellingView, Worked } from '@/core/report/pages/cutting';
import { CHECK_AFTER, DOOR_SHUTS, type RemovalCheck } from '@/core/shell/job/entities';
import { newCheck, type NewCheck } from '@/formats/inputs/cut';
import { typedUnit } from '@/formats/preferences';
import { parseLength } from '@/core/maths/units/length';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { usePreferences } from '../shell/preferences-context';

interface CheckProps {
  readonly page: CuttingPage;
  readonly worked: Worked;
  /** The tape or tram in the hand. */
  readonly instruments: readonly { readonly id: string; readonly name: string }[];
  readonly addCheck: Action<NewCheck>;
}

/** The lengths that tell what a cut set loose, read again in a minute, and what they say. */
export function RemovalChecks(props: CheckProps) {
  const { format } = usePreferences();
  const { page, worked } = props;
  const stage = page.stages[worked.stage];
  const [again, setAgain] = useState(0);
  if (!stage) return null;
  const last = worked.checks.findLast(({ stage: at }) => at === worked.stage);
  const more = last?.says.readToo ?? [];
  return (
    <section aria-label="After the metal is out" className="flex flex-col gap-3">
      <h2 className="text-xl">After “{format.name(stage.name)}”: read these again</h2>
      {worked.telling.length === 0 ? (
        <p className="text-soft">
          No length of this shell tells of it: give the panels of this stage their parts of the structure, and have
          points on metal that stays.
        </p>
      ) : stage.id === '' ? (
        <p className="text-soft">Give these panels a stage first.</p>
      ) : (
        <CheckForm key={`${again} ${more.length}`} {...props} more={more} done={() => setAgain(again + 1)} />
      )}
      <ol className="flex flex-col gap-3">
        {worked.checks.toReversed().map((judged) => (
          <CheckSaid key={judged.check.id} page={page} judged={judged} />
        ))}
      </ol>
    </section>
  );
}

interface FormProps extends CheckProps {
  readonly more: JudgedCheck['says']['readToo'];
  readonly done: () => void;
}

/** A length to be typed: one of the telling ones, or one that settles what they left open. */
interface Asked extends Pick<TellingView, 'code' | 'name' | 'fromPointId' | 'toPointId'> {
  readonly before?: number;
}

const UNSAID = '';

function CheckForm({ page, worked, instruments, addCheck, more, done }: FormProps) {
  const { format, preferences } = usePreferences();
  const stage = page.stages[worked.stage]!;
  const pointOf = (node: number) => page.points.find(({ code }) => code === worked.nodes[node]!.code)?.id ?? '';
  const asked: readonly Asked[] = [
    ...worked.telling,
    ...more.map(({ code, name, from, to }) => ({ code, name, fromPointId: pointOf(from), toPointId: pointOf(to) })),
  ];
  const empty = Object.fromEntries(asked.map((_, i) => [`read${i}`, ''])) as Record<`read${number}`, string>;
  const form = useEntryForm({
    schema: newCheck,
    action: addCheck,
    defaults: {
      ...{ after: 'cut' as RemovalCheck['after'], instrument: instruments[0]?.id ?? '', door: UNSAID },
      ...{ frontGap: '', rearGap: '' },
      ...empty,
    },
    read: (values, faults, id): NewCheck => {
      const length = (path: string) => {
        const typed = String((values as Record<string, unknown>)[path] ?? '').trim();
        if (typed === '') return null;
        const parsed = parseLength(typed, typedUnit(preferences));
        if (!parsed.ok) faults.push({ path, message: parsed.reason });
        return parsed.ok ? parsed.mm : null;
      };
      const readings = asked.flatMap(({ fromPointId, toPointId }, i) => {
        const value = length(`read${i}`);
        return value === null
          ? []
          : [
              {
                id: crypto.randomUUID(),
                checkId: id,
                fromPointId,
                toPointId,
                value,
                instrumentVersionId: values.instrument,
              },
            ];
      });
      return {
        check: {
          ...{ id, jobId: page.jobId, after: values.after, stageId: values.after === 'cut' ? stage.id : null },
          door: (values.door || null) as RemovalCheck['door'],
          ...{ frontGap: length('frontGap'), rearGap: length('rearGap') },
        },
        readings,
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Compare">
      {asked.map(({ code, name, before }, i) => (
        <TextField
          key={code}
          label={`${code} ${format.name(name)}`.trim()}
          hint={before === undefined ? 'not read before' : `it was ${format.length(before)}`}
          inputMode="decimal"
          {...form.field(`read${i}` as 'door')}
        />
      ))}
      <SelectField
        label="What was done"
        options={CHECK_AFTER.map((after) => [after, AFTER_WORD[after]] as const)}
        {...form.field('after')}
      />
      <SelectField
        label="Read with"
        options={instruments.map(({ id, name }) => [id, name] as const)}
        {...form.field('instrument')}
      />
      <SelectField
        label="Shut the door"
        options={[[UNSAID, 'not tried'], ...DOOR_SHUTS.map((door) => [door, DOOR_WORD[door]] as const)]}
        {...form.field('door')}
      />
      <span className="grid grid-cols-2 gap-3">
        <TextField label={`Gap in front ${format.unit}`} {...form.field('frontGap')} />
        <TextField label={`Gap behind ${format.unit}`} {...form.field('rearGap')} />
      </span>
    </FormFields>
  );
}

function CheckSaid({ page, judged: { check, says } }: { readonly page: CuttingPage; readonly judged: JudgedCheck }) {
  const { format } = usePreferences();
  const stage = page.stages.find(({ id }) => id === check.stageId);
  const worst = says.lengths
    .filter(({ verdict }) => verdict === 'moved')
    .toSorted((a, b) => Math.abs(b.moved) - Math.abs(a.moved))[0];
  return (
    <li className="border-l-4 border-rule pl-3" data-check={says.moved ? 'moved' : 'stayed'}>
      <p role="status">
        <strong>
          {worst
            ? `Moved ${format.difference(worst.moved)} ${format.plusMinus(worst.plusMinus)} ${format.unit}: stop and look`
            : says.lengths.length > 0
              ? 'Has not moved'
              : 'Nothing read'}
        </strong>{' '}
        <span className="text-soft">
          {AFTER_WORD[check.after]}
          {stage ? ` in “${format.name(stage.name)}”` : ''}, {check.author}, {format.day(check.at)}
        </span>
      </p>
      {worst ? (
        <p>
          {says.cause ? `Likeliest: ${causeText(says.cause)}.` : 'The model cannot tell what did it.'}{' '}
          {says.readToo.length > 0 ? `To find out, read ${says.readToo.map(({ code }) => code).join(', ')} too.` : ''}
        </p>
      ) : null}
      <p className="text-sm text-soft">
        {says.lengths
          .map(({ code, moved, plusMinus }) => `${code} ${format.difference(moved)} ${format.plusMinus(plusMinus)}`)
          .join('; ')}
        {check.door ? `; the door: ${DOOR_WORD[check.door]}` : ''}
        {check.frontGap === null ? '' : `, gap in front ${format.length(check.frontGap)}`}
        {check.rearGap === null ? '' : `, behind ${format.length(check.rearGap)}`}
      </p>
      {check.after === 'cut' || check.after === 'bracesOut' ? (
        <p className="text-sm text-soft">A verdict counts when nothing holds the shell but itself.</p>
      ) : null}
    </li>
  );
}
