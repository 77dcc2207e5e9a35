import type { HungView } from '@/core/report/pages/fitting';
import { lengthWord, separationText, THING_WORD } from '@/core/report/fitting-words';
import { MEASURED_THINGS, SHAPE_LENGTHS } from '@/core/shell/job/entities';
import { panelMeasures } from '@/formats/inputs/fitting';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { FieldError, inputClass } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { VerdictMark } from '../sheet/mark';
import type { PanelActions } from './actions';

interface ShapeProps {
  readonly view: HungView;
  readonly actions: PanelActions;
}

/** Whether what is left is the panel's or its opening's, with what says so. */
export function Shape(props: ShapeProps) {
  const { view } = props;
  const format = useFormat();
  const { separation, edges, panel } = view;
  const words = { length: (mm: number) => `${format.thin(mm)} ${format.unit}` };
  return (
    <section aria-label={`${panel.code} or its opening`} className="flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-3">
        <h4 className="caps">Panel or opening?</h4>
        <FormDialog
          wide
          title={`Shape of ${panel.code} and of its opening`}
          description="The same lengths of both, between corners: what they should be, and what they are. Twist: three corners on a flat floor, what the fourth stands off by."
          trigger={<Button look="quiet">Measure them</Button>}
        >
          {(close) => <MeasuresForm {...props} done={close} />}
        </FormDialog>
      </div>
      {separation ? (
        <>
          <p
            data-says={separation.says}
            className={separation.says === 'opening' ? 'border-l-4 border-minus pl-3' : ''}
          >
            {separationText(separation, edges, words)}
            {separation.certain || separation.says === 'cannotTell'
              ? ''
              : ' Two standard deviations could still change this.'}
          </p>
          {view.hides ? (
            <p role="alert" className="border-l-4 border-minus pl-3">
              Hinges could make these gaps look right and hide the opening: every panel after this one would inherit it.
              Set the opening right first.
            </p>
          ) : null}
          <div className="overflow-x-auto">
            <table className="ruled self-start" aria-label={`What ${panel.code} and its opening are off`}>
              <thead>
                <tr>
                  <th>{format.unit}</th>
                  {MEASURED_THINGS.map((thing) => (
                    <th key={thing} className="num">
                      {THING_WORD[thing]}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {SHAPE_LENGTHS.map((what) => (
                  <tr key={what}>
                    <td>{lengthWord(what, edges)}</td>
                    {MEASURED_THINGS.map((thing) => {
                      const figure = separation[thing].lengths.find((each) => each.what === what)!;
                      return (
                        <td key={thing} className="num">
                          {format.thin(figure.value, true)} ±{format.thin(figure.plusMinus)}{' '}
                          <VerdictMark verdict={figure.verdict} />
                        </td>
                      );
                    })}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      ) : (
        <p className="text-soft">
          Gaps alone cannot tell a panel that is wrong from an opening that is: measure the same lengths of both.
        </p>
      )}
    </section>
  );
}

/** What is read with a tram in clean holes; of a tape more. One standard deviation, mm. */
const SD = 0.5;

function MeasuresForm({ view, actions, done }: ShapeProps & { done: () => void }) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const { panel, measures, edges } = view;
  const names = SHAPE_LENGTHS.flatMap((what) => [
    `wanted-${what}`,
    ...MEASURED_THINGS.map((thing) => `${thing}-${what}`),
  ]);
  const of = (what: string, thing?: string) =>
    measures.find((each) => each.what === what && (!thing || each.thing === thing));
  const form = useEntryForm({
    schema: panelMeasures,
    action: actions.setPanelMeasures,
    defaults: {
      ...Object.fromEntries(names.map((name) => [name, shown(name)])),
      sd: format.thin(measures[0]?.sd ?? SD),
    } as Record<string, string>,
    read: (values, faults) => {
      const length = lengthsOf(values, typedUnit(preferences), faults);
      const sd = length('sd');
      if (sd <= 0) faults.push({ path: 'sd', message: 'above zero: what one reading is good to' });
      const typed = (name: string) => (values[name] ?? '').trim() !== '';
      const made = SHAPE_LENGTHS.flatMap((what) =>
        MEASURED_THINGS.flatMap((thing) => {
          if (!typed(`${thing}-${what}`)) return [];
          if (!typed(`wanted-${what}`)) {
            faults.push({ path: `wanted-${what}`, message: 'say what it should be' });
            return [];
          }
          const [wanted, value] = [length(`wanted-${what}`), length(`${thing}-${what}`)];
          if (Math.abs(value - wanted) > 60)
            faults.push({
              path: `${thing}-${what}`,
              message: `${format.thin(value)} where ${format.thin(wanted)} is wanted: one of the two is mistyped`,
            });
          const id = of(what, thing)?.id ?? crypto.randomUUID();
          return [{ id, hungId: panel.id, thing, what, wanted, value, sd }];
        }),
      );
      return { hungId: panel.id, measures: made };
    },
    done,
  });
  function shown(name: string): string {
    const [thing, what] = name.split('-') as [string, string];
    const row = thing === 'wanted' ? of(what) : of(what, thing);
    if (!row) return '';
    return format.thin(thing === 'wanted' ? row.wanted : row.value);
  }
  const cell = (name: string, label: string) => {
    const { error, ...field } = form.field(name);
    return (
      <td key={name}>
        <input
          className={inputClass}
          aria-label={label}
          autoComplete="off"
          aria-invalid={error ? true : undefined}
          {...field}
        />
        <FieldError error={error} />
      </td>
    );
  };
  return (
    <FormFields form={form} yes="Keep these">
      <table className="ruled sm:col-span-2">
        <thead>
          <tr>
            <th>{format.unit}</th>
            <th>should be</th>
            {MEASURED_THINGS.map((thing) => (
              <th key={thing}>{THING_WORD[thing]}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {SHAPE_LENGTHS.map((what) => (
            <tr key={what}>
              <td>{lengthWord(what, edges)}</td>
              {cell(`wanted-${what}`, `${lengthWord(what, edges)}, should be`)}
              {MEASURED_THINGS.map((thing) =>
                cell(`${thing}-${what}`, `${lengthWord(what, edges)} of ${THING_WORD[thing]}`),
              )}
            </tr>
          ))}
          <tr>
            <td>good to, one standard deviation</td>
            {cell('sd', 'good to')}
          </tr>
        </tbody>
      </table>
    </FormFields>
  );
}
