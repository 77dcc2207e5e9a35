import type { FittingPage } from '@/core/report/pages/fitting';
import { packedText, packText } from '@/core/report/fitting-words';
import type { BodyPacker } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { bodyPackers } from '@/formats/inputs/fitting';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { VerdictMark } from '../sheet/mark';
import type { PanelActions } from './actions';
import { readEffects, stationCode } from './settings';

interface PackersProps {
  readonly rows: JobRows;
  readonly page: FittingPage;
  readonly actions: PanelActions;
}

/** Where a body on a frame of its own is packed up: what that does to every gap, before a hinge is touched. */
export function Packers(props: PackersProps) {
  const { rows, page, actions } = props;
  const format = useFormat();
  const { run, faults } = useAction(actions.setBodyPackers);
  const words = { length: (mm: number) => `${format.thin(mm)} ${format.unit}` };
  const { bodyPackers: packers, packerEffects } = rows;
  const takeOut = (id: string) =>
    run({
      jobId: rows.jobs[0]!.id,
      packers: packers.filter((each) => each.id !== id),
      effects: packerEffects.filter(({ packerId }) => packerId !== id),
    });
  const dialog = (label: string, packer?: BodyPacker) => (
    <FormDialog
      title={packer ? packer.name : 'A place where the body is packed up'}
      description="Put a pack in, read the gaps it moves, and say what it did to each."
      trigger={<Button look="quiet">{label}</Button>}
    >
      {(close) => <PackerForm {...props} {...(packer ? { packer } : {})} done={close} />}
    </FormDialog>
  );
  return (
    <section aria-label="Packers under the body" className="flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-3">
        <h3 className="caps">Packers under the body</h3>
        {dialog('Name a place')}
      </div>
      {packers.length === 0 ? (
        <p className="text-sm text-soft">
          On a body that stands on a frame of its own they move every gap at once: they come before hinges.
        </p>
      ) : null}
      {page.packed ? <p data-packed="">{format.name(packedText(page.packed, words))}</p> : null}
      <ul>
        {packers.map((packer) => {
          const at = page.packed?.packers.find((each) => each.packer.id === packer.id);
          return (
            <li key={packer.id} className="flex flex-wrap items-center gap-x-3">
              <span>
                {packer.name}: {format.thin(packer.inNow)} {format.unit} under it
                {at ? `; ${format.name(packText(at, rows.shims, words))}` : ''}
              </span>
              {dialog('Change', packer)}
              <Button look="quiet" onClick={() => takeOut(packer.id)}>
                Take out
              </Button>
            </li>
          );
        })}
      </ul>
      <Faults faults={faults} />
      {page.packed ? (
        <div className="overflow-x-auto">
          <table className="ruled" aria-label="What packing does to every gap">
            <thead>
              <tr>
                <th>Worst gap off, {format.unit}</th>
                <th className="num">now</th>
                <th className="num">packed so</th>
              </tr>
            </thead>
            <tbody>
              {page.packed.seams.map(({ code, before, after, limit, untried }) => (
                <tr key={code}>
                  <td>
                    {code}
                    {untried ? <span className="text-soft">, not read in a trial</span> : null}
                  </td>
                  {[before, after].map((off, i) => (
                    <td key={i} className="num">
                      {format.thin(off, true)} <VerdictMark verdict={Math.abs(off) > limit ? 'outside' : 'inside'} />
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
    </section>
  );
}

function PackerForm({ rows, actions, packer, done }: PackersProps & { packer?: BodyPacker; done: () => void }) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const unit = typedUnit(preferences);
  const jobId = rows.jobs[0]!.id;
  const shown = (mm: number) => format.thin(mm);
  const form = useEntryForm({
    schema: bodyPackers,
    action: actions.setBodyPackers,
    defaults: {
      name: packer?.name ?? '',
      ...{ least: shown(packer?.least ?? 0), most: shown(packer?.most ?? 12) },
      ...{ inNow: shown(packer?.inNow ?? 0), step: packer?.step == null ? '' : shown(packer.step) },
      packed: shown(1),
      effects: rows.packerEffects
        .filter(({ packerId }) => packerId === packer?.id)
        .map(({ stationId, gap, flush }) => `${stationCode(rows, stationId)} ${shown(gap)} ${shown(flush)}`)
        .join(', '),
    },
    read: (values, faults, identity) => {
      const length = lengthsOf(values, unit, faults);
      const id = packer?.id ?? identity;
      const made: BodyPacker = {
        ...{ id, jobId, name: values.name.trim() },
        ...{ least: length('least'), most: length('most'), inNow: length('inNow') },
        step: values.step.trim() === '' ? null : length('step'),
      };
      if (made.name === '') faults.push({ path: 'name', message: 'say where: front left, beside the tank' });
      if (rows.bodyPackers.some((each) => each.id !== id && each.name === made.name))
        faults.push({ path: 'name', message: 'another place is called so' });
      if (made.most < made.least) faults.push({ path: 'most', message: 'the most is not below the least' });
      else if (made.inNow < made.least || made.inNow > made.most)
        faults.push({ path: 'inNow', message: 'it is between the least and the most' });
      const packed = length('packed');
      if (packed === 0) faults.push({ path: 'packed', message: 'a trial of nothing tells nothing' });
      const inTyped = (text: string) => lengthsOf({ effects: text }, unit, faults)('effects');
      const own = readEffects(values.effects, rows, inTyped, faults);
      return {
        jobId,
        packers: [...rows.bodyPackers.filter((each) => each.id !== id), made],
        effects: [
          ...rows.packerEffects.filter(({ packerId }) => packerId !== id),
          ...own.map(({ stationId, gap, flush }) => ({
            packerId: id,
            stationId,
            gap: gap / packed,
            flush: flush / packed,
          })),
        ],
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it">
      <TextField label="Place" placeholder="Front left" {...form.field('name')} />
      <TextField label={`Under it now, ${format.unit}`} {...form.field('inNow')} />
      <TextField label={`Thinnest pack, ${format.unit}`} {...form.field('least')} />
      <TextField label={`Thickest pack, ${format.unit}`} {...form.field('most')} />
      <TextField
        label={`Step, ${format.unit}`}
        hint="empty: what the shims on the shelf make"
        {...form.field('step')}
      />
      <TextField
        label={`Packed for the trial by, ${format.unit}`}
        hint="negative where some was taken out"
        {...form.field('packed')}
      />
      <div className="sm:col-span-2">
        <TextField
          label="What the trial did"
          hint="stations, each with what its gap, and its flush, did"
          placeholder="DFL.1 0.5, DFL.3 -0.4 0.1"
          {...form.field('effects')}
        />
      </div>
    </FormFields>
  );
}
