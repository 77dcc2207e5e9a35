import { Link } from '../kit/link';
import type { StiffeningPage } from '@/core/report/pages/stiffening';
import { STIFFENER_WORD, stiffenerFaultText, stiffeningText } from '@/core/report/stiffening-words';
import { STIFFENER_KINDS, type Stiffener } from '@/core/shell/job/entities';
import { savedStiffener } from '@/formats/inputs/welding';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { TakeBack } from '../work/take-back';
import { freeCode } from '../work/free-code';
import type { WeldActions } from './actions';

interface StiffenersProps {
  readonly jobId: string;
  readonly page: StiffeningPage;
  readonly actions: Pick<WeldActions, 'saveStiffener' | 'recordItemEvent' | 'withdraw'>;
}

type Effect = StiffeningPage['stiffeners'][number];

/** Doublers, ribs and gussets: what each is worth to the dimensions, and what it weighs. */
export function Stiffeners(props: StiffenersProps) {
  const { page } = props;
  return (
    <section aria-label="Stiffening" className="flex flex-col gap-3 border-t-2 border-ink pt-2">
      <div className="flex flex-wrap items-center gap-4">
        <h2 className="text-xl">Stiffening</h2>
        {page.members.length > 0 ? <StiffenerDialog {...props} /> : null}
      </div>
      {page.members.length === 0 ? (
        <p className="text-soft">
          There is too little to make a structure of: say on <Link href={`/jobs/${props.jobId}/cut`}>Cut</Link> which
          body it is.
        </p>
      ) : page.stiffeners.length === 0 ? (
        <p className="text-soft">
          Nothing is put on. Try a doubler, a rib or a gusset here and see what it does before it is made.
        </p>
      ) : (
        <ul className="flex flex-col gap-3">
          {page.stiffeners.map((effect) => (
            <StiffenerLine key={effect.stiffener.id} {...props} effect={effect} />
          ))}
        </ul>
      )}
    </section>
  );
}

/** So many of the lengths it stiffens are told. */
const TOLD = 4;

function StiffenerLine({ effect, ...props }: StiffenersProps & { readonly effect: Effect }) {
  const format = useFormat();
  const happening = useAction(props.actions.recordItemEvent);
  const { stiffener, isOn, kilograms, gains, fault } = effect;
  const length = (mm: number) => `${format.thin(mm)} ${format.unit}`;
  const named = (code: string) => props.page.members.find((each) => each.code === code)?.name ?? code;
  const { long, width, height, thickness } = stiffener;
  const size = [long, width, height].flatMap((each) => (each === null ? [] : [format.thin(each)])).join(' × ');
  return (
    <li className="flex flex-col gap-1" data-stiffener={stiffener.code}>
      <div className="flex flex-wrap items-center gap-x-4">
        <p className="text-lg">
          {stiffener.code} {STIFFENER_WORD[stiffener.kind]} on {format.name(named(stiffener.part))}
          {stiffener.otherPart === '' ? '' : ` and ${format.name(named(stiffener.otherPart))}`}
        </p>
        <p className="text-soft">
          {size} {format.unit} of {length(thickness)} sheet, {kilograms.toFixed(kilograms < 1 ? 2 : 1)} kg
          {isOn ? '; it is on' : ''}
        </p>
        <span className="ml-auto flex gap-2">
          <Button
            look="quiet"
            disabled={happening.pending}
            onClick={() =>
              void happening.run({
                ...{ id: crypto.randomUUID(), itemId: stiffener.id, key: '', reason: '', value: null },
                kind: isOn ? 'removed' : 'welded',
              })
            }
          >
            {isOn ? 'It is off again' : 'It is welded on'}
          </Button>
          <StiffenerDialog {...props} known={effect} />
          <TakeBack
            what={stiffener.code}
            row={{ jobId: stiffener.jobId, tableName: 'work_item', rowId: stiffener.id }}
            withdraw={props.actions.withdraw}
          />
        </span>
      </div>
      {fault ? (
        <p role="alert" className="border-l-4 border-minus pl-3">
          {stiffenerFaultText(fault)}
        </p>
      ) : gains.length === 0 ? (
        <p>No dimension is any stiffer for it: it is only weight there.</p>
      ) : (
        <p data-gains={gains.length}>
          Under the hand:{' '}
          {gains
            .slice(0, TOLD)
            .map((gain) => stiffeningText(gain, { length: (mm) => `${format.fine(mm)} ${format.unit}` }))
            .join('; ')}
          .
        </p>
      )}
      <Faults faults={happening.faults} />
    </li>
  );
}

function StiffenerDialog({ jobId, page, actions, known }: StiffenersProps & { readonly known?: Effect }) {
  return (
    <FormDialog
      wide
      title={known ? `Stiffener ${known.stiffener.code}` : 'Something to stiffen it'}
      description="A doubler lies flat on a member, a rib stands on it, a gusset fills the corner where two meet. What it does is worked out at once through the structure."
      trigger={<Button look="quiet">{known ? 'Change' : 'Try one'}</Button>}
    >
      {(close) => <StiffenerForm {...{ jobId, page, actions, done: close }} {...(known ? { known } : {})} />}
    </FormDialog>
  );
}

interface StiffenerFormProps extends StiffenersProps {
  readonly known?: Effect;
  readonly done: () => void;
}

function StiffenerForm({ jobId, page, actions, known, done }: StiffenerFormProps) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const unit = typedUnit(preferences);
  const there = known?.stiffener;
  const shown = (mm: number | null | undefined, usual: number) => format.thin(mm ?? usual);
  const form = useEntryForm({
    schema: savedStiffener,
    action: actions.saveStiffener,
    defaults: {
      ...{ code: there?.code ?? freeCode(page.usedCodes, 'ST'), kind: there?.kind ?? ('doubler' as Stiffener['kind']) },
      ...{ part: there?.part ?? page.members[0]?.code ?? '', otherPart: there?.otherPart ?? '' },
      ...{ long: shown(there?.long, 300), width: shown(there?.width, 50), height: shown(there?.height, 20) },
      thickness: shown(there?.thickness, 1.2),
    },
    read: (values, faults, identity) => {
      const length = lengthsOf(values, unit, faults);
      const [id, version] = [there?.id ?? identity, there?.version ?? 1];
      const { kind } = values;
      if (kind === 'gusset' && !values.otherPart)
        faults.push({ path: 'otherPart', message: 'a gusset ties one member to another' });
      return {
        item: {
          ...{ id, jobId, kind: 'stiffener' as const, code: (values.code ?? '').trim(), name: STIFFENER_WORD[kind] },
          version: known?.item.version ?? 1,
        },
        stiffener: {
          ...{ id, jobId, version, kind, part: values.part, otherPart: kind === 'gusset' ? values.otherPart : '' },
          ...{ long: length('long'), thickness: length('thickness') },
          width: kind === 'gusset' ? null : length('width'),
          height: kind === 'rib' ? length('height') : null,
        },
      };
    },
    done,
  });
  const kind = form.watch('kind');
  const members = page.members.map(({ code, name }) => [code, format.name(name)] as const);
  return (
    <FormFields form={form} yes="Work it out">
      <TextField label="Code" {...form.field('code')} />
      <SelectField
        label="What"
        options={STIFFENER_KINDS.map((each) => [each, STIFFENER_WORD[each]])}
        {...form.field('kind')}
      />
      <SelectField label="On" options={members} {...form.field('part')} />
      {kind === 'gusset' ? (
        <SelectField label="Tied to" options={[['', 'choose'], ...members]} {...form.field('otherPart')} />
      ) : (
        <TextField label={`Width, ${format.unit}`} {...form.field('width')} />
      )}
      <TextField label={`${kind === 'gusset' ? 'Legs' : 'Length'}, ${format.unit}`} {...form.field('long')} />
      {kind === 'rib' ? <TextField label={`Height, ${format.unit}`} {...form.field('height')} /> : null}
      <TextField label={`Sheet, ${format.unit}`} {...form.field('thickness')} />
    </FormFields>
  );
}
