import { waitText, workText } from '@/core/report/calendar-words';
import type { CalendarPage, CalendarStep } from '@/core/report/pages/calendar';
import { RUNG_WORD } from '@/core/report/vocabulary/words';
import type { Fault } from '@/formats/faults';
import { parseDuration } from '@/formats/duration';
import { celsiusOf } from '@/formats/formatter';
import { plannedStep } from '@/formats/inputs/calendar';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import type { CalendarActions } from './actions';

interface PlanProps {
  readonly page: CalendarPage;
  readonly step: CalendarStep;
  readonly planStep: CalendarActions['planStep'];
}

/** How long a step takes and waits, what it needs, who does it. */
export function PlanStep(props: PlanProps) {
  const format = useFormat();
  return (
    <FormDialog
      wide
      title={props.step.step.title}
      description={`How it was planned before is kept. Times of curing are those of the maker’s sheet, at ${format.temperature(20)}: what is wrong in them is wrong here`}
      trigger={<Button>Plan it …</Button>}
    >
      {(close) => <PlanForm {...props} done={close} />}
    </FormDialog>
  );
}

const WORK_DAY = 480;
const CLOCK_DAY = 1440;
const YES_NO = [
  ['no', 'no'],
  ['yes', 'yes'],
] as const;
/** It begins in the morning of the day it is put to. */
const MORNING = 8;

function PlanForm({ page, step: of, planStep, done }: PlanProps & { done: () => void }) {
  const format = useFormat();
  const { step } = of;
  const others = page.steps.filter((each) => each.step.id !== step.id && each.state !== 'dropped');
  const warmth = (celsius: number) => (format.temperatureUnit === '°C' ? celsius : celsius * 1.8 + 32).toFixed(0);
  const form = useEntryForm({
    schema: plannedStep,
    action: planStep,
    defaults: {
      minutes: step.minutes === null ? '' : workText(step.minutes),
      waits: step.waits === null ? '' : waitText(step.waits),
      curesAt: step.curesAt === null ? '' : warmth(step.curesAt),
      keeps: step.keeps === null ? '' : waitText(step.keeps),
      tendEvery: step.tendEvery === null ? '' : waitText(step.tendEvery),
      notBefore: step.notBefore === null ? '' : format.date(step.notBefore),
      itemId: step.itemId ?? '',
      noise: step.noise ? 'yes' : 'no',
      outdoor: step.outdoor ? 'yes' : 'no',
      needs: [...of.needs],
      people: [...of.people],
    },
    read: (values, faults) => {
      const long = durationsOf(values, faults);
      const curesAt = values.curesAt.trim() === '' ? null : celsiusOf(Number(values.curesAt), format.temperatureUnit);
      if (Number.isNaN(curesAt)) faults.push({ path: 'curesAt', message: 'degrees, as a number' });
      // The hour it was dragged to stays where the day does.
      const stays = step.notBefore !== null && values.notBefore === format.date(step.notBefore);
      return {
        step: {
          ...step,
          ...{ minutes: long('minutes', WORK_DAY), waits: long('waits', CLOCK_DAY), keeps: long('keeps', CLOCK_DAY) },
          ...{ tendEvery: long('tendEvery', CLOCK_DAY), curesAt },
          notBefore: stays ? step.notBefore : values.notBefore ? format.instant(values.notBefore, MORNING) : null,
          ...{ itemId: values.itemId || null, noise: values.noise === 'yes', outdoor: values.outdoor === 'yes' },
        },
        needs: values.needs,
        people: values.people,
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Plan it so">
      <TextField label="Work" placeholder="3 h 30" hint="A day of work is eight hours" {...form.field('minutes')} />
      <TextField
        label="Then it waits"
        placeholder="24 h, 3 weeks"
        hint="Curing, drying, a part on order"
        {...form.field('waits')}
      />
      <TextField
        label={`It cures at, ${format.temperatureUnit}`}
        hint="Empty where warmth is no matter to it"
        {...form.field('curesAt')}
      />
      <TextField
        label="What follows must begin within"
        placeholder="2 days"
        hint="Of a primed face left open, a shell braced loosely; empty where it keeps"
        {...form.field('keeps')}
      />
      <TextField
        label="Looked after every"
        placeholder="1 d"
        hint="While it waits: wetted anew, turned"
        {...form.field('tendEvery')}
      />
      <TextField label="Not before" type="date" {...form.field('notBefore')} />
      <SelectField
        label="What it is about"
        options={[
          ['', 'nothing in particular'],
          ...page.items.map(({ id, code, name }) => [id, format.name(`${code} ${name}`)] as const),
        ]}
        {...form.field('itemId')}
      />
      <div className="grid grid-cols-2 gap-3">
        <SelectField label="Makes noise" options={YES_NO} {...form.field('noise')} />
        <SelectField label="Outdoors" options={YES_NO} {...form.field('outdoor')} />
      </div>
      <Boxes
        legend="Who does it, all of them at once"
        empty="Nobody is named yet: name them below the calendar."
        options={page.people
          .filter(({ retiredAt }) => retiredAt === null)
          .map(({ id, name }) => [id, format.name(name)])}
        {...form.register('people')}
      />
      <Boxes
        legend="After"
        empty="There is no other step."
        options={others.map(({ step: other }) => [other.id, `${RUNG_WORD[other.rung]}: ${format.name(other.title)}`])}
        {...form.register('needs')}
      />
    </FormFields>
  );
}

/** Reads durations of a form, minutes; an empty one is none. */
const durationsOf =
  (values: Readonly<Record<string, unknown>>, faults: Fault[]) =>
  (field: string, dayMinutes: number): number | null => {
    const text = String(values[field] ?? '');
    if (text.trim() === '') return null;
    const minutes = parseDuration(text, dayMinutes);
    if (minutes === undefined) faults.push({ path: field, message: 'so long: 45 min, 3 h 30, 2 d, 3 weeks' });
    return minutes ?? null;
  };

interface BoxesProps extends React.ComponentProps<'input'> {
  readonly legend: string;
  readonly empty: string;
  readonly options: readonly (readonly [value: string, name: string])[];
}

function Boxes({ legend, empty, options, ...box }: BoxesProps) {
  return (
    <fieldset className="max-h-56 overflow-auto border border-rule px-3 py-1">
      <legend className="caps px-1">{legend}</legend>
      {options.length === 0 ? <p className="text-soft">{empty}</p> : null}
      {options.map(([value, name]) => (
        <label key={value} className="flex min-h-11 items-center gap-2">
          <input type="checkbox" className="size-5 shrink-0" value={value} {...box} /> {name}
        </label>
      ))}
    </fieldset>
  );
}
