import type { CutPage } from '@/core/report/pages/cut';
import { SIDES, type Side } from '@/core/shell/job/entities';
import { panel, type PanelInput } from '@/formats/inputs/set-up';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { useEntryForm } from '../kit/use-entry-form';

interface CutPanelsProps extends Pick<CutPage, 'panels' | 'points'> {
  readonly jobId: string;
  readonly planPanel: Action<PanelInput>;
}

/** Panels that are to be replaced: what stands on them cannot carry the shell to the end. */
export function CutPanels({ jobId, panels, points, planPanel }: CutPanelsProps) {
  const format = useFormat();
  return (
    <section aria-label="Metal to be cut" className="no-print flex flex-col gap-2">
      <div className="flex items-center gap-2">
        <h3 className="caps">Metal to be cut</h3>
        <FormDialog
          title="A panel to be replaced"
          description="Which points leave with it: no mount is proposed there"
          trigger={<Button className="ml-auto">Add a panel</Button>}
        >
          {(close) => <AddPanel {...{ jobId, panels, points, planPanel }} done={close} />}
        </FormDialog>
      </div>
      <ul className="empty:hidden">
        {panels.map(({ id, part, codes }) => (
          <li key={id} className="border-b border-faint py-1">
            <strong>{format.name(part)}</strong>{' '}
            <span className="text-soft">{codes.join(', ') || 'no point goes with it'}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function AddPanel({ jobId, panels, points: known, planPanel, done }: CutPanelsProps & { done: () => void }) {
  const format = useFormat();
  const byCode = new Map(known.map(({ id, code }) => [code.toLowerCase(), id]));
  const form = useEntryForm({
    schema: panel,
    action: planPanel,
    defaults: { part: '', side: 'left' as Side, points: '' },
    read: ({ part, side, points }, faults, id): PanelInput => {
      const codes = [...new Set(points.split(/[\s,;]+/).filter((code) => code !== ''))];
      for (const code of codes)
        if (!byCode.has(code.toLowerCase())) faults.push({ path: 'points', message: `no point “${code}” in this job` });
      const going = codes.flatMap((code) => byCode.get(code.toLowerCase()) ?? []);
      return {
        item: {
          id,
          jobId,
          kind: 'panel',
          code: `panel-${panels.length + 1}-${id.slice(0, 4)}`,
          name: part.trim(),
        },
        panel: { id, jobId, part: part.trim(), side },
        points: going.map((pointId) => ({ panelId: id, pointId, fate: 'goes' })),
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Add">
      <TextField label="Panel" hint={format.name('Left sill, outer')} {...form.field('part')} />
      <SelectField label="Side" options={SIDES.map((side) => [side, side])} {...form.field('side')} />
      <TextField label="Points that go with it" hint="S1L S2L" {...form.field('points')} />
    </FormFields>
  );
}
