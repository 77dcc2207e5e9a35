import { useState, type FormEvent } from 'react';
import { CHECK_SD, SCREEN_PLACES, usualChecks, type JudgedCheck } from '@/core/plan/panels/fit-checks';
import type { FittingPage } from '@/core/report/pages/fitting';
import { CHECK_WORD } from '@/core/report/fitting-words';
import { CHECK_KINDS, type FitCheck } from '@/core/shell/job/entities';
import { parseLength } from '@/core/maths/units/length';
import { fitChecks } from '@/formats/inputs/fitting';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Empty, Faults } from '../kit/faults';
import { FieldError, inputClass, SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { VerdictMark } from '../sheet/mark';
import type { CheckActions } from './actions';

interface ChecksProps {
  readonly jobId: string;
  readonly page: FittingPage;
  readonly actions: CheckActions;
}

/** What is read besides gap and flush: latches, lamps, seals, lines, screens; each with what is wanted and what it was read as. */
export function Checks(props: ChecksProps) {
  const { jobId, page, actions } = props;
  const { run, faults } = useAction(actions.addFitChecks);
  const add = (drafts: readonly Omit<FitCheck, 'id' | 'jobId'>[]) =>
    run({ jobId, checks: drafts.map((each) => ({ ...each, id: crypto.randomUUID(), jobId })) });
  const key = ({ hungId, kind, place }: Pick<FitCheck, 'hungId' | 'kind' | 'place'>) => `${hungId} ${kind} ${place}`;
  const known = new Set(page.checks.map(({ check }) => key(check)));
  const usual = usualChecks(page.panels.map(({ panel }) => panel)).filter((each) => !known.has(key(each)));
  return (
    <section aria-label="Checks of the whole" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-xl">Checks of the whole</h2>
        {usual.length > 0 ? <Button onClick={() => add(usual)}>The usual list</Button> : null}
        <FormDialog title="A check" trigger={<Button look="quiet">Add one</Button>}>
          {(close) => <CheckForm {...props} done={close} />}
        </FormDialog>
        <FormDialog title="A screen opening" trigger={<Button look="quiet">A screen opening</Button>}>
          {(close) => <ScreenForm {...props} done={close} />}
        </FormDialog>
      </div>
      <Faults faults={faults} />
      {page.checks.length === 0 ? (
        <Empty title="Nothing is checked yet">
          Latch and striker, lamps, bumper, a lid with its seal, the screen openings: what shows only when all of it is
          there. The usual list is a beginning.
        </Empty>
      ) : (
        <div className="overflow-x-auto">
          <table className="ruled" aria-label="Checks">
            <thead>
              <tr>
                <th>What</th>
                <th>Where</th>
                <th className="num">Wanted</th>
                <th className="num">Read</th>
                <th>Read it</th>
                <th>
                  <span className="sr-only">What can be done</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {page.checks.map((judged) => (
                <Row key={judged.check.id} judged={judged} actions={actions} />
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

function Row({
  judged: { check, panel, last, judged },
  actions,
}: {
  readonly judged: JudgedCheck;
  readonly actions: CheckActions;
}) {
  const format = useFormat();
  const { preferences } = usePreferences();
  const reading = useAction(actions.readFitCheck);
  const removing = useAction(actions.removeFitCheck);
  const [fault, setFault] = useState<string>();
  const isAngle = check.kind === 'angle';
  const shown = (value: number, signed = false) => (isAngle ? value.toFixed(1) : format.thin(value, signed));
  const take = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const typed = String(new FormData(form).get('value') ?? '');
    const parsed = isAngle ? parseLength(typed, 'mm') : parseLength(typed, typedUnit(preferences));
    setFault(parsed.ok ? undefined : parsed.reason);
    if (!parsed.ok) return;
    const outcome = await reading.run({
      id: crypto.randomUUID(),
      checkId: check.id,
      value: parsed.mm,
      sd: CHECK_SD[check.kind],
    });
    if (!outcome?.ok) return;
    form.reset();
    // On to the next one that is read.
    const fields = [...document.querySelectorAll<HTMLInputElement>('[data-check] input')];
    fields[fields.findIndex((each) => form.contains(each)) + 1]?.focus();
  };
  return (
    <tr data-check={`${panel ?? ''} ${check.kind}`}>
      <td>{format.name(CHECK_WORD[check.kind])}</td>
      <td>
        {panel ? `${panel}: ` : ''}
        {format.name(check.place)}
      </td>
      <td className="num">
        {shown(check.wanted)}{' '}
        <span className="text-soft">
          −{shown(check.under)} +{shown(check.over)}
        </span>
      </td>
      <td className="num">
        {last ? (
          <>
            {shown(last.value)} <VerdictMark verdict={judged!.verdict} />
          </>
        ) : (
          '–'
        )}
      </td>
      <td>
        <form onSubmit={take} className="flex gap-1">
          <input
            name="value"
            className={`${inputClass} max-w-28`}
            aria-label={`${panel ? `${panel}: ` : ''}${check.place}`}
            autoComplete="off"
          />
          <Button type="submit" look="quiet" disabled={reading.pending}>
            Take it
          </Button>
        </form>
        <FieldError error={fault ?? reading.faults[0]?.message} />
      </td>
      <td>
        {last ? null : (
          <Button look="quiet" onClick={() => removing.run({ id: check.id })}>
            Take out
          </Button>
        )}
        <FieldError error={removing.faults[0]?.message} />
      </td>
    </tr>
  );
}

type FormProps = ChecksProps & { readonly done: () => void };

function CheckForm({ jobId, page, actions, done }: FormProps) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const form = useEntryForm({
    schema: fitChecks,
    action: actions.addFitChecks,
    defaults: {
      kind: 'offset' as FitCheck['kind'],
      hungId: '',
      place: '',
      wanted: format.thin(0),
      under: format.thin(1),
      over: format.thin(1),
    },
    read: (values, faults, id) => {
      const length = lengthsOf(values, values.kind === 'angle' ? 'mm' : typedUnit(preferences), faults);
      const place = values.place.trim();
      if (!place) faults.push({ path: 'place', message: 'say where it is read' });
      const [wanted, under, over] = [length('wanted'), length('under'), length('over')];
      const check = { id, jobId, hungId: values.hungId || null, kind: values.kind, place, wanted, under, over };
      return { jobId, checks: [check] };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Add it">
      <SelectField
        label="What"
        options={CHECK_KINDS.map((kind) => [kind, format.name(CHECK_WORD[kind])])}
        {...form.field('kind')}
      />
      <SelectField
        label="Of"
        options={[
          ['', 'the shell'],
          ...page.panels.map(({ panel }) => [panel.id, `${panel.code} ${panel.name}`] as const),
        ]}
        {...form.field('hungId')}
      />
      <TextField label="Where" placeholder="rear wing, 200 behind the door" {...form.field('place')} />
      <TextField label={`Wanted, ${format.unit}`} hint="of an angle degrees" {...form.field('wanted')} />
      <TextField label="May be under by" {...form.field('under')} />
      <TextField label="May be over by" {...form.field('over')} />
    </FormFields>
  );
}

/** How far a screen opening may be off, mm. */
const SCREEN = 2;

function ScreenForm({ jobId, actions, done }: FormProps) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const form = useEntryForm({
    schema: fitChecks,
    action: actions.addFitChecks,
    defaults: { name: '', low: '', middle: '', top: '', diagonal: '' },
    read: (values, faults) => {
      const length = lengthsOf(values, typedUnit(preferences), faults);
      if (!values.name.trim()) faults.push({ path: 'name', message: 'say which: windscreen' });
      const wanted = [length('low'), length('middle'), length('top'), length('diagonal'), length('diagonal')];
      const checks = SCREEN_PLACES.map(([kind, place], i) => ({
        ...{ id: crypto.randomUUID(), jobId, hungId: null, kind, wanted: wanted[i]!, under: SCREEN, over: SCREEN },
        place: place.replace('screen opening', values.name.trim()),
      }));
      return { jobId, checks };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Add them">
      <TextField label="Which" placeholder="windscreen" {...form.field('name')} />
      <TextField
        label={`Width along the bottom, ${format.unit}`}
        hint="of the glass with its rubber"
        {...form.field('low')}
      />
      <TextField label={`Width half way up, ${format.unit}`} {...form.field('middle')} />
      <TextField label={`Width along the top, ${format.unit}`} {...form.field('top')} />
      <TextField label={`Both diagonals, ${format.unit}`} {...form.field('diagonal')} />
    </FormFields>
  );
}
