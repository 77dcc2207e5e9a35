import { FileDown } from 'lucide-react';
import { useState } from 'react';
import { BODIES } from '@/core/shell/bodies';
import type { CuttingPage, PartView, Worked } from '@/core/report/pages/cutting';
import { BODY_TYPES, type BodyType } from '@/core/shell/job/entities';
import { keptStructure, newPressTest, type KeptStructure } from '@/formats/inputs/cut';
import { typedUnit } from '@/formats/preferences';
import { Button, buttonClass } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { usePreferences } from '../shell/preferences-context';
import type { CuttingActions } from './actions';
import { StructureImport } from './structure-import';

interface StructureProps {
  readonly page: CuttingPage;
  readonly worked: Worked;
  readonly actions: Pick<CuttingActions, 'keepStructure' | 'importStructure' | 'addPressTest'>;
  /** The one in hand: chosen on the drawing. */
  readonly part: string | undefined;
  readonly onPart: (code: string | undefined) => void;
}

const NOTHING: Omit<KeptStructure, 'id' | 'jobId'> = { members: [], sheets: [], without: [], added: [] };

/** What the shell is taken for: its members and sheets, what rust left of each, and how stiff it really is. */
export function StructurePanel(props: StructureProps) {
  const { format } = usePreferences();
  const { page, worked } = props;
  const { template, edition, stiffness, standsFrom, stands } = worked;
  const from =
    template === 'lines'
      ? 'the lines of the chart'
      : template === 'file'
        ? 'a file'
        : `the picture of a body: ${BODIES[template].name}`;
  return (
    <section aria-label="Structure" className="no-print flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="text-xl">The shell as a structure</h2>
        <span className="ml-auto flex flex-wrap gap-2">
          <PressTestDialog {...props} />
          <BeginAnew {...props} />
          <AddMember {...props} />
          <StructureImport {...props} />
          <a className={buttonClass()} href={`/api/jobs/${page.jobId}/structure`}>
            <FileDown size={18} aria-hidden /> As a file
          </a>
        </span>
      </div>
      <p className="text-soft">
        From {from}
        {edition === undefined ? ', as the program has it' : `, edition ${edition}`}. It stands on{' '}
        {format.name(stands.join('; '))}
        {standsFrom === 'usual' ? ' (nobody set it up yet: four places of the sills are taken)' : ''}. Its stiffness is{' '}
        {stiffness.tested
          ? `${stiffness.low.toFixed(2)} to ${stiffness.high.toFixed(2)} of the template’s, by press tests.`
          : 'known to a factor of two until a press test is made.'}
      </p>
      <PartTable {...props} />
    </section>
  );
}

/** Parts as they can be looked for; what is rotten or repaired is thinned by its condition. */
function PartTable({ page, worked, actions, part: inHand, onPart }: StructureProps) {
  const { format } = usePreferences();
  const [sought, setSought] = useState('');
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const hit = ({ name, between, condition }: PartView) =>
    words.length > 0
      ? words.every((word) => format.name(`${name} ${between}`).toLowerCase().includes(word))
      : condition < 1;
  // What is chosen on the drawing stands first.
  const shown = [
    ...worked.parts.filter(({ code }) => code === inHand),
    ...worked.parts.filter((part) => part.code !== inHand && hit(part)),
  ];
  return (
    <>
      <TextField
        label="Look for a member or a sheet"
        placeholder={format.name('left sill')}
        value={sought}
        onChange={({ target }) => setSought(target.value)}
      />
      <p className="text-sm text-soft">
        {words.length === 0
          ? shown.length === 0
            ? `${worked.parts.length} parts, all taken as sound.`
            : `${shown.length} of ${worked.parts.length} parts are weakened, or chosen on the drawing.`
          : `${shown.length} of ${worked.parts.length} parts.`}
      </p>
      {shown.length > 0 ? (
        <div className="max-h-96 overflow-auto" tabIndex={0} role="region" aria-label="Members and sheets">
          <table className="ruled">
            <thead>
              <tr>
                <th>Part</th>
                <th>Between</th>
                <th className="num">Box {format.unit}</th>
                <th className="num">What is left of it</th>
                <th>
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {shown.map((part) => (
                <tr
                  key={part.code}
                  data-part={part.code}
                  className={part.code === inHand ? 'bg-lit/40' : ''}
                  onClick={() => onPart(part.code)}
                >
                  <td>{format.name(part.name)}</td>
                  <td className="text-sm">{format.name(part.between)}</td>
                  <td className="num">
                    {part.kind === 'member'
                      ? `${format.length(part.width!)} × ${format.length(part.height!)} × `
                      : 'sheet '}
                    {format.fine(part.wall)}
                  </td>
                  <td className="num">{Math.round(part.condition * 100)} %</td>
                  <td>
                    <FormDialog
                      title={format.name(part.name)}
                      description={format.name(part.between)}
                      trigger={<Button look="quiet">Change …</Button>}
                    >
                      {(close) => <PartForm {...{ page, part, actions }} done={close} />}
                    </FormDialog>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
    </>
  );
}

function PartForm({
  page,
  part,
  actions,
  done,
}: Pick<StructureProps, 'page' | 'actions'> & { part: PartView; done: () => void }) {
  const { format, preferences } = usePreferences();
  const shown = {
    width: part.width === undefined ? '' : format.length(part.width),
    height: part.height === undefined ? '' : format.length(part.height),
    wall: format.fine(part.wall),
    condition: String(Math.round(part.condition * 100)),
    there: 'yes',
  };
  const form = useEntryForm({
    schema: keptStructure,
    action: actions.keepStructure,
    defaults: shown,
    read: (values, faults, id): KeptStructure => {
      const typed = lengthsOf(values, typedUnit(preferences), faults);
      const length = (name: 'width' | 'height' | 'wall', mm: number) =>
        values[name] === shown[name] ? mm : typed(name);
      const condition = Number(values.condition.replace(',', '.').replace('%', '')) / 100;
      if (!(condition > 0 && condition <= 1)) faults.push({ path: 'condition', message: 'from 1 to 100 %' });
      const { code } = part;
      const wall = length('wall', part.wall);
      if (!(wall > 0)) faults.push({ path: 'wall', message: 'a thickness above nothing' });
      const base = { ...NOTHING, id, jobId: page.jobId };
      if (values.there === 'no') return { ...base, without: [code] };
      if (part.kind === 'sheet') return { ...base, sheets: [{ code, thickness: wall, condition }] };
      const box = { width: length('width', part.width!), height: length('height', part.height!), wall };
      if (!(2 * wall < Math.min(box.width, box.height)))
        faults.push({ path: 'wall', message: 'thinner than half the box' });
      return { ...base, members: [{ code, ...box, condition }] };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it so">
      {part.kind === 'member' ? (
        <>
          <TextField label={`Width, ${format.unit}`} {...form.field('width')} />
          <TextField label={`Height, ${format.unit}`} {...form.field('height')} />
        </>
      ) : null}
      <TextField label={`Sheet, ${format.unit}`} {...form.field('wall')} />
      <TextField label="What rust and repairs left of it, %" inputMode="decimal" {...form.field('condition')} />
      <SelectField
        label="Does this shell have it?"
        options={[
          ['yes', 'yes'],
          ['no', 'no'],
        ]}
        {...form.field('there')}
      />
    </FormFields>
  );
}

function AddMember({ page, actions }: StructureProps) {
  return (
    <FormDialog title="A member it has besides" trigger={<Button>Add a member</Button>}>
      {(close) => <AddMemberForm {...{ page, actions }} done={close} />}
    </FormDialog>
  );
}

function AddMemberForm({ page, actions, done }: Pick<StructureProps, 'page' | 'actions'> & { done: () => void }) {
  const { format, preferences } = usePreferences();
  const form = useEntryForm({
    schema: keptStructure,
    action: actions.keepStructure,
    defaults: { name: '', from: '', to: '', width: '', height: '', wall: '' },
    read: ({ name, from, to, ...box }, faults, id): KeptStructure => {
      const length = lengthsOf(box, typedUnit(preferences), faults);
      const [width, height, wall] = [length('width'), length('height'), length('wall')];
      if (faults.length === 0 && !(wall > 0 && 2 * wall < Math.min(width, height)))
        faults.push({ path: 'wall', message: 'thinner than half the box, and above nothing' });
      return { ...NOTHING, id, jobId: page.jobId, added: [{ name, from, to, width, height, wall, condition: 1 }] };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Add">
      <TextField label="What it is" {...form.field('name')} />
      <span />
      <TextField label="From" hint="a point of the chart, or a place as the table calls it" {...form.field('from')} />
      <TextField label="To" {...form.field('to')} />
      <TextField label={`Width, ${format.unit}`} {...form.field('width')} />
      <TextField label={`Height, ${format.unit}`} {...form.field('height')} />
      <TextField label={`Sheet, ${format.unit}`} {...form.field('wall')} />
    </FormFields>
  );
}

function BeginAnew({ page, worked, actions }: StructureProps) {
  return (
    <FormDialog
      title="Begin the structure anew"
      description="From the picture of a body, brought onto the points that are known; what was changed by hand stays in the editions before"
      trigger={<Button>Another body …</Button>}
    >
      {(close) => <BodyForm jobId={page.jobId} template={worked.template} actions={actions} done={close} />}
    </FormDialog>
  );
}

/** Which body it is: what the structure begins with. */
export function BodyForm({
  jobId,
  template,
  actions,
  done,
}: {
  readonly jobId: string;
  readonly template?: Worked['template'];
  readonly actions: Pick<CuttingActions, 'keepStructure'>;
  readonly done?: () => void;
}) {
  const form = useEntryForm({
    schema: keptStructure,
    action: actions.keepStructure,
    defaults: { body: template && template in BODIES ? (template as BodyType) : ('twoDoor' as BodyType) },
    read: ({ body }, _, id): KeptStructure => ({ ...NOTHING, id, jobId, body }),
    ...(done ? { done } : {}),
  });
  return (
    <FormFields form={form} yes="Take it">
      <SelectField
        label="Which body is it?"
        options={BODY_TYPES.map((type) => [type, BODIES[type].name] as const)}
        {...form.field('body')}
      />
    </FormFields>
  );
}

/** Where a dial gauge can tell a hundredth, mm. */
const DIAL_SD = 0.02;

function PressTestDialog({ page, actions }: StructureProps) {
  return (
    <FormDialog
      title="Press test"
      description="A spring balance pushes an opening apart, a dial gauge across it says how far it opens: how stiff this shell really is, in a minute"
      trigger={<Button look="main">Press test</Button>}
    >
      {(close) => <PressForm {...{ page, actions }} done={close} />}
    </FormDialog>
  );
}

function PressForm({ page, actions, done }: Pick<StructureProps, 'page' | 'actions'> & { done: () => void }) {
  const { format, preferences } = usePreferences();
  const form = useEntryForm({
    schema: newPressTest,
    action: actions.addPressTest,
    defaults: { fromPointId: '', toPointId: '', force: '', opened: '' },
    read: ({ fromPointId: from, toPointId: to, force, opened }, faults, id) => {
      const pointOf = (path: string, code: string) => {
        const found = page.points.find((point) => point.code.toLowerCase() === code.trim().toLowerCase());
        if (!found) faults.push({ path, message: `no point “${code}”` });
        return found?.id ?? '';
      };
      const [fromPointId, toPointId] = [pointOf('fromPointId', from), pointOf('toPointId', to)];
      const newtons = Number(force.replace(',', '.')) * (/kg/i.test(force) ? 9.80665 : 1);
      if (!(newtons > 0)) faults.push({ path: 'force', message: 'a force in newtons' });
      const mm = lengthsOf({ opened }, typedUnit(preferences), faults)('opened');
      if (faults.length === 0 && !(mm > 0)) faults.push({ path: 'opened', message: 'how far it opened' });
      return { id, jobId: page.jobId, fromPointId, toPointId, force: newtons, opened: mm, sd: DIAL_SD };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Take it">
      <TextField label="From point" hint="the door opening’s hinge side" {...form.field('fromPointId')} />
      <TextField label="To point" {...form.field('toPointId')} />
      <TextField label="Force, N" inputMode="decimal" hint="10 kg on the balance are 98 N" {...form.field('force')} />
      <TextField label={`It opened by, ${format.unit}`} inputMode="decimal" {...form.field('opened')} />
    </FormFields>
  );
}
