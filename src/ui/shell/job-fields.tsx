import type { UseFormRegisterReturn } from 'react-hook-form';
import { SelectField, TextField } from '../kit/field';

/** The fields of a job that are typed. */
export const JOB_FIELDS = ['shell', 'identityNumber', 'owner', 'shop', 'bench'] as const;

const LABEL: Readonly<Record<(typeof JOB_FIELDS)[number], string>> = {
  shell: 'Shell, model and year',
  identityNumber: 'Identity number stamped in it',
  owner: 'Owner',
  shop: 'Shop',
  bench: 'Bench or stands',
};

type Field = (name: 'name' | 'driverSide' | (typeof JOB_FIELDS)[number]) => UseFormRegisterReturn & {
  readonly error?: string;
};

/** What is known of a shell before anything is measured, for a new job and for one that is corrected. */
export const JobFields = ({ field }: { field: Field }) => (
  <>
    {JOB_FIELDS.map((name) => (
      <TextField key={name} label={LABEL[name]} {...field(name)} />
    ))}
    <SelectField
      label="The driver sits on the"
      {...field('driverSide')}
      hint="Left and right are as seen from that seat"
      options={[
        ['left', 'left'],
        ['right', 'right'],
      ]}
    />
  </>
);
