import type { FittingPage } from '@/core/report/pages/fitting';
import { EDGE_WORD, FIXING_WORD } from '@/core/report/fitting-words';
import { EDGES, FIXING_KINDS, type CalledPanel, type Fixing, type PanelJoint } from '@/core/shell/job/entities';
import { lap, letGo, newFixing, panelJoint } from '@/formats/inputs/fitting';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import type { BoardActions } from './actions';

/** A joint that springs more than this is relieved before it is tacked, mm. */
const SPRINGS = 1;

interface LetGoProps {
  readonly panel: CalledPanel;
  /** The joint it is of; empty where it is still to be named. */
  readonly joint: string;
  readonly addLetGo: BoardActions['addLetGo'];
}

/** With its clamp off, how far a joint springs. */
export const LetGoTest = (props: LetGoProps) => (
  <FormDialog
    title={props.joint ? `Let ${props.panel.code} go: ${props.joint}` : `Let ${props.panel.code} go`}
    description="Take the clamp off the joint and read how far the two edges spring apart: a panel forced home pulls the shell"
    trigger={
      <Button look="quiet" aria-label={`Let go ${props.joint || props.panel.code}`}>
        Let go
      </Button>
    }
  >
    {(close) => <LetGoForm {...props} done={close} />}
  </FormDialog>
);

function LetGoForm({ panel, joint, addLetGo, done }: LetGoProps & { done: () => void }) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const form = useEntryForm({
    schema: letGo,
    action: addLetGo,
    defaults: { place: joint, sprung: '', most: format.thin(SPRINGS) },
    read: (values, faults, id) => {
      const length = lengthsOf(values, typedUnit(preferences), faults);
      const place = joint || values.place.trim();
      if (!place) faults.push({ path: 'place', message: 'say which joint' });
      const [sprung, most] = [length('sprung'), length('most')];
      if (most <= 0 && !faults.some(({ path }) => path === 'most'))
        faults.push({ path: 'most', message: 'above zero' });
      return { id, hungId: panel.id, place, sprung, most };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Note it">
      {joint ? null : (
        <TextField label="Joint" placeholder={format.name('A post, lower flange')} {...form.field('place')} />
      )}
      <TextField label={`Springs, ${format.unit}`} {...form.field('sprung')} />
      <TextField label={`Let pass up to, ${format.unit}`} {...form.field('most')} />
    </FormFields>
  );
}

interface JointProps {
  readonly panel: CalledPanel;
  /** The joint that is said anew; none where one is named. */
  readonly joint?: PanelJoint;
  /** Joints of the cut plan it may be. */
  readonly ofCut: FittingPage['joints'];
  readonly putPanelJoint: BoardActions['putPanelJoint'];
}

/** Names a joint of a panel: from then on every joint of it goes up the ladder by itself. */
export const NameJoint = (props: JointProps) => (
  <FormDialog
    title={props.joint ? props.joint.name : `A joint of ${props.panel.code}`}
    description="Where the panel is joined to what lies beside it. Each joint is gripped, clamped, tacked and welded by itself"
    trigger={
      <Button
        look="quiet"
        aria-label={props.joint ? `Change ${props.joint.name}` : `Name a joint of ${props.panel.code}`}
      >
        {props.joint ? 'Change' : 'Name a joint'}
      </Button>
    }
  >
    {(close) => <JointForm {...props} done={close} />}
  </FormDialog>
);

function JointForm({ panel, joint, ofCut, putPanelJoint, done }: JointProps & { done: () => void }) {
  const format = useFormat();
  const form = useEntryForm({
    schema: panelJoint,
    action: putPanelJoint,
    defaults: { name: joint?.name ?? '', edge: joint?.edge ?? '', jointId: joint?.jointId ?? '' },
    read: (values, faults) => {
      const name = joint?.name ?? values.name.trim();
      if (!name) faults.push({ path: 'name', message: 'say which joint: A post, lower flange' });
      return {
        ...{ hungId: panel.id, name },
        edge: (values.edge || null) as PanelJoint['edge'],
        jointId: values.jointId || null,
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it">
      {joint ? null : (
        <TextField label="Joint" placeholder={format.name('A post, lower flange')} {...form.field('name')} />
      )}
      <SelectField
        label="Runs along"
        options={[['', 'no edge of it'], ...EDGES.map((edge) => [edge, `its ${EDGE_WORD[edge]} edge`] as const)]}
        {...form.field('edge')}
      />
      {ofCut.length > 0 ? (
        <SelectField
          label="Joint of the cut plan"
          options={[
            ['', 'none: it was never cut'],
            ...ofCut.map(
              ({ id, code, panel: cut, beside }) =>
                [id, `${code} ${format.name(cut)}, ${format.name(beside)}`] as const,
            ),
          ]}
          {...form.field('jointId')}
        />
      ) : null}
    </FormFields>
  );
}

interface FixingProps {
  readonly panel: CalledPanel;
  readonly joints: readonly string[];
  readonly addFixing: BoardActions['addFixing'];
}

/** Names what a panel goes back on, or what was put in for a while. */
export const AddFixing = (props: FixingProps) => (
  <FormDialog
    title={`What holds ${props.panel.code} for a while`}
    description="Named dowels and index screws bring it back to where it was; all of it stays on the close-out list until it is welded or ground"
    trigger={<Button look="quiet">Fix</Button>}
  >
    {(close) => <FixingForm {...props} done={close} />}
  </FormDialog>
);

function FixingForm({ panel, joints, addFixing, done }: FixingProps & { done: () => void }) {
  const form = useEntryForm({
    schema: newFixing,
    action: addFixing,
    defaults: { kind: 'dowel' as Fixing['kind'], name: '', joint: '', place: '' },
    read: (values, faults, id) => {
      if (!values.name.trim()) faults.push({ path: 'name', message: 'it needs a name: D1' });
      const [name, place] = [values.name.trim(), values.place.trim()];
      return { id, hungId: panel.id, kind: values.kind, name, joint: values.joint || null, place };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Name it">
      <SelectField
        label="What"
        options={FIXING_KINDS.map((kind) => [kind, FIXING_WORD[kind]])}
        {...form.field('kind')}
      />
      <TextField label="Name" placeholder="D1" {...form.field('name')} />
      {joints.length > 0 ? (
        <SelectField
          label="At joint"
          options={[['', 'the whole panel'], ...joints.map((each) => [each, each] as const)]}
          {...form.field('joint')}
        />
      ) : null}
      <TextField label="Where" placeholder="rear flange, second from the top" {...form.field('place')} />
    </FormFields>
  );
}

interface LapProps {
  readonly jobId: string;
  readonly page: FittingPage;
  readonly putLap: BoardActions['putLap'];
}

/** Says what goes under a panel. */
export const AddLap = (props: LapProps) => (
  <FormDialog title="What goes under a panel" trigger={<Button look="quiet">Say what goes under</Button>}>
    {(close) => <LapForm {...props} done={close} />}
  </FormDialog>
);

function LapForm({ jobId, page, putLap, done }: LapProps & { done: () => void }) {
  const panels = page.panels.map(({ panel }) => [panel.id, `${panel.code} ${panel.name}`] as const);
  const form = useEntryForm({
    schema: lap,
    action: putLap,
    defaults: { overId: panels[0]![0] as string, underId: '', what: '' },
    read: (values, faults, id) => {
      const what = values.what.trim();
      if (values.underId === '' && what === '')
        faults.push({ path: 'what', message: 'a panel, or in words: a bracket, a face that wants paint' });
      if (values.underId === values.overId)
        faults.push({ path: 'underId', message: 'a panel does not lie under itself' });
      return {
        id,
        jobId,
        overId: values.overId,
        underId: values.underId === '' ? null : values.underId,
        what,
        done: false,
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it">
      <SelectField label="On top" options={panels} {...form.field('overId')} />
      <SelectField label="Under it" options={[['', 'no panel: in words'], ...panels]} {...form.field('underId')} />
      <TextField label="In words" placeholder="weld-through primer on the closed faces" {...form.field('what')} />
    </FormFields>
  );
}
