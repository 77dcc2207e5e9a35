import type { FittingPage, HungView } from '@/core/report/pages/fitting';
import { EDGE_WORD, HUNG_WORD } from '@/core/report/fitting-words';
import { edgesOf } from '@/core/plan/panels/panel-frame';
import { settingsFor } from '@/core/plan/panels/setting-templates';
import { HUNG_KINDS, NEW_HUNG, type HungPanel, type PanelEdge, type PanelSeam } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import { correctedHungPanel, newHungPanel } from '@/formats/inputs/fitting';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { lengthsOf, useEntryForm, wordsOf } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import type { PanelActions } from './actions';
import { SideField } from '../shell/side-field';

type Fields = typeof EMPTY;
const EMPTY = {
  ...{ code: '', name: '', kind: 'door' as HungPanel['kind'], side: 'left' as HungPanel['side'] },
  ...{ long: '', high: '', hungAt: 'front' as PanelEdge | 'none', leastGap: '', seams: '' },
  ...{ standIn: 'final' as 'final' | 'standIn', sure: 'loose' as 'loose' | 'sure', floatsUntilId: '' },
};

const EDGE = /^(front|rear|top|bottom|left|right)$/i;

/**
 * Seams typed as `DFL front DBL rear`: codes, each with the edge of the panel it runs along; `turned` after one whose first
 * station is at the rear, the top or the right. Faults stand at `seams`.
 */
export function readPanelSeams(
  text: string,
  panel: Pick<HungPanel, 'id' | 'kind' | 'side'>,
  seams: FittingPage['seams'],
  faults: Fault[],
): PanelSeam[] {
  const own = edgesOf(panel);
  const said: { code: string; edge?: PanelEdge; turned: boolean }[] = [];
  const fault = (message: string) => faults.push({ path: 'seams', message });
  for (const word of wordsOf(text)) {
    const last = said.at(-1);
    if (/^turned$/i.test(word) && last) last.turned = true;
    else if (EDGE.test(word) && last && last.edge === undefined) last.edge = word.toLowerCase() as PanelEdge;
    else said.push({ code: word, turned: false });
  }
  return said.flatMap(({ code, edge, turned }): PanelSeam[] => {
    const seam = seams.find((each) => each.code.toLowerCase() === code.toLowerCase());
    if (!seam)
      fault(`no seam “${code}”: the seams are ${seams.map((each) => each.code).join(', ') || 'not named yet'}`);
    else if (!edge) fault(`say which edge ${seam.code} runs along: ${own.join(', ')}`);
    else if (!own.includes(edge)) fault(`a ${HUNG_WORD[panel.kind]} has no ${edge} edge: ${own.join(', ')}`);
    else if (said.filter((each) => each.code.toLowerCase() === code.toLowerCase()).length > 1)
      fault(`${code} is named twice`);
    else return [{ hungId: panel.id, seamId: seam.id, edge, turned }];
    return [];
  });
}

interface Naming {
  readonly jobId: string;
  readonly page: FittingPage;
  readonly actions: PanelActions;
}

/** Names a panel that is fitted; the places at which it can be set are those of its kind, and can be changed. */
export const NamePanel = (naming: Naming) => (
  <FormDialog
    title="A panel that is fitted"
    description="Its hinges, slots and striker begin as they are on most cars"
    trigger={<Button look="main">Name a panel</Button>}
  >
    {(close) => <NewForm {...naming} done={close} />}
  </FormDialog>
);

/** What the fields say of a panel. */
function panelOf(
  values: Fields,
  naming: Naming,
  before: Pick<HungPanel, 'id' | 'note' | 'version'>,
  faults: Fault[],
  unit: Parameters<typeof lengthsOf>[1],
) {
  const length = lengthsOf(values, unit, faults);
  const [long, high] = [length('long'), length('high')];
  const leastGap = values.leastGap.trim() === '' ? NEW_HUNG.leastGap : length('leastGap');
  for (const [path, value] of [
    ['long', long],
    ['high', high],
  ] as const)
    if (value <= 0 && !faults.some((each) => each.path === path))
      faults.push({ path, message: 'above zero: measure from edge to edge' });
  if (!values.code.trim()) faults.push({ path: 'code', message: 'the panel needs a code' });
  const kind = { kind: values.kind, side: values.side };
  const hungAt = values.hungAt === 'none' ? null : values.hungAt;
  if (hungAt && !edgesOf(kind).includes(hungAt))
    faults.push({
      path: 'hungAt',
      message: `a ${HUNG_WORD[values.kind]} has no ${hungAt} edge: ${edgesOf(kind).join(', ')}, or no hinges`,
    });
  const panel: HungPanel = {
    ...{ ...before, jobId: naming.jobId, ...kind, long, high, hungAt, leastGap },
    ...{ standIn: values.standIn === 'standIn', sure: values.sure === 'sure' },
    floatsUntilId: values.floatsUntilId || null,
  };
  return { panel, seams: readPanelSeams(values.seams, panel, naming.page.seams, faults) };
}

const itemOf = (values: Fields, panel: HungPanel, version: number) => ({
  ...{ id: panel.id, jobId: panel.jobId, kind: 'hung' as const, version },
  ...{ code: values.code.trim(), name: values.name.trim() || values.code.trim() },
});

function NewForm({ done, ...naming }: Naming & { done: () => void }) {
  const { preferences } = usePreferences();
  const form = useEntryForm({
    schema: newHungPanel,
    action: naming.actions.addHungPanel,
    defaults: EMPTY,
    read: (values, faults, id) => {
      const { panel, seams } = panelOf(values, naming, { id, note: '', version: 1 }, faults, typedUnit(preferences));
      const settings = settingsFor(panel).map((each) => ({ ...each, id: crypto.randomUUID(), hungId: id }));
      return { item: itemOf(values, panel, 1), panel, seams, settings };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Name it">
      <PanelFields field={form.field} page={naming.page} />
    </FormFields>
  );
}

/** Corrects what was said of a panel. */
export function CorrectPanel({ view, ...naming }: Naming & { readonly view: HungView }) {
  return (
    <FormDialog title={`Correct ${view.panel.code}`} trigger={<Button look="quiet">Correct</Button>}>
      {(close) => <CorrectForm {...naming} view={view} done={close} />}
    </FormDialog>
  );
}

function CorrectForm({ view, done, ...naming }: Naming & { readonly view: HungView; done: () => void }) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const { panel, seams, itemVersion } = view;
  const form = useEntryForm({
    schema: correctedHungPanel,
    action: naming.actions.correctHungPanel,
    defaults: {
      ...{ code: panel.code, name: panel.name, kind: panel.kind, side: panel.side },
      ...{
        long: format.thin(panel.long),
        high: format.thin(panel.high),
        hungAt: panel.hungAt ?? ('none' as const),
      },
      leastGap: format.thin(panel.leastGap),
      seams: seams.map(({ code, edge, turned }) => `${code} ${edge}${turned ? ' turned' : ''}`).join(', '),
      standIn: panel.standIn ? ('standIn' as const) : ('final' as const),
      sure: panel.sure ? ('sure' as const) : ('loose' as const),
      floatsUntilId: panel.floatsUntilId ?? '',
    } as Fields,
    read: (values, faults) => {
      const made = panelOf(values, naming, panel, faults, typedUnit(preferences));
      return { ...made, item: itemOf(values, made.panel, itemVersion) };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Correct it">
      <PanelFields field={form.field} page={naming.page} own={panel.id} />
    </FormFields>
  );
}

interface FieldsProps {
  readonly field: (name: keyof Fields) => object;
  readonly page: FittingPage;
  readonly own?: string;
}

function PanelFields({ field, page, own }: FieldsProps) {
  const format = useFormat();
  const others = page.panels.filter(({ panel }) => panel.id !== own);
  return (
    <>
      <TextField label="Code" placeholder="DL" {...field('code')} />
      <TextField label="Name" placeholder="left door" {...field('name')} />
      <SelectField
        label="Kind"
        options={HUNG_KINDS.map((kind) => [kind, format.name(HUNG_WORD[kind])])}
        {...field('kind')}
      />
      <SideField {...field('side')} />
      <TextField
        label={`Length, ${format.unit}`}
        hint={format.name('edge to edge; of a tailgate its width')}
        {...field('long')}
      />
      <TextField label={`Height, ${format.unit}`} hint="of a lid its width" {...field('high')} />
      <SelectField
        label="Hinges at"
        options={[['none', 'none: it is bolted or set'], ...Object.entries(EDGE_WORD)] as [string, string][]}
        {...field('hungAt')}
      />
      <TextField
        label={`No gap under, ${format.unit}`}
        hint={`on the hinge side, through the swing; ${format.thin(NEW_HUNG.leastGap)} if nothing is said`}
        {...field('leastGap')}
      />
      <div className="sm:col-span-2">
        <TextField
          label="Seams along its edges"
          hint="each with its edge, stations counted from the front, left or bottom; “turned” if from the other end"
          placeholder="DFL front, DBL rear"
          {...field('seams')}
        />
      </div>
      <SelectField
        label="This one"
        options={[
          ['final', 'stays on the car'],
          ['standIn', 'is a stand-in'],
        ]}
        {...field('standIn')}
      />
      <SelectField
        label="Its place"
        options={[
          ['loose', 'is set by its neighbours'],
          ['sure', 'is certain: others are set by it'],
        ]}
        {...field('sure')}
      />
      {others.length > 0 ? (
        <SelectField
          label="Left loose until"
          options={[['', 'nothing'], ...others.map(({ panel }) => [panel.id, `${panel.code} is set`] as const)]}
          {...field('floatsUntilId')}
        />
      ) : null}
    </>
  );
}
