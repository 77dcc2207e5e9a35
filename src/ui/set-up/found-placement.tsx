import { angleText } from '@/core/maths/units/angle';
import type { PlannedSetUp } from '@/core/report/pages/set-up';
import type { SetUpFields } from '@/formats/inputs/set-up';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';

const ALONG = ['along the rails', 'to the right', 'up'] as const;
const ABOUT = ['about its length', 'about its width', 'seen from above'] as const;

/** Where the last round has found the shell, beside where it is planned; taken over at a press. */
export function FoundPlacement({ planned, changeSetUp }: { planned: PlannedSetUp; changeSetUp: Action<SetUpFields> }) {
  const format = useFormat();
  const taking = useAction(changeSetUp);
  const { found, setUp } = planned;
  if (!found) return null;
  const { at, turned } = found.placement;
  const tenth = (mm: number) => Math.round(mm * 10) / 10;
  const hundredth = (degrees: number) => Math.round(degrees * 100) / 100;
  const [x, y, z] = at.map(({ value }) => tenth(value)) as [number, number, number];
  const [turnX, turnY, turnZ] = turned.map(({ value }) => hundredth(value)) as [number, number, number];
  const take = () => taking.run({ ...setUp, x, y, z, turnX, turnY, turnZ });
  return (
    <div className="flex flex-col gap-2 border-l-2 border-rule pl-3">
      <p>
        By the round “{found.round}” the chart’s zero stands{' '}
        {at
          .map(({ value, uncertainty }, k) => `${format.length(value)} ${format.plusMinus(uncertainty)} ${ALONG[k]}`)
          .join(', ')}{' '}
        ({format.unit}), turned{' '}
        {turned
          .map(({ value, uncertainty }, k) => `${angleText(value, 2)} ±${angleText(uncertainty, 2)} ${ABOUT[k]}`)
          .join(', ')}
        .
      </p>
      <Faults faults={taking.faults} />
      <Button className="self-start" disabled={taking.pending} onClick={take}>
        Plan from where it stands
      </Button>
    </div>
  );
}
