import { Slider } from 'radix-ui';
import { angleText } from '@/core/maths/units/angle';
import type { Vector } from '@/core/maths/geometry/vector';
import { wayText } from '@/core/report/pull-words';
import { anglesOf, directionAt } from './shape';

interface TurnProps {
  readonly code: string;
  readonly direction: Vector;
  readonly onTurn: (direction: Vector) => void;
}

const share = (part: number): string => `${part < -0.005 ? '−' : ''}${Math.abs(100 * part).toFixed(0)} %`;

/** The direction of a pull by its two angles from the bench, for hands that do not drag. */
export function TurnPanel({ code, direction, onTurn }: TurnProps) {
  const { heading, rise } = anglesOf(direction);
  return (
    <fieldset className="flex flex-col gap-1 border-l-4 border-rule pl-3" data-turning={code}>
      <legend className="caps">Direction of {code}</legend>
      <p role="status">
        {wayText(direction)}: length {share(direction[0])}, sideways {share(direction[1])}, height {share(direction[2])}
      </p>
      <Angle
        label={`In plan, from straight rearward to the right`}
        value={heading}
        most={180}
        onChange={(value) => onTurn(directionAt(value, rise))}
      />
      <Angle label="Above the bench" value={rise} most={89} onChange={(value) => onTurn(directionAt(heading, value))} />
    </fieldset>
  );
}

interface AngleProps {
  readonly label: string;
  readonly value: number;
  readonly most: number;
  readonly onChange: (value: number) => void;
}

function Angle({ label, value, most, onChange }: AngleProps) {
  return (
    <div className="flex flex-col">
      <span className="flex justify-between text-sm text-soft">
        {label} <span className="figures">{angleText(value)}</span>
      </span>
      <Slider.Root
        min={-most}
        max={most}
        step={1}
        value={[Math.round(value)]}
        onValueChange={([next]) => onChange(next!)}
        className="relative flex h-11 touch-none items-center"
      >
        <Slider.Track className="relative h-1 grow bg-rule" />
        <Slider.Thumb
          aria-label={label}
          aria-valuetext={`${value.toFixed(0)} degrees`}
          className="block h-7 w-4 bg-ink"
        />
      </Slider.Root>
    </div>
  );
}
