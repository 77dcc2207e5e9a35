import { useState } from 'react';
import { CHOICE_WORD } from '@/core/report/cut-words';
import type { PanelView, PartView, StageView } from '@/core/report/pages/cutting';
import { NEW_PANEL, PANEL_CHOICES, type Panel, type Side } from '@/core/shell/job/entities';
import {
  CUT_LINE_COLUMNS,
  cutLinesText,
  JOINT_COLUMNS,
  jointsText,
  readCutLines,
  readJoints,
} from '@/formats/cut-text';
import type { Fault } from '@/formats/faults';
import { savedPanel, type SavedPanel } from '@/formats/inputs/cut';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextArea, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useEntryForm, wordsOf } from '../kit/use-entry-form';
import { usePreferences } from '../shell/preferences-context';
import { newStage } from './stage-strip';
import { SideField } from '../shell/side-field';

export interface PanelFormProps {
  readonly jobId: string;
  readonly points: readonly { readonly id: string; readonly code: string }[];
  readonly stages: readonly StageView[];
  /** Parts of the structure that can go with it; none where there is no structure. */
  readonly parts: readonly PartView[];
  readonly savePanel: Action<SavedPanel>;
  readonly known?: PanelView;
}

/** Plans a panel to be replaced, or corrects one. */
export function PanelDialog(props: PanelFormProps) {
  const { known } = props;
  return (
    <FormDialog
      wide
      title={known ? `Correct ${known.item.name}` : 'A panel to be replaced'}
      description="What it carries, how it is joined, where it is cut, and what takes its place"
      trigger={known ? <Button look="quiet">Correct …</Button> : <Button className="ml-auto">Add a panel</Button>}
    >
      {(close) => <PanelForm {...props} done={close} />}
    </FormDialog>
  );
}

const NEW_STAGE = 'new';

/** What the form shows at first. */
const textsOf = (known: PanelView | undefined, length: (mm: number) => string, fine: (mm: number) => string) => ({
  part: known?.panel.part ?? '',
  side: known?.panel.side ?? ('left' as Side),
  points: known?.codes.join(' ') ?? '',
  stageId: known?.panel.stageId ?? '',
  stage: '',
  choice: known?.panel.choice ?? '',
  reason: known?.panel.reason ?? '',
  joinedAt: known?.panel.joinedAt ?? '',
  hours: known?.panel.hours?.toString() ?? '',
  price: known?.panel.price?.toString() ?? '',
  ownersWord: known?.panel.ownersWord ?? '',
  stressed: known?.panel.stressed ? 'yes' : 'no',
  lines: cutLinesText(known?.lines ?? [], length),
  joints: jointsText(known?.joints.map(({ joint }) => joint) ?? [], fine),
});

function PanelForm({
  jobId,
  points: all,
  stages,
  parts,
  savePanel,
  known,
  done,
}: PanelFormProps & { done: () => void }) {
  const { format, preferences } = usePreferences();
  const unit = typedUnit(preferences);
  const [chosen, setChosen] = useState<ReadonlyMap<string, number>>(
    new Map(known?.parts.map(({ code, share }) => [code, share]) ?? []),
  );
  const shown = textsOf(known, format.length, format.fine);
  const form = useEntryForm({
    schema: savedPanel,
    action: savePanel,
    defaults: shown,
    read: (values, faults, identity): SavedPanel => {
      const id = known?.panel.id ?? identity;
      const newId = () => crypto.randomUUID();
      const number = (path: 'hours' | 'price') => {
        const value = values[path].trim() === '' ? null : Number(values[path].replace(',', '.'));
        if (value !== null && !(value >= 0)) faults.push({ path, message: 'a number, or nothing' });
        return value;
      };
      // What was not touched stays to the last digit, not to the digit shown.
      const cut =
        values.lines === shown.lines
          ? { lines: [...(known?.lines ?? [])], faults: [] }
          : readCutLines(values.lines, unit, { panelId: id, known: known?.lines ?? [] }, newId);
      const knownJoints = known?.joints.map(({ joint }) => joint) ?? [];
      const joined =
        values.joints === shown.joints
          ? { joints: knownJoints, faults: [] }
          : readJoints(values.joints, unit, { panelId: id, jobId, known: knownJoints }, newId);
      faults.push(...cut.faults, ...joined.faults);
      if (values.stageId === NEW_STAGE && !values.stage.trim())
        faults.push({ path: 'stage', message: 'say what comes out in it' });
      const stage =
        values.stageId === NEW_STAGE ? newStage({ jobId, stages }, newId(), values.stage.trim()) : undefined;
      const panel: Panel = {
        ...NEW_PANEL,
        ...{ id, jobId, part: values.part.trim(), side: values.side, version: known?.panel.version ?? 1 },
        stageId: stage?.stage.id ?? (values.stageId || null),
        ordinal: known?.panel.ordinal ?? stages.find(({ id: own }) => own === values.stageId)?.panels.length ?? 0,
        choice: (values.choice || null) as Panel['choice'],
        ...{ reason: values.reason, joinedAt: values.joinedAt, ownersWord: values.ownersWord },
        ...{ hours: number('hours'), price: number('price'), stressed: values.stressed === 'yes' },
      };
      const code = known?.item.code ?? `panel-${id.slice(0, 8)}`;
      return {
        item: { id, jobId, kind: 'panel', code, name: panel.part, version: known?.item.version ?? 1 },
        panel,
        points: pointIds(all, values.points, faults).map((pointId) => ({ panelId: id, pointId, fate: 'goes' })),
        parts: [...chosen].map(([part, share]) => ({ panelId: id, code: part, share })),
        lines: cut.lines,
        joints: joined.joints.map((joint) => ({
          joint,
          item: known?.joints.some((each) => each.joint.id === joint.id)
            ? { ...jointItem(joint, jobId), version: 1 }
            : jointItem(joint, jobId),
        })),
        ...(stage ? { stage } : {}),
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes={known ? 'Keep it so' : 'Add'}>
      <PanelFields {...{ stages }} field={form.field} isNewStage={form.watch('stageId') === NEW_STAGE} />
      {parts.length > 0 ? (
        <PartChoice parts={parts} chosen={chosen} onChange={setChosen} filter={`${form.watch('part')}`} />
      ) : null}
    </FormFields>
  );
}

const jointItem = ({ id, beside }: { readonly id: string; readonly beside: string }, jobId: string) => ({
  ...{ id, jobId, kind: 'joint' as const, code: `joint-${id.slice(0, 8)}`, name: beside, version: 1 },
});

function pointIds(all: PanelFormProps['points'], text: string, faults: Fault[]): string[] {
  const byCode = new Map(all.map(({ id, code }) => [code.toLowerCase(), id]));
  return [...new Set(wordsOf(text).map((code) => code.toLowerCase()))].flatMap((code) => {
    const id = byCode.get(code);
    if (!id) faults.push({ path: 'points', message: `no point “${code}” in this job` });
    return id ? [id] : [];
  });
}

type Texts = ReturnType<typeof textsOf>;

function PanelFields({
  stages,
  field,
  isNewStage,
}: {
  stages: readonly StageView[];
  field: (name: keyof Texts) => object;
  isNewStage: boolean;
}) {
  const { format } = usePreferences();
  const named = stages.filter(({ id }) => id !== '');
  return (
    <>
      <TextField label="Panel" hint={format.name('Left sill, outer')} {...field('part')} />
      <SideField {...field('side')} />
      <SelectField
        label="Comes out in the stage"
        options={[
          ['', 'not said yet'],
          ...named.map(({ id, name }) => [id, format.name(name)] as const),
          [NEW_STAGE, 'a new one …'],
        ]}
        {...field('stageId')}
      />
      {isNewStage ? <TextField label="What comes out in the new stage" {...field('stage')} /> : <span />}
      <TextField label="Points that go with it" hint="S1L S2L" {...field('points')} />
      <SelectField
        label="In its place comes"
        options={[['', 'not decided'], ...PANEL_CHOICES.map((choice) => [choice, CHOICE_WORD[choice]] as const)]}
        {...field('choice')}
      />
      <TextField label="Why that" hint="cut small, look, cut further" {...field('reason')} />
      <TextField
        label="Where the join runs"
        hint="on a swage, under a trim, on sound metal, off a row of spots"
        {...field('joinedAt')}
      />
      <TextField label="Hours" inputMode="decimal" {...field('hours')} />
      <TextField label="Price of the part" inputMode="decimal" {...field('price')} />
      <TextField label="The owner’s word" {...field('ownersWord')} />
      <SelectField
        label="Was this metal hit, or pulled half straight?"
        options={[
          ['no', 'no'],
          ['yes', 'yes: it may spring when it is cut'],
        ]}
        {...field('stressed')}
      />
      <TextArea
        label={`Cut lines, ${format.unit}`}
        hint={`a line each: ${CUT_LINE_COLUMNS.join('; ')}. A piece that is spliced in has its two lines from one edge, kerf and gap in the distance.`}
        rows={3}
        {...field('lines')}
      />
      <TextArea
        label={`Joints, ${format.unit}`}
        hint={`a line each: ${JOINT_COLUMNS.join('; ')}`}
        rows={3}
        {...field('joints')}
      />
    </>
  );
}

interface PartChoiceProps {
  readonly parts: readonly PartView[];
  readonly chosen: ReadonlyMap<string, number>;
  readonly onChange: (chosen: ReadonlyMap<string, number>) => void;
  readonly filter: string;
}

const SHARES = [0, 0.25, 0.5, 0.75, 1] as const;

/** Which members and sheets of the structure go with it, and how much of each. */
function PartChoice({ parts, chosen, onChange }: PartChoiceProps) {
  const { format } = usePreferences();
  const [sought, setSought] = useState('');
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = parts.filter(
    ({ code, name, between }) =>
      chosen.has(code) ||
      (words.length > 0 && words.every((word) => format.name(`${name} ${between}`).toLowerCase().includes(word))),
  );
  const set = (code: string, share: number) => {
    const next = new Map(chosen);
    if (share === 0) next.delete(code);
    else next.set(code, share);
    onChange(next);
  };
  return (
    <fieldset className="flex flex-col gap-2 sm:col-span-2">
      <legend className="caps">Members and sheets that go with it</legend>
      <TextField
        label="Look for"
        value={sought}
        placeholder={format.name('left sill')}
        onChange={({ target }) => setSought(target.value)}
      />
      <ul className="max-h-56 overflow-y-auto">
        {shown.map(({ code, name, between }) => (
          <li key={code} className="flex min-h-11 items-center gap-3 border-b border-faint">
            <span>
              {format.name(name)} <span className="text-soft">{format.name(between)}</span>
            </span>
            <select
              aria-label={`How much of ${format.name(`${name} ${between}`)} goes`}
              className="ml-auto min-h-11 border border-rule bg-sheet px-2"
              value={chosen.get(code) ?? 0}
              onChange={({ target }) => set(code, Number(target.value))}
            >
              {SHARES.map((share) => (
                <option key={share} value={share}>
                  {share === 0 ? 'stays' : share === 1 ? 'all of it' : `${share * 100} % of it`}
                </option>
              ))}
            </select>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
