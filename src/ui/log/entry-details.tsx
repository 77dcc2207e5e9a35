import type { LengthUnit } from '@/core/maths/units/length';
import { GRADE_WORD, SORT_WORD } from '@/core/report/vocabulary/words';
import {
  FINDING_SORTS,
  WELD_GRADES,
  type DecisionDetail,
  type FindingDetail,
  type LogEntry,
} from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import type { Formatter } from '@/formats/formatter';
import type { NewEntry } from '@/formats/inputs/log';
import { SelectField, TextArea, TextField } from '../kit/field';
import { lengthsOf } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';

/** An entry as it was written, and what it was about. */
export interface Corrected {
  readonly entry: LogEntry;
  readonly about: string;
  readonly finding?: FindingDetail;
  readonly decision?: DecisionDetail;
}

/** What an entry says besides its words, as the form has it. */
export interface DetailTexts {
  readonly sort: string;
  readonly grade: string;
  readonly before: string;
  readonly after: string;
  readonly weight: string;
  readonly otherSide: string;
  readonly hours: string;
  readonly ownerSays: string;
  readonly ownerSaidOn: string;
}

export function detailDefaults(corrects: Corrected | undefined, format: Formatter): DetailTexts {
  const { finding, decision } = corrects ?? {};
  const length = (mm: number | null | undefined) => (mm === null || mm === undefined ? '' : format.length(mm));
  return {
    sort: finding?.sort ?? 'other',
    grade: finding?.grade ?? '',
    before: length(finding?.before),
    after: length(finding?.after),
    weight: finding?.weight ?? '',
    otherSide: finding?.otherSide ? 'yes' : '',
    hours: decision?.hours?.toString() ?? '',
    ownerSays: decision?.ownerSays ?? '',
    ownerSaidOn: decision?.ownerSaidAt ? format.date(decision.ownerSaidAt) : '',
  };
}

const THICKNESS: readonly string[] = ['metalThickness', 'coatingThickness'] satisfies FindingDetail['sort'][];
/** The owner's word is dated by the day: noon, in the shop's time. */
const NOON = 12;

/** What the fields of an entry's kind say, with a fault for each that makes no sense. */
export function readDetails(
  kind: string,
  texts: Partial<DetailTexts>,
  unit: LengthUnit,
  format: Formatter,
  faults: Fault[],
): Pick<NewEntry, 'finding' | 'decision'> {
  const { sort = 'other', grade, weight, otherSide, hours = '', ownerSays, ownerSaidOn } = texts;
  if (kind === 'decision') {
    const spent = hours.trim() === '' ? null : Number(hours.replace(',', '.'));
    if (spent !== null && !(spent >= 0))
      faults.push({ path: 'hours', message: `“${hours}” is not a number of hours: 6 or 6.5` });
    if (ownerSays && !ownerSaidOn) faults.push({ path: 'ownerSaidOn', message: 'say on which day' });
    return {
      finding: null,
      decision: {
        hours: spent,
        ownerSays: (ownerSays || null) as 'yes' | null,
        ownerSaidAt: ownerSays && ownerSaidOn ? format.instant(ownerSaidOn, NOON) : null,
      },
    };
  }
  if (kind !== 'finding') return { finding: null, decision: null };
  const length = lengthsOf(texts as Record<string, string>, unit, faults);
  const thickness = (field: 'before' | 'after') =>
    THICKNESS.includes(sort) && texts[field]?.trim() ? length(field) : null;
  return {
    finding: {
      sort: sort as FindingDetail['sort'],
      grade: sort === 'oldWeld' ? ((grade || null) as FindingDetail['grade']) : null,
      ...{ before: thickness('before'), after: thickness('after') },
      weight: (weight || null) as FindingDetail['weight'],
      otherSide: otherSide === 'yes',
    },
    decision: null,
  };
}

interface Drawn {
  readonly kind: LogEntry['kind'];
  readonly sort: string;
  readonly ownerSays: string;
  readonly form: { readonly field: (name: keyof DetailTexts | 'overturnedBy') => object };
}

/** The fields that belong to the kind of an entry. */
export function DetailFields({ kind, sort, ownerSays, form: { field } }: Drawn) {
  if (kind === 'assumption') return <TextArea label="What would overturn it" {...field('overturnedBy')} />;
  if (kind === 'decision')
    return (
      <div className="grid grid-cols-3 gap-3">
        <TextField label="Hours" inputMode="decimal" {...field('hours')} />
        <SelectField
          label="The owner says"
          {...field('ownerSays')}
          options={[
            ['', 'not asked'],
            ['yes', 'yes'],
            ['no', 'no'],
          ]}
        />
        {ownerSays ? <TextField label="On" type="date" {...field('ownerSaidOn')} /> : null}
      </div>
    );
  return <FindingFields sort={sort} field={field} />;
}

function FindingFields({ sort, field }: { sort: string; field: Drawn['form']['field'] }) {
  const format = useFormat();
  return (
    <div className="grid grid-cols-2 gap-3">
      <SelectField
        label="Kind of finding"
        {...field('sort')}
        options={FINDING_SORTS.map((each) => [each, SORT_WORD[each]])}
      />
      <SelectField
        label="Matters"
        {...field('weight')}
        options={[
          ['', 'not said'],
          ['structural', 'structural'],
          ['cosmetic', 'cosmetic'],
        ]}
      />
      {sort === 'oldWeld' ? (
        <SelectField
          label="The weld is"
          {...field('grade')}
          options={[['', 'not said'], ...WELD_GRADES.map((grade) => [grade, GRADE_WORD[grade]] as const)]}
        />
      ) : null}
      {THICKNESS.includes(sort) ? (
        <>
          <TextField label={`Before, ${format.unit}`} {...field('before')} />
          <TextField label={`After, ${format.unit}`} {...field('after')} />
        </>
      ) : null}
      <SelectField
        label="Seen on"
        {...field('otherSide')}
        options={[
          ['', 'both sides, or there is one only'],
          ['yes', 'one side: look at the other'],
        ]}
      />
    </div>
  );
}
