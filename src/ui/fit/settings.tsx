import type { HungView } from '@/core/report/pages/fitting';
import { SETTING_WORD } from '@/core/report/fitting-words';
import { SETTING_KINDS, SETTING_WAYS, type PanelSetting, type SettingEffect } from '@/core/shell/job/entities';
import type { Tables } from '@/core/shell/job/job-rows';
import type { Fault } from '@/formats/faults';
import { panelSettings } from '@/formats/inputs/fitting';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Faults } from '../kit/faults';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { lengthsOf, useEntryForm, wordsOf } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import type { PanelActions } from './actions';

/** The rows that settings are made of. */
export type SettingRows = StationRows & Tables<'settingEffects'>;
/** The rows that name stations. */
export type StationRows = Tables<'seams' | 'seamStations'>;

interface SettingsProps {
  readonly view: HungView;
  readonly rows: SettingRows;
  readonly actions: PanelActions;
}

const WAY_WORD = { long: 'along its length', high: 'along its height', out: 'out of the shell' } as const;

/** The places at which a panel can be set or is held, each to be changed or taken out. */
export function Settings(props: SettingsProps) {
  const { view, rows, actions } = props;
  const format = useFormat();
  const { run, faults } = useAction(actions.setPanelSettings);
  const takeOut = (id: string) =>
    run({
      hungId: view.panel.id,
      settings: view.settings.filter((each) => each.id !== id),
      effects: effectsOf(view, rows).filter(({ settingId }) => settingId !== id),
    });
  const conditions = view.settings.filter(({ way }) => way !== null).length;
  return (
    <details className="border border-faint p-2">
      <summary className="min-h-11 cursor-pointer py-2">
        Where it can be set: {view.settings.length} places, {conditions} of the six conditions that say where it is
      </summary>
      <div className="overflow-x-auto">
        <table className="ruled" aria-label={`Settings of ${view.panel.code}`}>
          <thead>
            <tr>
              <th>Place</th>
              <th>By</th>
              <th>Moves it</th>
              <th className="num">From</th>
              <th className="num">To</th>
              <th className="num">Step</th>
              <th>
                <span className="sr-only">What can be done</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {view.settings.map((setting) => (
              <tr key={setting.id}>
                <td>{format.name(setting.name)}</td>
                <td>{SETTING_WORD[setting.kind]}</td>
                <td>{setting.way ? WAY_WORD[setting.way] : <Trial setting={setting} rows={rows} />}</td>
                <td className="num">{setting.kind === 'hold' ? '–' : format.thin(setting.least, true)}</td>
                <td className="num">{setting.kind === 'hold' ? '–' : format.thin(setting.most, true)}</td>
                <td className="num">{setting.step === null ? '–' : format.thin(setting.step)}</td>
                <td className="flex gap-1">
                  <FormDialog
                    title={`${setting.name} of ${view.panel.code}`}
                    trigger={<Button look="quiet">Change</Button>}
                  >
                    {(close) => <SettingForm {...props} setting={setting} done={close} />}
                  </FormDialog>
                  <Button look="quiet" onClick={() => takeOut(setting.id)}>
                    Take out
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Faults faults={faults} />
      <FormDialog title={`A place at which ${view.panel.code} can be set`} trigger={<Button>Add a place</Button>}>
        {(close) => <SettingForm {...props} done={close} />}
      </FormDialog>
    </details>
  );
}

/** What one of a setting that moves no rigid panel did, at every station it was read at: all gaps, before it is touched. */
function Trial({ setting, rows }: { readonly setting: PanelSetting; readonly rows: SettingRows }) {
  const format = useFormat();
  const own = rows.settingEffects.filter(({ settingId }) => settingId === setting.id);
  return own
    .map(({ stationId, gap, flush }) => {
      const did = `${format.thin(gap, true)}${flush === 0 ? '' : `, flush ${format.thin(flush, true)}`}`;
      return `${stationCode(rows, stationId)} ${did}`;
    })
    .join('; ');
}

/** `DFL.1` */
export function stationCode({ seams, seamStations }: StationRows, stationId: string): string {
  const station = seamStations.find(({ id }) => id === stationId);
  return `${seams.find(({ id }) => id === station?.seamId)?.code ?? ''}.${station?.number ?? ''}`;
}

const effectsOf = ({ settings }: HungView, { settingEffects }: SettingRows): SettingEffect[] =>
  settingEffects.filter(({ settingId }) => settings.some(({ id }) => id === settingId));

/**
 * What one trial did, typed as `DFL.1 0.5 0.1 DFL.2 -0.2`: stations, each with what was added to its gap and, where it was
 * read, to its flush. Faults stand at `effects`.
 */
export function readEffects(
  text: string,
  rows: StationRows,
  length: (text: string) => number,
  faults: Fault[],
): Omit<SettingEffect, 'settingId'>[] {
  const said: { station: string; figures: number[] }[] = [];
  for (const word of wordsOf(text)) {
    const last = said.at(-1);
    if (/^[A-Za-z]/.test(word)) said.push({ station: word, figures: [] });
    else if (last && last.figures.length < 2) last.figures.push(length(word));
    else faults.push({ path: 'effects', message: `“${word}” follows no station: say DFL.1, then what its gap did` });
  }
  return said.flatMap(({ station, figures }): Omit<SettingEffect, 'settingId'>[] => {
    const [code, number] = station.split('.');
    const seam = rows.seams.find((each) => each.code.toLowerCase() === code!.toLowerCase());
    const found = rows.seamStations.find((each) => each.seamId === seam?.id && each.number === Number(number));
    if (!found) faults.push({ path: 'effects', message: `no station “${station}”` });
    else if (figures.length === 0) faults.push({ path: 'effects', message: `${station} has no figure` });
    else return [{ stationId: found.id, gap: figures[0]!, flush: figures[1] ?? 0 }];
    return [];
  });
}

type FormProps = SettingsProps & { readonly setting?: PanelSetting; readonly done: () => void };

function SettingForm({ view, rows, actions, setting, done }: FormProps) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const unit = typedUnit(preferences);
  const shown = (mm: number) => format.thin(mm);
  const effects = effectsOf(view, rows);
  const form = useEntryForm({
    schema: panelSettings,
    action: actions.setPanelSettings,
    defaults: {
      ...{ name: setting?.name ?? '', kind: setting?.kind ?? ('slot' as PanelSetting['kind']) },
      way: setting ? (setting.way ?? ('trial' as const)) : ('long' as NonNullable<PanelSetting['way']> | 'trial'),
      ...{ x: shown(setting?.x ?? 0), y: shown(setting?.y ?? 0) },
      ...{ least: shown(setting?.least ?? -3), most: shown(setting?.most ?? 3) },
      ...{ step: setting?.step == null ? '' : shown(setting.step), inNow: shown(setting?.inNow ?? 0) },
      effects: effects
        .filter(({ settingId }) => settingId === setting?.id)
        .map(({ stationId, gap, flush }) => `${stationCode(rows, stationId)} ${shown(gap)} ${shown(flush)}`)
        .join(', '),
    },
    read: (values, faults, identity) => {
      const length = lengthsOf(values, unit, faults);
      const id = setting?.id ?? identity;
      const isHold = values.kind === 'hold';
      const made: PanelSetting = {
        ...{ id, hungId: view.panel.id, ordinal: setting?.ordinal ?? view.settings.length },
        ...{ name: values.name.trim(), kind: values.kind, way: values.way === 'trial' ? null : values.way },
        ...{ x: length('x'), y: length('y') },
        ...{ least: isHold ? 0 : length('least'), most: isHold ? 0 : length('most') },
        step: values.step.trim() === '' || isHold ? null : length('step'),
        inNow: isHold ? 0 : length('inNow'),
      };
      if (made.name === '') faults.push({ path: 'name', message: 'say what it is: upper hinge, striker' });
      if (Math.abs(made.x) > view.panel.long) faults.push({ path: 'x', message: 'that is not on this panel' });
      if (Math.abs(made.y) > view.panel.high) faults.push({ path: 'y', message: 'that is not on this panel' });
      const own =
        made.way === null
          ? readEffects(values.effects, rows, (text) => lengthsOf({ effects: text }, unit, faults)('effects'), faults)
          : [];
      if (made.way === null && own.length === 0 && faults.length === 0)
        faults.push({ path: 'effects', message: 'say what one trial did: DFL.1 0.5' });
      return {
        hungId: view.panel.id,
        settings: [...view.settings.filter((each) => each.id !== id), made].toSorted((a, b) => a.ordinal - b.ordinal),
        effects: [
          ...effects.filter(({ settingId }) => settingId !== id),
          ...own.map((each) => ({ settingId: id, ...each })),
        ],
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it">
      <TextField label="Place" placeholder="Upper hinge" {...form.field('name')} />
      <SelectField
        label="Set by"
        options={SETTING_KINDS.map((kind) => [kind, SETTING_WORD[kind]])}
        {...form.field('kind')}
      />
      <SelectField
        label="Moves it"
        options={[...SETTING_WAYS.map((way) => [way, WAY_WORD[way]] as const), ['trial', 'as one trial was read']]}
        {...form.field('way')}
      />
      <TextField
        label={`Step, ${format.unit}`}
        hint="empty: any value; of shims what the shelf has"
        {...form.field('step')}
      />
      <TextField
        label={`Along from its middle, ${format.unit}`}
        hint="to the rear, or to the right"
        {...form.field('x')}
      />
      <TextField label={`Up from its middle, ${format.unit}`} hint="of a lid to the right" {...form.field('y')} />
      <TextField label={`From, ${format.unit}`} hint="from where it is now" {...form.field('least')} />
      <TextField label={`To, ${format.unit}`} {...form.field('most')} />
      <TextField
        label={`In there beyond the maker’s, ${format.unit}`}
        hint="shims somebody put in; negative where a spacer was left out"
        {...form.field('inNow')}
      />
      <div className="sm:col-span-2">
        <TextField
          label="What one trial did"
          hint="only where it moves no rigid panel: stations, each with what its gap, and its flush, did"
          placeholder="DFL.1 0.5, DFL.3 -0.4 0.1"
          {...form.field('effects')}
        />
      </div>
    </FormFields>
  );
}
