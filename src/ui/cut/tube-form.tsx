import { newSection, type NewSection } from '@/formats/inputs/cut';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { usePreferences } from '../shell/preferences-context';

/** Writes down a tube that the shop makes braces of. */
export const TubeDialog = ({ addSection }: { readonly addSection: Action<NewSection> }) => (
  <FormDialog title="A tube the shop has" trigger={<Button className="no-print ml-auto">Another tube …</Button>}>
    {(close) => <TubeForm addSection={addSection} done={close} />}
  </FormDialog>
);

function TubeForm({ addSection, done }: { readonly addSection: Action<NewSection>; readonly done: () => void }) {
  const { format, preferences } = usePreferences();
  const form = useEntryForm({
    schema: newSection,
    action: addSection,
    defaults: { name: '', width: '', height: '', wall: '', stock: '' },
    read: ({ name, ...sizes }, faults, id): NewSection => {
      const length = lengthsOf(sizes, typedUnit(preferences), faults);
      const [width, height, wall] = [length('width'), length('height'), length('wall')];
      const stock = sizes.stock.trim() === '' ? null : length('stock');
      if (faults.length === 0 && !(wall > 0 && 2 * wall < Math.min(width, height)))
        faults.push({ path: 'wall', message: 'thinner than half the tube, and above nothing' });
      return { id, name, width, height, wall, material: 'mildSteel', stock };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Add">
      <TextField label="What it is called" placeholder="square tube 30×30×2" {...form.field('name')} />
      <TextField label={`Bars are so long, ${format.unit}`} hint="empty: nobody counts" {...form.field('stock')} />
      <TextField label={`Width, ${format.unit}`} {...form.field('width')} />
      <TextField label={`Height, ${format.unit}`} {...form.field('height')} />
      <TextField label={`Wall, ${format.unit}`} {...form.field('wall')} />
    </FormFields>
  );
}
