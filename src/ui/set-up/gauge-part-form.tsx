import type { CheckedPart } from '@/core/shell/gauges';
import { gaugePart, type GaugePartInput } from '@/formats/inputs/set-up';
import { CHECK_COLUMNS, checksText, HOLE_COLUMNS, holesText, readChecks, readHoles } from '@/formats/gauge-text';
import { typedUnit } from '@/formats/preferences';
import { TextArea, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { usePreferences } from '../shell/preferences-context';

interface GaugePartFormProps {
  readonly jobId: string;
  readonly known?: CheckedPart;
  readonly saveGaugePart: Action<GaugePartInput>;
  readonly done: () => void;
}

/** How well the holes of a part are known where nothing else is typed, mm. */
const USUAL_SD = 0.3;

/** Writes down a part that serves as a gauge: its holes and the lengths taped on it, a line each. */
export function GaugePartForm({ jobId, known, saveGaugePart, done }: GaugePartFormProps) {
  const { format, preferences } = usePreferences();
  const unit = typedUnit(preferences);
  const holes = known?.holes ?? [];
  const checks = known?.lengths.map(({ check }) => check) ?? [];
  const shown = {
    code: known?.part.code ?? '',
    name: known?.part.name ?? '',
    sd: format.uncertainty(2 * (known?.part.sd ?? USUAL_SD)),
    holes: holesText(holes, format.length),
    checks: checksText(checks, holes, format.length),
  };
  const form = useEntryForm({
    schema: gaugePart,
    action: saveGaugePart,
    defaults: shown,
    read: (values, faults, identity) => {
      const id = known?.part.id ?? identity;
      const newId = () => crypto.randomUUID();
      // What was not touched stays to the last digit, not to the digit shown.
      const read =
        values.holes === shown.holes
          ? { holes: [...holes], faults: [] }
          : readHoles(values.holes, unit, { id, holes }, newId);
      const taped =
        values.checks === shown.checks && read.holes.length === holes.length
          ? { checks: [...checks], faults: [] }
          : readChecks(values.checks, unit, { id, holes: read.holes }, newId);
      faults.push(...read.faults, ...taped.faults);
      const sd = values.sd === shown.sd && known ? known.part.sd : lengthsOf(values, unit, faults)('sd') / 2;
      const part = {
        id,
        jobId,
        code: values.code.trim(),
        name: values.name.trim(),
        sd,
        version: known?.part.version ?? 1,
      };
      return { part, holes: read.holes, checks: taped.checks };
    },
    done,
  });
  const area = (name: 'holes' | 'checks') =>
    form.field(name) as unknown as React.ComponentProps<'textarea'> & { readonly error?: string };
  return (
    <FormFields form={form} yes={known ? 'Change' : 'Add'}>
      <TextField label="Short name, as in axle.1" {...form.field('code')} />
      <TextField label="What it is" {...form.field('name')} />
      <TextField label={`Its holes are known to ±, ${format.unit}`} {...form.field('sd')} />
      <div className="sm:col-span-2">
        <TextArea
          label={`Holes, ${format.unit}`}
          hint={`a hole a line: ${HOLE_COLUMNS.join('; ')}`}
          rows={5}
          {...area('holes')}
        />
      </div>
      <div className="sm:col-span-2">
        <TextArea
          label={`Taped on the part, ${format.unit}`}
          hint={`a length a line: ${CHECK_COLUMNS.join('; ')}. A hole nobody taped has no voice.`}
          rows={4}
          {...area('checks')}
        />
      </div>
    </FormFields>
  );
}
