import type { CuttingPage, KeepOutView, Worked } from '@/core/report/pages/cutting';
import { savedKeepOut, type SavedKeepOut } from '@/formats/inputs/cut';
import { typedUnit } from '@/formats/preferences';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { SelectField, TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { lengthsOf, useEntryForm } from '../kit/use-entry-form';
import { usePreferences } from '../shell/preferences-context';
import type { CuttingActions } from './actions';

interface KeepOutsProps {
  readonly page: CuttingPage;
  readonly worked: Pick<Worked, 'inTheWay' | 'trapped'>;
  readonly actions: Pick<CuttingActions, 'saveKeepOut' | 'removeKeepOut'>;
}

/** Room that no brace may stand in: a door's swing, the way a new panel takes, a place a person must reach. */
export function KeepOuts({ page, worked: { inTheWay, trapped }, actions }: KeepOutsProps) {
  const { format } = usePreferences();
  const removing = useAction(actions.removeKeepOut);
  return (
    <section aria-label="What must stay free" className="no-print flex flex-col gap-2">
      <div className="flex items-center gap-2">
        <h3 className="caps">What must stay free</h3>
        <FormDialog
          title="Room that must stay free"
          description="A box, and the straight way it is swept along: no brace is proposed in it"
          trigger={<Button className="ml-auto">Add a room</Button>}
        >
          {(close) => <KeepOutForm {...{ page, actions }} done={close} />}
        </FormDialog>
      </div>
      <ul className="empty:hidden">
        {page.keepOuts.map((room) => (
          <li key={room.id} className="flex items-center gap-2 border-b border-faint py-1">
            <span>
              {format.name(room.name)} <RoomSize room={room} />
            </span>
            <Button look="quiet" className="ml-auto" onClick={() => removing.run({ id: room.id })}>
              Not any more
            </Button>
          </li>
        ))}
      </ul>
      {inTheWay.map(({ code, of, isWayIn }) => (
        <p key={`${code} ${of}`} className="text-minus">
          {code} stands in the way: {format.name(of)}.{' '}
          {isWayIn
            ? 'It would have to be cut out before the new panel gets in.'
            : 'What needs that room, a door or a part that is fitted later, does not get it while this is in.'}
        </p>
      ))}
      {trapped.map(({ code, of }) => (
        <p key={`${code} ${of} trapped`} className="text-minus">
          {code} goes through where {format.name(of)} comes in: cut it out before, or it cannot come out in one piece.
        </p>
      ))}
    </section>
  );
}

function RoomSize({ room }: { readonly room: KeepOutView }) {
  const { format } = usePreferences();
  const size = [room.maxX - room.minX, room.maxY - room.minY, room.maxZ - room.minZ].map((mm) => format.length(mm));
  const moves = Math.hypot(room.moveX, room.moveY, room.moveZ);
  return (
    <span className="text-sm text-soft">
      {size.join(' × ')}
      {moves > 0 ? `, on its way ${format.length(moves)}` : ''}
      {room.panel ? `, for ${format.name(room.panel)}` : ''}
    </span>
  );
}

const BOX = ['minX', 'maxX', 'minY', 'maxY', 'minZ', 'maxZ', 'moveX', 'moveY', 'moveZ'] as const;
const BOX_LABEL: Readonly<Record<(typeof BOX)[number], string>> = {
  minX: 'Behind the zero from',
  maxX: 'to',
  minY: 'Right of the middle from',
  maxY: 'to ',
  minZ: 'Over the datum from',
  maxZ: 'to  ',
  moveX: 'Moves rearward by',
  moveY: 'to the right by',
  moveZ: 'up by',
};

function KeepOutForm({ page, actions, done }: Omit<KeepOutsProps, 'worked'> & { readonly done: () => void }) {
  const { format, preferences } = usePreferences();
  const form = useEntryForm({
    schema: savedKeepOut,
    action: actions.saveKeepOut,
    defaults: {
      ...{ name: '', panelId: '' },
      ...{ minX: '', maxX: '', minY: '', maxY: '', minZ: '', maxZ: '', moveX: '0', moveY: '0', moveZ: '0' },
    },
    read: ({ name, panelId, ...box }, faults, id): SavedKeepOut => {
      if (!name.trim()) faults.push({ path: 'name', message: 'what it is: the door’s swing, the way in' });
      const typed = lengthsOf(box, typedUnit(preferences), faults);
      const [minX, maxX, minY, maxY, minZ, maxZ, moveX, moveY, moveZ] = BOX.map(typed);
      const of = { minX: minX!, maxX: maxX!, minY: minY!, maxY: maxY!, minZ: minZ!, maxZ: maxZ! };
      for (const [least, most] of [
        ['minX', 'maxX'],
        ['minY', 'maxY'],
        ['minZ', 'maxZ'],
      ] as const)
        if (of[least] > of[most]) faults.push({ path: most, message: 'not before where it begins' });
      return {
        id,
        jobId: page.jobId,
        name,
        panelId: panelId || null,
        ...of,
        moveX: moveX!,
        moveY: moveY!,
        moveZ: moveZ!,
      };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it free">
      <TextField label="What it is" placeholder="the door’s swing" {...form.field('name')} />
      <SelectField
        label="It is the way in of"
        options={[
          ['', 'no panel: it always stays free'],
          ...page.panels.map(({ panel }) => [panel.id, format.name(panel.part)] as const),
        ]}
        {...form.field('panelId')}
      />
      {BOX.map((field) => (
        <TextField key={field} label={`${BOX_LABEL[field]}, ${format.unit}`} {...form.field(field)} />
      ))}
    </FormFields>
  );
}
