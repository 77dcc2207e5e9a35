'use client';

import type { ComponentProps } from 'react';
import { SIDES } from '@/core/shell/job/entities';
import { SelectField } from '../kit/field';
import { useFormat } from './preferences-context';

/** Which side of the car something is on, in the words that were chosen. */
export function SideField(field: Omit<ComponentProps<typeof SelectField>, 'label' | 'options'>) {
  const format = useFormat();
  return <SelectField label="Side" options={SIDES.map((side) => [side, format.name(side)])} {...field} />;
}
