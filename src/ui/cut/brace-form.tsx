import { angleText } from '@/core/maths/units/angle';
import { lineGeometry } from '@/core/findings/brace-pull';
import { tubeFor } from '@/core/plan/cut/brace-advice';
import { PART_STIFFNESS } from '@/core/plan/cut/stages';
import type { SawnBrace } from '@/core/plan/cut/saw-list';
import type { CuttingPage } from '@/core/report/pages/cutting';
import { END_WORD } from '@/core/report/cut-words';
import { BRACE_WORD } from '@/core/report/vocabulary/words';
import { BRACE_ENDS, NEW_BRACE, type Brace } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import { correctedBrace, newBrace } from '@/formats/inputs/work';
import { typedUnit } from '@/formats/preferences';
import { parseLength, type LengthUnit } from '@/core/maths/units/length';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useEntryForm, wordsOf } from '../kit/use-entry-form';
import { usePreferences } from '../shell/preferences-context';
import { freeCode } from '../work/free-code';
import type { CuttingActions } from './actions';

type Page = Pick<
  CuttingPage,
  'jobId' | 'points' | 'places' | 'dimensions' | 'sections' | 'stages' | 'latestRoundId' | 'usedCodes'
>;

/** A brace as its form has it. */
type Texts = Record<
  'code' | 'from' | 'to' | 'sectionId' | 'holds' | 'off' | 'thread' | 'stageIn' | 'stageOut' | 'stiffness' | 'force',
  string
> & {
  readonly kind: Brace['kind'];
  readonly hand: 'right' | 'left';
  readonly fromEnd: Brace['fromEnd'];
  readonly toEnd: Brace['toEnd'];
};

const EMPTY: Texts = {
  ...{ code: '', from: '', to: '', sectionId: '', holds: '', off: '', thread: '', stageIn: '', stageOut: '' },
  ...{ stiffness: '', force: '' },
  ...{ kind: 'weldedTube', hand: 'right', fromEnd: 'doubled', toEnd: 'doubled' },
};

/** What the fields say, with a fault for each that makes no sense. */
function readBrace(page: Page, values: Texts, unit: LengthUnit, faults: Fault[]) {
  const pointOf = (code: string) => page.points.find((point) => point.code.toLowerCase() === code.trim().toLowerCase());
  const [a, b] = [pointOf(values.from), pointOf(values.to)];
  if (!values.code.trim()) faults.push({ path: 'code', message: 'mark it with a code' });
  if (!a) faults.push({ path: 'from', message: `no point “${values.from}”` });
  if (!b) faults.push({ path: 'to', message: `no point “${values.to}”` });
  else if (a === b) faults.push({ path: 'to', message: 'a brace has two ends' });
  const length = (path: 'off' | 'thread') => {
    if (values[path].trim() === '') return undefined;
    const parsed = parseLength(values[path], unit);
    if (!parsed.ok) faults.push({ path, message: parsed.reason });
    return parsed.ok ? parsed.mm : undefined;
  };
  const figure = (path: 'stiffness' | 'force') => {
    // What is not asked of its kind is not kept.
    const text = ASKED_OF[path].kinds.some((kind) => kind === values.kind) ? (values[path] ?? '') : '';
    const value = text.trim() === '' ? null : Number(text.replace(',', '.'));
    if (value !== null && !(value > 0))
      faults.push({ path, message: `a number of ${ASKED_OF[path].unit}, or nothing` });
    return value;
  };
  const [off, thread] = [length('off') ?? 0, length('thread')];
  if (thread === 0) faults.push({ path: 'thread', message: 'how far one turn lengthens it, or nothing' });
  const dimensionIds = wordsOf(values.holds).flatMap((code) => {
    const dimension = page.dimensions.find((each) => each.code.toLowerCase() === code.toLowerCase());
    if (!dimension) faults.push({ path: 'holds', message: `no dimension ${code}` });
    return dimension ? [dimension.id] : [];
  });
  return {
    code: values.code.trim(),
    fields: {
      ...{ fromPointId: a?.id ?? '', toPointId: b?.id ?? '', kind: values.kind },
      ...{ sectionId: values.sectionId || null, fromEnd: values.fromEnd, toEnd: values.toEnd },
      ...{ fromOff: off, toOff: off },
      threadPitch: thread ? (values.hand === 'left' ? -1 : 1) * thread : null,
      ...{ stiffness: figure('stiffness'), force: figure('force') },
      ...{ stageInId: values.stageIn || null, stageOutId: values.stageOut || null },
    },
    dimensionIds,
  };
}

/** Figures that only some kinds of brace have. */
const ASKED_OF = {
  stiffness: { kinds: ['part'], unit: 'newtons a millimetre' },
  force: { kinds: ['slip', 'prop'], unit: 'newtons' },
} as const satisfies Record<string, { readonly kinds: readonly Brace['kind'][]; readonly unit: string }>;

interface FormProps {
  readonly page: Page;
  readonly actions: Pick<CuttingActions, 'planBrace' | 'correctBrace'>;
  readonly known?: SawnBrace;
}

/** Plans a brace by hand, or corrects one. */
export function BraceDialog({ page, actions, known }: FormProps) {
  return (
    <FormDialog
      title={known ? `Correct ${known.brace.code}` : 'Plan a brace'}
      {...(known ? { description: 'How it was before is kept, with who changed it and when' } : {})}
      trigger={
        known ? (
          <Button look="quiet">Correct …</Button>
        ) : (
          <Button look="main" className="ml-auto">
            Plan a brace
          </Button>
        )
      }
    >
      {(close) =>
        known ? <Correct {...{ page, actions, known }} done={close} /> : <Plan {...{ page, actions }} done={close} />
      }
    </FormDialog>
  );
}

function Plan({ page, actions, done }: FormProps & { readonly done: () => void }) {
  const { preferences } = usePreferences();
  const form = useEntryForm({
    schema: newBrace,
    action: actions.planBrace,
    defaults: {
      ...EMPTY,
      code: freeCode(page.usedCodes, 'X'),
      sectionId: page.sections[0]?.id ?? '',
    },
    read: (values, faults, id) => {
      const { code, fields, dimensionIds } = readBrace(page, values, typedUnit(preferences), faults);
      const brace = { id, jobId: page.jobId, ...NEW_BRACE, ...fields, roundId: page.latestRoundId };
      return { item: { id, jobId: page.jobId, kind: 'brace' as const, code, name: code }, brace, dimensionIds };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Plan it">
      <Fields page={page} field={form.field} watch={form.watch} />
    </FormFields>
  );
}

function Correct({ page, actions, known, done }: FormProps & { readonly known: SawnBrace; readonly done: () => void }) {
  const { format, preferences } = usePreferences();
  const { brace, from, to, holds, item } = known;
  const { threadPitch } = brace;
  const shown: Texts = {
    ...{ code: brace.code, from, to, kind: brace.kind, sectionId: brace.sectionId ?? '' },
    ...{ fromEnd: brace.fromEnd, toEnd: brace.toEnd, off: format.length(brace.fromOff) },
    thread: threadPitch === null ? '' : format.fine(Math.abs(threadPitch)),
    hand: threadPitch !== null && threadPitch < 0 ? 'left' : 'right',
    ...{ stageIn: brace.stageInId ?? '', stageOut: brace.stageOutId ?? '' },
    ...{ stiffness: brace.stiffness?.toString() ?? '', force: brace.force?.toString() ?? '' },
    holds: holds.map(({ code }) => code).join(' '),
  };
  const form = useEntryForm({
    schema: correctedBrace,
    action: actions.correctBrace,
    defaults: shown,
    read: (values, faults) => {
      const { code, fields, dimensionIds } = readBrace(page, values, typedUnit(preferences), faults);
      const { code: _, section: __, ...row } = brace;
      // What was not touched stays to the last digit, not to the digit shown.
      const kept = {
        ...(values.off === shown.off ? { fromOff: brace.fromOff, toOff: brace.toOff } : {}),
        ...(values.thread === shown.thread && values.hand === shown.hand ? { threadPitch } : {}),
      };
      return { item: { ...item, code, name: code }, brace: { ...row, ...fields, ...kept }, dimensionIds };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it so">
      <Fields page={page} field={form.field} watch={form.watch} />
    </FormFields>
  );
}

interface FieldsProps {
  readonly page: Page;
  readonly field: (name: keyof Texts) => object;
  readonly watch: (name: 'from' | 'to' | 'kind') => string;
}

/** The line between two points by their codes, where both are known. */
function lineBetween({ points, places }: Page, from = '', to = '') {
  const at = (code: string) => {
    const point = points.find((each) => each.code.toLowerCase() === code.trim().toLowerCase());
    return point && places[point.id];
  };
  const [a, b] = [at(from), at(to)];
  return a && b ? lineGeometry(a, b) : undefined;
}

/** What is asked of some kinds besides, and what they are. */
function KindFields({ kind, field }: Pick<FieldsProps, 'field'> & { readonly kind: Brace['kind'] }) {
  if (kind === 'part')
    return (
      <TextField
        label="How stiff it is between the two places, N/mm"
        hint={`a door tacked shut, a seat frame; empty: ${PART_STIFFNESS}`}
        inputMode="decimal"
        {...field('stiffness')}
      />
    );
  if (kind === 'slip' || kind === 'prop')
    return (
      <TextField
        label={kind === 'slip' ? 'It slides at, N' : 'Pressed in with, N'}
        hint={kind === 'slip' ? 'what its clamp holds; empty: it does not slide' : 'empty: it only touches'}
        inputMode="decimal"
        {...field('force')}
      />
    );
  return null;
}

function Fields({ page, field, watch }: FieldsProps) {
  const { format } = usePreferences();
  const line = lineBetween(page, watch('from'), watch('to'));
  const tube = line && tubeFor(page.sections, line.length);
  const ends = BRACE_ENDS.map((end) => [end, END_WORD[end]] as const);
  const stages = page.stages.filter(({ id }) => id !== '').map(({ id, name }) => [id, `before “${name}”`] as const);
  return (
    <>
      <TextField label="Code" {...field('code')} />
      <SelectField
        label="Kind"
        {...field('kind')}
        options={(Object.keys(BRACE_WORD) as Brace['kind'][]).map((kind) => [kind, BRACE_WORD[kind]])}
      />
      <KindFields kind={watch('kind') as Brace['kind']} field={field} />
      <TextField label="From point" {...field('from')} />
      <TextField label="To point" {...field('to')} />
      <SelectField label="Its end there sits on" options={ends} {...field('fromEnd')} />
      <SelectField label="and the other on" options={ends} {...field('toEnd')} />
      <SelectField
        label="Tube"
        options={[['', 'not said'] as const, ...page.sections.map(({ id, name }) => [id, format.name(name)] as const)]}
        {...field('sectionId')}
      />
      <TextField label={`Pads and nuts take off at each end, ${format.unit}`} placeholder="0" {...field('off')} />
      <TextField
        label={`Thread: a turn lengthens it by, ${format.unit}`}
        hint="empty: it has none"
        {...field('thread')}
      />
      <SelectField
        label="The thread is"
        options={[
          ['right', 'right-handed: turned clockwise it grows shorter'],
          ['left', 'left-handed'],
        ]}
        {...field('hand')}
      />
      <SelectField
        label="Goes in"
        options={[['', 'before anything is cut'] as const, ...stages]}
        {...field('stageIn')}
      />
      <SelectField label="Comes out" options={[['', 'at the end'] as const, ...stages]} {...field('stageOut')} />
      <TextField label="Dimensions it holds" placeholder="DL1 DL2" {...field('holds')} />
      <p role="status" className="sm:col-span-2">
        {line
          ? `${format.length(line.length)} ${format.unit} between the points, rising ${angleText(line.rise, 1)}, ${angleText(line.heading, 1)} in plan.`
          : 'Name two points to see the length and the angles.'}{' '}
        {tube ? `The lightest tube that somebody can climb on over it: ${format.name(tube.name)}.` : ''}
      </p>
      <p className="text-sm text-soft sm:col-span-2">
        Weld or bolt it to metal that stays, on doubled metal, out of the way of the new panel, where it can be reached
        and removed at the end.
      </p>
    </>
  );
}
