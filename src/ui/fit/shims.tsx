import type { Shim } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import { shims as schema } from '@/formats/inputs/fitting';
import { typedUnit } from '@/formats/preferences';
import { counted } from '@/core/report/vocabulary/words';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { useFormat, usePreferences } from '../shell/preferences-context';
import type { PanelActions } from './actions';

interface ShimsProps {
  readonly jobId: string;
  readonly shims: readonly Shim[];
  readonly setShims: PanelActions['setShims'];
}

/** The shims on the shelf, which advice is made of. */
export function Shims(props: ShimsProps) {
  const format = useFormat();
  const { shims } = props;
  return (
    <p className="flex flex-wrap items-center gap-3">
      <span>
        Shims on the shelf:{' '}
        {shims.length === 0
          ? 'none said, so that packing is advised to any figure'
          : shims.map(({ thickness, pieces }) => `${counted(pieces, 'piece')} of ${format.thin(thickness)}`).join(', ')}
      </span>
      <FormDialog title="Shims on the shelf" trigger={<Button look="quiet">Say which</Button>}>
        {(close) => <ShimsForm {...props} done={close} />}
      </FormDialog>
    </p>
  );
}

/** Shims typed as `4 × 0.5, 2 × 0.8`, or `0.5 0.8` for four of each. Faults stand at `shims`. */
export function readShims(text: string, jobId: string, length: (text: string) => number, faults: Fault[]): Shim[] {
  return text
    .split(/[,;]+/)
    .map((part) => part.trim())
    .filter(Boolean)
    .flatMap((part): Shim[] => {
      const [, pieces = '4', thickness] = /^(?:(\d+)\s*[×x*]\s*)?(\S.*)$/i.exec(part) ?? [];
      const mm = length(thickness ?? part);
      if (mm <= 0 && faults.length === 0)
        faults.push({ path: 'shims', message: `“${part}” is no shim: say how many and how thick, 4 × 0.5` });
      return [{ id: crypto.randomUUID(), jobId, thickness: mm, pieces: Number(pieces) }];
    });
}

function ShimsForm({ jobId, shims, setShims, done }: ShimsProps & { done: () => void }) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const form = useEntryForm({
    schema,
    action: setShims,
    defaults: { shims: shims.map(({ pieces, thickness }) => `${pieces} × ${format.thin(thickness)}`).join(', ') },
    read: (values, faults) => ({
      jobId,
      shims: readShims(
        values.shims,
        jobId,
        (text) => lengthsOf({ shims: text }, typedUnit(preferences), faults)('shims'),
        faults,
      ),
    }),
    done,
  });
  return (
    <FormFields form={form} yes="Keep these">
      <TextField
        label={`Shims, ${format.unit}`}
        hint="how many of each"
        placeholder="4 × 0.5, 4 × 0.8, 2 × 1.5"
        {...form.field('shims')}
      />
    </FormFields>
  );
}
