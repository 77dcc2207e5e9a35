import type { FittingPage, HungView } from '@/core/report/pages/fitting';
import { cornerWord, lengthWord, THING_WORD } from '@/core/report/fitting-words';
import {
  MEASURED_THINGS,
  OPENING_CORNERS,
  SHAPE_LENGTHS,
  type OpeningCorner,
  type PanelEdge,
} from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import { panelMeasures } from '@/formats/inputs/fitting';
import { typedUnit } from '@/formats/preferences';
import { FieldError, inputClass, SelectField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import type { PanelActions } from './actions';

export interface ShapeProps {
  readonly view: HungView;
  readonly points: FittingPage['points'];
  readonly actions: PanelActions;
}

/** What is read with a tram in clean holes; of a tape more. One standard deviation, mm. */
const SD = 0.5;

/** The lengths of a panel and of its opening, and the points that stand for the opening's corners. */
export function MeasuresForm({ view, points, actions, done }: ShapeProps & { done: () => void }) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const { panel, measures, edges, corners } = view;
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
      ...Object.fromEntries(
        OPENING_CORNERS.map((corner) => [corner, corners.find((each) => each.corner === corner)?.pointId ?? '']),
      ),
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
      return { hungId: panel.id, measures: made, corners: readCorners(panel.id, values, faults) };
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
      <Corners {...{ form, edges, points }} />
    </FormFields>
  );
}

/** The points that stand for corners, each for one. */
function readCorners(hungId: string, values: Readonly<Record<string, string>>, faults: Fault[]): OpeningCorner[] {
  const at = OPENING_CORNERS.flatMap((corner) => {
    const pointId = values[corner] ?? '';
    return pointId === '' ? [] : [{ hungId, corner, pointId }];
  });
  at.forEach(({ corner, pointId }, i) => {
    if (at.findIndex((each) => each.pointId === pointId) < i)
      faults.push({ path: corner, message: 'this point stands for another corner already' });
  });
  return at;
}

interface CornersProps extends Pick<ShapeProps, 'points'> {
  readonly form: { field(name: OpeningCorner['corner']): { error: string | undefined } };
  readonly edges: readonly PanelEdge[];
}

const Corners = ({ form, edges, points }: CornersProps) =>
  OPENING_CORNERS.map((corner) => (
    <SelectField
      key={corner}
      label={`Datum point at the opening’s ${cornerWord(corner, edges)}`}
      options={[['', 'none'], ...points.map(({ id, code }) => [id, code] as const)]}
      {...form.field(corner)}
    />
  ));
