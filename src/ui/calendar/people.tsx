import { SHOP_HOURS, SHOP_NOISE } from '@/core/shell/people';
import { WORKER_KINDS, type Person } from '@/core/shell/job/entities';
import { person as personInput, type PersonInput } from '@/formats/inputs/calendar';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import type { CalendarActions } from './actions';

interface PeopleProps {
  readonly people: readonly Person[];
  readonly putPerson: CalendarActions['putPerson'];
}

const DAY_WORD = ['', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;
const DAYS = [1, 2, 3, 4, 5, 6, 7] as const;
const KIND_WORD: Readonly<Record<Person['kind'], string>> = {
  person: 'somebody',
  tool: 'a thing there is one of: the welder, the booth',
};

const clockText = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
const minuteOf = (text: string): number => {
  const [hours = Number.NaN, minutes = 0] = text.split(':').map(Number);
  return hours * 60 + minutes;
};

/** Somebody who is not here any more, or is here again; what they may do stays. */
const retiredNow = ({ roles: _, owner: __, ...person }: Person): PersonInput => ({
  ...person,
  retiredAt: person.retiredAt === null ? new Date().toISOString() : null,
});

/** Who works in the shop, and when. */
export function People({ people, putPerson }: PeopleProps) {
  const format = useFormat();
  const { run, faults } = useAction(putPerson);
  return (
    <section aria-label="Who works, and when" className="flex flex-col gap-2">
      <div className="flex items-center gap-3">
        <h2 className="text-xl">Who works, and when</h2>
        <PersonDialog putPerson={putPerson} />
      </div>
      {people.length === 0 ? (
        <p className="text-soft">
          Nobody is named: steps go on from Monday to Friday, {clockText(SHOP_HOURS.starts)} to{' '}
          {clockText(SHOP_HOURS.ends)}, and any number at once.
        </p>
      ) : null}
      <ul>
        {people.map((each) => (
          <li key={each.id} className="flex flex-wrap items-center gap-x-3 border-b border-faint py-1">
            <span className={each.retiredAt === null ? 'grow' : 'grow text-soft'}>
              {format.name(each.name)}
              <span className="text-soft">
                {each.kind === 'tool'
                  ? ', whenever it is wanted'
                  : `, ${each.days.map((day) => DAY_WORD[day]!.slice(0, 2)).join(' ')} ${clockText(each.starts)}–${clockText(each.ends)}, noise ${clockText(each.noiseStarts)}–${clockText(each.noiseEnds)}`}
                {each.retiredAt === null ? '' : '; not here any more'}
              </span>
            </span>
            <PersonDialog person={each} putPerson={putPerson} />
            <Button
              look="quiet"
              aria-label={`${each.name} ${each.retiredAt === null ? 'is not here any more' : 'is here again'}`}
              onClick={() => run(retiredNow(each))}
            >
              {each.retiredAt === null ? 'Not here any more' : 'Here again'}
            </Button>
          </li>
        ))}
      </ul>
      <Faults faults={faults} />
    </section>
  );
}

interface PersonProps {
  readonly person?: Person;
  readonly putPerson: CalendarActions['putPerson'];
}

const PersonDialog = (props: PersonProps) => (
  <FormDialog
    title={props.person ? props.person.name : 'Somebody in the shop'}
    description="Named for all jobs of the shop"
    trigger={
      <Button
        look={props.person ? 'quiet' : 'plain'}
        aria-label={props.person ? `Change ${props.person.name}` : 'Name somebody'}
      >
        {props.person ? 'Change' : 'Name somebody'}
      </Button>
    }
  >
    {(close) => <PersonForm {...props} done={close} />}
  </FormDialog>
);

function PersonForm({ person, putPerson, done }: PersonProps & { done: () => void }) {
  const { starts, ends, days, noiseStarts, noiseEnds } = person ?? { ...SHOP_HOURS, ...SHOP_NOISE };
  const form = useEntryForm({
    schema: personInput,
    action: putPerson,
    defaults: {
      ...{ name: person?.name ?? '', kind: person?.kind ?? ('person' as Person['kind']) },
      ...{ starts: clockText(starts), ends: clockText(ends), days: days.map(String) },
      ...{ noiseStarts: clockText(noiseStarts), noiseEnds: clockText(noiseEnds) },
    },
    read: (values, faults, id) => {
      if (!values.name.trim()) faults.push({ path: 'name', message: 'a name' });
      const minute = (field: 'starts' | 'ends' | 'noiseStarts' | 'noiseEnds') => {
        const at = minuteOf(values[field]);
        if (Number.isNaN(at)) faults.push({ path: field, message: 'a time of day: 08:00' });
        return at;
      };
      return {
        ...{ id: person?.id ?? id, name: values.name.trim(), kind: values.kind, days: values.days.map(Number).sort() },
        ...{ starts: minute('starts'), ends: minute('ends') },
        ...{ noiseStarts: minute('noiseStarts'), noiseEnds: minute('noiseEnds') },
        retiredAt: person?.retiredAt ?? null,
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it">
      <TextField label="Name" {...form.field('name')} />
      <SelectField label="Is" options={WORKER_KINDS.map((kind) => [kind, KIND_WORD[kind]])} {...form.field('kind')} />
      <TextField label="Works from" type="time" {...form.field('starts')} />
      <TextField label="Until" type="time" {...form.field('ends')} />
      <TextField label="Noise from" type="time" {...form.field('noiseStarts')} />
      <TextField label="Noise until" type="time" {...form.field('noiseEnds')} />
      <fieldset className="flex flex-wrap gap-x-4 sm:col-span-2">
        <legend className="caps">On</legend>
        {DAYS.map((day) => (
          <label key={day} className="flex min-h-11 items-center gap-2">
            <input type="checkbox" className="size-5" value={String(day)} {...form.register('days')} /> {DAY_WORD[day]}
          </label>
        ))}
      </fieldset>
    </FormFields>
  );
}
