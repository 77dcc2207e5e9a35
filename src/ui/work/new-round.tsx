import { celsiusOf } from '@/formats/formatter';
import { useRouter } from 'next/navigation';
import { STATE_KINDS, SUPPORT_KINDS, type Round, type ShellState, type Support } from '@/core/shell/job/entities';
import { newestVersions, usualFor } from '@/core/shell/instruments';
import { ownRounds } from '@/core/shell/job/job';
import type { Tables } from '@/core/shell/job/job-rows';
import { STATE_WORD, SUPPORT_WORD, SUSPENSION_WORD } from '@/core/report/vocabulary/words';
import { newRound, type NewRoundInput } from '@/formats/inputs/rounds';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import { FormFields } from '../kit/form-fields';

/** What a round is opened from. */
export type OpeningRows = Tables<
  'jobs' | 'rounds' | 'roundControls' | 'shellStates' | 'supports' | 'instruments' | 'instrumentVersions'
>;

interface Opening {
  readonly rows: OpeningRows;
  readonly openRound: Action<NewRoundInput, { roundId: string }>;
}

/** Begins a round: the state of the shell, what it stands on, the instrument. */
export function NewRound(opening: Opening) {
  return (
    <FormDialog
      title="A round of measuring"
      description="All readings taken in one state of the shell, on one support"
      trigger={
        <Button look="main" className="ml-auto">
          New round
        </Button>
      }
    >
      {() => <RoundForm {...opening} />}
    </FormDialog>
  );
}

/** What the form shows at first: as the last round of this shell stood. */
function usualFields(rows: OpeningRows, last: Round | undefined) {
  const support = rows.supports.find((each) => each.id === last?.supportId);
  const newest = newestVersions(rows);
  const lengths = usualFor(rows.instruments, 'distance');
  const known = rows.instrumentVersions.find(({ id }) => id === last?.instrumentVersionId);
  // The last round's instrument, where it takes lengths: nobody reads two and a half metres with a caliper.
  const usual = lengths.find(({ id }) => id === known?.instrumentId) ?? lengths[0] ?? rows.instruments[0];
  return {
    name: rows.rounds.length === 0 ? 'As found' : '',
    state: STATE_KINDS[0] as ShellState['kind'],
    support: support?.kind ?? (SUPPORT_KINDS[0] as Support['kind']),
    suspension: support?.suspension ?? ('off' as Support['suspension']),
    supportNote: support?.note ?? '',
    instrument: newest.get(usual?.id ?? '')?.id ?? '',
    temperature: '',
    shell: '',
  };
}

function RoundForm({ rows, openRound }: Opening) {
  const router = useRouter();
  const format = useFormat();
  const jobId = rows.jobs[0]!.id;
  const last = ownRounds(rows).at(-1);
  const versions = newestVersions(rows);
  const form = useEntryForm({
    schema: newRound,
    action: openRound,
    defaults: usualFields(rows, last),
    read: (values, faults) => {
      const temperature = values.temperature.trim().replace(',', '.');
      if (!values.name.trim()) faults.push({ path: 'name', message: 'the round needs a name' });
      if (temperature && !Number.isFinite(Number(temperature)))
        faults.push({ path: 'temperature', message: `"${temperature}" is not a temperature` });
      const [stateId, supportId] = [crypto.randomUUID(), crypto.randomUUID()];
      return {
        round: {
          id: crypto.randomUUID(),
          ...{ jobId, stateId, supportId },
          name: values.name.trim(),
          instrumentVersionId: values.instrument,
          temperature: temperature ? celsiusOf(Number(temperature), format.temperatureUnit) : null,
          shell: values.shell.trim(),
        },
        state: { id: stateId, jobId, kind: values.state, note: '' },
        support: {
          ...{ id: supportId, jobId },
          kind: values.support,
          suspension: values.suspension,
          note: values.supportNote.trim(),
        },
        control: rows.roundControls.filter((each) => each.roundId === last?.id).map((each) => each.pointId),
      };
    },
    done: ({ roundId }) => router.push(`/jobs/${jobId}/rounds/${roundId}`),
  });
  return (
    <FormFields form={form} yes="Start measuring">
      <TextField label="Name" {...form.field('name')} />
      <SelectField
        label="State of the shell"
        {...form.field('state')}
        options={STATE_KINDS.map((kind) => [kind, STATE_WORD[kind]])}
      />
      <SelectField
        label="It stands on"
        {...form.field('support')}
        options={SUPPORT_KINDS.map((kind) => [kind, SUPPORT_WORD[kind]])}
      />
      <SelectField
        label="Suspension"
        {...form.field('suspension')}
        options={(['off', 'onUnloaded', 'loaded'] as const).map((each) => [each, SUSPENSION_WORD[each]])}
      />
      <TextField label="Support, more exactly" {...form.field('supportNote')} />
      <SelectField
        label="Distances are taken with"
        {...form.field('instrument')}
        options={usualFor(rows.instruments, 'distance').map(({ id, name }) => [versions.get(id)!.id, name])}
      />
      <TextField label={`Temperature, ${format.temperatureUnit}`} {...form.field('temperature')} inputMode="decimal" />
      <TextField
        label="Another shell, or a part cut out of this one"
        {...form.field('shell')}
        hint="Left empty for this job’s own shell"
      />
    </FormFields>
  );
}
