'use client';

import { Slider } from 'radix-ui';

export const FACTORS = [1, 2, 3, 5, 7, 10, 15, 20, 30, 50, 70, 100, 150, 200];

/** How many times as large movements are drawn. */
export function FactorSlider({
  factor,
  onChange,
  onCommit,
}: {
  factor: number;
  onChange: (factor: number) => void;
  onCommit: (factor: number) => void;
}) {
  const index = FACTORS.reduce(
    (best, each, i) => (Math.abs(each - factor) < Math.abs(FACTORS[best]! - factor) ? i : best),
    0,
  );
  return (
    <span className="flex items-center gap-3">
      <span className="caps">Exaggeration</span>
      <Slider.Root
        min={0}
        max={FACTORS.length - 1}
        value={[index]}
        onValueChange={([i]) => onChange(FACTORS[i!]!)}
        onValueCommit={([i]) => onCommit(FACTORS[i!]!)}
        className="relative flex h-11 w-40 touch-none items-center"
      >
        <Slider.Track className="relative h-1 grow bg-rule" />
        <Slider.Thumb aria-label="Exaggeration" aria-valuetext={`${factor} times`} className="block h-7 w-4 bg-ink" />
      </Slider.Root>
      <span className="figures w-10">×{factor}</span>
    </span>
  );
}
