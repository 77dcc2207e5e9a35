'use client';

import { norm, type Vector } from '@/core/maths/geometry/vector';
import type { Pullable, PullingPage, PullView } from '@/core/report/pages/pulling';
import { ANCHOR_WORD, ATTACH_RULE, ATTACH_WORD, partsText } from '@/core/report/pull-words';
import { HOLD_WORD } from '@/core/report/vocabulary/words';
import { HOLD_KINDS, PULL_ANCHORS, PULL_ATTACHMENTS, type Hold, type Pull } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import { correctedPull, newPull } from '@/formats/inputs/work';
import { typedUnit } from '@/formats/preferences';
import { parseLength, type LengthUnit } from '@/core/maths/units/length';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import { freeCode } from '../work/free-code';
import type { PullActions } from './actions';
import { amountOf } from './amount';
import { readHolds } from './holds';
import { readPlates } from './plates';

/** What a pull's form has besides its code, point and aim. */
interface RigTexts {
  readonly against: string;
  readonly attach: NonNullable<Pull['attach']> | '';
  readonly anchor: NonNullable<Pull['anchor']> | '';
  readonly chain: string;
  readonly rated: string;
  readonly ramArea: string;
  readonly together: string;
  readonly heldAt: string;
  readonly note: string;
}

const NO_RIG: RigTexts = {
  ...{ against: '', attach: '', anchor: '', chain: '', rated: '', ramArea: '', together: '', heldAt: '', note: '' },
};

/** Newtons in a kilonewton, square millimetres in a square centimetre. */
const KILO = 1000;
const SQUARE = 100;

type Points = PullingPage['points'];
const pointCalled = (points: Points, code = '') =>
  points.find((point) => point.code.toLowerCase() === code.trim().toLowerCase());

function readRig(values: RigTexts, points: Points, pointId: string, unit: LengthUnit, faults: Fault[]) {
  const against = values.against.trim() === '' ? undefined : pointCalled(points, values.against);
  if (values.against.trim() !== '' && !against)
    faults.push({ path: 'against', message: `no point “${values.against}”` });
  if (against && against.id === pointId) faults.push({ path: 'against', message: 'it needs two different points' });
  const chain = values.chain.trim() === '' ? undefined : parseLength(values.chain, unit);
  if (chain && !chain.ok) faults.push({ path: 'chain', message: chain.reason });
  if (chain?.ok && chain.mm <= 0) faults.push({ path: 'chain', message: 'a length above nought, or nothing' });
  const rated = amountOf(values.rated, 'rated', 'kN', faults);
  const ramArea = amountOf(values.ramArea, 'ramArea', 'cm²', faults);
  return {
    againstPointId: against?.id ?? null,
    attach: values.attach || null,
    anchor: values.anchor || null,
    chain: chain?.ok ? chain.mm : null,
    rated: rated === null ? null : KILO * rated,
    ramArea: ramArea === null ? null : SQUARE * ramArea,
    ...{ together: values.together.trim(), heldAt: values.heldAt, note: values.note },
  };
}

interface RigFieldsProps {
  readonly field: (name: keyof RigTexts) => object;
  readonly attach: string;
}

function RigFields({ field, attach }: RigFieldsProps) {
  const format = useFormat();
  return (
    <>
      <SelectField
        label="Takes hold by"
        options={[['', 'nobody said'], ...PULL_ATTACHMENTS.map((kind) => [kind, ATTACH_WORD[kind]] as const)]}
        {...field('attach')}
      />
      <p role="status" className="text-sm text-soft">
        {attach === '' ? '' : ATTACH_RULE[attach as NonNullable<Pull['attach']>]}
      </p>
      <TextField
        label="Against this point"
        hint="of a jack, strap or turnbuckle across an opening; empty: a tower or floor anchor"
        {...field('against')}
      />
      <SelectField
        label="Anchored to"
        options={[['', 'nobody said'], ...PULL_ANCHORS.map((kind) => [kind, ANCHOR_WORD[kind]] as const)]}
        {...field('anchor')}
      />
      <TextField label={`Chain so long, ${format.unit}`} {...field('chain')} />
      <TextField label="Weakest part rated for, kN" hint="of chain, clamp, tower and anchor" {...field('rated')} />
      <TextField label="Ram's piston area, cm²" hint="shows the rating at the pump" {...field('ramArea')} />
      <TextField
        label="Together with"
        hint="pulls of one name are loaded a little each in turn"
        {...field('together')}
      />
      <TextField label="How it is held" {...field('heldAt')} placeholder={format.name('clamped at both sills')} />
      <TextField label="Note" {...field('note')} />
    </>
  );
}

interface PlanProps {
  readonly page: Pick<PullingPage, 'jobId' | 'points' | 'pullable' | 'roundId' | 'usedCodes'>;
  readonly actions: Pick<PullActions, 'planPull'>;
}

/** Plans a pull from a deviation of a round; without a round there is none. */
export const PlanPull = (props: PlanProps) => (
  <FormDialog
    title="Plan a pull"
    trigger={
      <Button look="main" className="ml-auto" disabled={!props.page.roundId}>
        Plan a pull
      </Button>
    }
  >
    {(close) => (props.page.roundId ? <PlanForm {...props} roundId={props.page.roundId} done={close} /> : null)}
  </FormDialog>
);

function PlanForm({ page, actions, roundId, done }: PlanProps & { roundId: string; done: () => void }) {
  const { format, preferences } = usePreferences();
  const { pullable, points, jobId } = page;
  const find = (code = ''): Pullable | undefined =>
    pullable.find((each) => each.code.toLowerCase() === code.trim().toLowerCase());
  const form = useEntryForm({
    schema: newPull,
    action: actions.planPull,
    defaults: {
      ...{
        code: freeCode(page.usedCodes, 'P'),
        point: '',
        plates: '',
        points: '',
        kind: 'clamp' as Hold['kind'],
        rating: '',
      },
      ...NO_RIG,
    },
    read: ({ code, point, plates, points: held, kind, rating, ...rig }, faults, id) => {
      const chosen = find(point);
      if (!code.trim()) faults.push({ path: 'code', message: 'mark it with a code' });
      if (!chosen) {
        const message = point ? `"${point}" is not a point with a deviation` : 'name a point';
        faults.push({ path: 'point', message });
      }
      const [aimX, aimY, aimZ] = chosen?.aim ?? [0, 0, 0];
      const pointId = chosen?.pointId ?? '';
      return {
        item: { id, jobId, kind: 'pull' as const, code: code.trim(), name: code.trim() },
        pull: {
          ...{ id, jobId, roundId, pointId, aimX, aimY, aimZ, dirX: null, dirY: null, dirZ: null },
          ...readRig(rig, points, pointId, typedUnit(preferences), faults),
        },
        holds: readHolds(held, points, id, { kind, rating }, faults),
        plates: readPlates(plates, points, id, faults),
      };
    },
    done,
  });
  const chosen = find(form.watch('point'));
  return (
    <FormFields form={form} yes="Plan it">
      <TextField label="Code" {...form.field('code')} />
      <TextField label="Point that is to move" list="pullable" {...form.field('point')} />
      <datalist id="pullable">
        {pullable.map((each) => (
          <option key={each.pointId} value={each.code} />
        ))}
      </datalist>
      <p role="status" className="sm:col-span-2">
        {chosen
          ? `Back by ${format.length(norm(chosen.aim))} ${format.unit}: ${partsText(chosen.aim, format.length)}.`
          : 'The direction and the distance come from the point’s deviation.'}
      </p>
      <TextField
        label="Bar also through plates at"
        hint="points, each with its share of the force in %; none: shared evenly"
        {...form.field('plates')}
      />
      <TextField label="Held at these points" placeholder="C1L C1R" {...form.field('points')} />
      <SelectField label="By" options={HOLD_KINDS.map((kind) => [kind, HOLD_WORD[kind]])} {...form.field('kind')} />
      <TextField label="Each hold rated for, kN" {...form.field('rating')} />
      <RigFields field={form.field} attach={form.watch('attach')} />
    </FormFields>
  );
}

interface CorrectProps {
  readonly page: Pick<PullingPage, 'points'>;
  readonly view: Pick<PullView, 'pull' | 'item' | 'against'>;
  readonly actions: Pick<PullActions, 'correctPull'>;
}

/** Corrects what was written of a pull; its readings stay what they were. */
export const CorrectPull = (props: CorrectProps) => (
  <FormDialog
    title={`Correct ${props.view.pull.code}`}
    description="How it was before is kept, with who changed it and when"
    trigger={<Button look="quiet">Correct …</Button>}
  >
    {(close) => <CorrectForm {...props} done={close} />}
  </FormDialog>
);

const AIMS = ['aimX', 'aimY', 'aimZ'] as const;

function CorrectForm({ page, view: { pull, item, against = '' }, actions, done }: CorrectProps & { done: () => void }) {
  const { format, preferences } = usePreferences();
  const shown = {
    ...{
      code: pull.code,
      against,
      attach: pull.attach ?? ('' as const),
      anchor: pull.anchor ?? ('' as const),
      together: pull.together,
    },
    chain: pull.chain === null ? '' : format.length(pull.chain),
    rated: pull.rated === null ? '' : String(pull.rated / KILO),
    ramArea: pull.ramArea === null ? '' : String(pull.ramArea / SQUARE),
    ...{ heldAt: pull.heldAt, note: pull.note },
    ...{ aimX: format.length(pull.aimX), aimY: format.length(pull.aimY), aimZ: format.length(pull.aimZ) },
  };
  const form = useEntryForm({
    schema: correctedPull,
    action: actions.correctPull,
    defaults: shown,
    read: ({ code, aimX, aimY, aimZ, ...rig }, faults) => {
      if (!code.trim()) faults.push({ path: 'code', message: 'mark it with a code' });
      const unit = typedUnit(preferences);
      const typed = { aimX, aimY, aimZ };
      const length = lengthsOf(typed, unit, faults);
      // What was not touched stays to the last digit, not to the digit shown.
      const [x, y, z] = AIMS.map((aim) => (typed[aim] === shown[aim] ? pull[aim] : length(aim))) as unknown as Vector;
      const read = readRig(rig, page.points, pull.pointId, unit, faults);
      const { code: _, ...row } = pull;
      return {
        item: { ...item, code: code.trim(), name: code.trim() },
        pull: {
          ...{ ...row, ...read, aimX: x, aimY: y, aimZ: z },
          chain: rig.chain === shown.chain ? pull.chain : read.chain,
        },
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it so">
      <TextField label="Code" {...form.field('code')} />
      <TextField label={`Wanted rearward, ${format.unit}`} {...form.field('aimX')} />
      <TextField label="To the right" {...form.field('aimY')} />
      <TextField label="Up" {...form.field('aimZ')} />
      <RigFields field={form.field} attach={form.watch('attach')} />
    </FormFields>
  );
}
