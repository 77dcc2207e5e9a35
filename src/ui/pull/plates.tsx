import type { PullingPage, PullView } from '@/core/report/pages/pulling';
import type { Plate } from '@/core/shell/job/entities';
import type { Fault } from '@/formats/faults';
import { itemPlates } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useEntryForm, wordsOf } from '../kit/use-entry-form';
import type { PullActions } from './actions';

type Points = PullingPage['points'];

const percent = (share: number): string => `${Math.round(100 * share)} %`;
const FIGURE = /^(\d+(?:[.,]\d+)?)%?$/;

/**
 * Plates typed as `S2L 40 S3L 30`: codes, each with the share of the force in per cent that goes through it; without any figure
 * all plates and the pull's own point take the same. Faults stand at `plates`.
 */
export function readPlates(text: string, points: Points, itemId: string, faults: Fault[]): Plate[] {
  const said: { code: string; share?: number }[] = [];
  for (const word of wordsOf(text)) {
    const figure = FIGURE.exec(word)?.[1];
    if (word === '%') continue;
    if (figure === undefined) said.push({ code: word });
    else if (said.length === 0 || said.at(-1)!.share !== undefined)
      faults.push({ path: 'plates', message: `“${word}” follows no point: say the point, then its share` });
    else said.at(-1)!.share = Number(figure.replace(',', '.')) / 100;
  }
  const shared = said.some(({ share }) => share !== undefined);
  const plates = said.flatMap(({ code, share }): Plate[] => {
    const point = points.find((each) => each.code.toLowerCase() === code.toLowerCase());
    if (!point) faults.push({ path: 'plates', message: `no point “${code}” in this job` });
    else if (shared && share === undefined)
      faults.push({ path: 'plates', message: `${code} has no share: say one for each plate, or for none` });
    const part = shared ? share : 1 / (said.length + 1);
    return point && part !== undefined
      ? [{ id: crypto.randomUUID(), itemId, pointId: point.id, share: Number(part.toFixed(4)) }]
      : [];
  });
  if (new Set(plates.map(({ pointId }) => pointId)).size < plates.length)
    faults.push({ path: 'plates', message: 'a plate is named twice' });
  return plates;
}

interface PlatesProps extends Pick<PullView, 'pull' | 'plates' | 'point'> {
  readonly points: Points;
  readonly setPlates: PullActions['setPlates'];
}

/** What a pull takes hold of: one place, or a bar through plates at several with the share that goes through each. */
export function Plates(props: PlatesProps) {
  const { pull, plates, point } = props;
  if (pull.againstPointId !== null) return null;
  const own = plates.reduce((left, { plate }) => left - plate.share, 1);
  return (
    <div className="flex flex-wrap items-center gap-3 text-sm" data-plates={plates.length}>
      <p className="text-soft">
        {plates.length === 0
          ? `Pulls at ${point} alone.`
          : `A bar through plates: ${[`${point} takes ${percent(own)}`, ...plates.map(({ code, plate }) => `${code} ${percent(plate.share)}`)].join(', ')} of the force.`}
      </p>
      <FormDialog title={`What ${pull.code} pulls at`} trigger={<Button look="quiet">Plates</Button>}>
        {(close) => <PlatesForm {...props} done={close} />}
      </FormDialog>
    </div>
  );
}

function PlatesForm({ points, pull, plates, setPlates, done }: PlatesProps & { done: () => void }) {
  const form = useEntryForm({
    schema: itemPlates,
    action: setPlates,
    defaults: {
      plates: plates.map(({ code, plate }) => `${code} ${Number((100 * plate.share).toFixed(1))}`).join(' '),
    },
    read: ({ plates: typed }, faults) => ({ itemId: pull.id, plates: readPlates(typed, points, pull.id, faults) }),
    done,
  });
  return (
    <FormFields form={form} yes="Keep these">
      <TextField
        label="Bar also through plates at"
        hint="points, each with its share of the force in %; none: shared evenly"
        placeholder="S2L 40 S3L 30"
        {...form.field('plates')}
      />
    </FormFields>
  );
}
