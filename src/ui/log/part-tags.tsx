import type { PartTag } from '@/core/shell/job/entities';
import { correctedTag, newTag, type CorrectedTag, type NewTag } from '@/formats/inputs/log';
import type { WithdrawalInput } from '@/formats/inputs/work';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Empty } from '../kit/faults';
import { TextField } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import { TakeBack } from '../work/take-back';

export interface TagActions {
  readonly tagPart: Action<NewTag, { number: number }>;
  readonly correctTag: Action<CorrectedTag>;
  readonly withdraw: Action<WithdrawalInput>;
}

interface Tagging {
  readonly jobId: string;
  readonly tags: readonly PartTag[];
  readonly actions: TagActions;
}

/** The parts taken off: each with a number for its tag, where it is from and where it lies. */
export function PartTags({ jobId, tags, actions }: Tagging) {
  const format = useFormat();
  return (
    <section aria-label="Parts taken off" className="flex flex-col gap-3">
      <FormDialog title="Tag a part" trigger={<Button className="self-end">Tag a part</Button>}>
        {(close) => <NewTagForm jobId={jobId} tagPart={actions.tagPart} done={close} />}
      </FormDialog>
      {tags.length === 0 ? (
        <Empty title="No part is tagged">
          Keep every removed piece until the new one is welded: its holes and brackets are the reference.
        </Empty>
      ) : (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Tags">
          <table className="ruled">
            <thead>
              <tr>
                <th className="num">Tag</th>
                <th>Part</th>
                <th>From</th>
                <th>State</th>
                <th>Shelf</th>
                <th>Do not scrap until</th>
                <th>
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {tags.map((tag) => (
                <tr key={tag.id}>
                  <td className="num font-medium">{tag.number}</td>
                  <td>{format.name(tag.part)}</td>
                  <td>{format.name(tag.takenFrom)}</td>
                  <td>{format.name(tag.state)}</td>
                  <td>{tag.shelf}</td>
                  <td>{format.name(tag.keepUntil)}</td>
                  <td className="flex">
                    <FormDialog title={`Correct tag ${tag.number}`} trigger={<Button look="quiet">Correct …</Button>}>
                      {(close) => <CorrectTagForm tag={tag} correctTag={actions.correctTag} done={close} />}
                    </FormDialog>
                    <TakeBack
                      what={`tag ${tag.number}`}
                      row={{ jobId, tableName: 'part_tag', rowId: tag.id }}
                      withdraw={actions.withdraw}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

const EMPTY = { part: '', takenFrom: '', state: '', shelf: '', keepUntil: '' };
type TagTexts = typeof EMPTY;

const TagFields = ({ field }: { field: (name: keyof TagTexts) => object }) => (
  <>
    <TextField label="Part" {...field('part')} />
    <TextField label="Taken from" placeholder="A2L and A3L hinges" {...field('takenFrom')} />
    <TextField label="State" {...field('state')} />
    <TextField label="Shelf" placeholder="Rack 2, lower" {...field('shelf')} />
    <TextField label="Do not scrap until" placeholder="the new sill is welded" {...field('keepUntil')} />
  </>
);

interface Making {
  readonly jobId: string;
  readonly tagPart: TagActions['tagPart'];
  readonly done: () => void;
}

function NewTagForm({ jobId, tagPart, done }: Making) {
  const form = useEntryForm({
    schema: newTag,
    action: tagPart,
    defaults: EMPTY,
    read: (values, faults, id) => {
      if (!values.part?.trim()) faults.push({ path: 'part', message: 'say which part it is' });
      return { id, jobId, ...EMPTY, ...typed(values) };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Give it a number">
      <TagFields field={form.field} />
    </FormFields>
  );
}

interface Correcting {
  readonly tag: PartTag;
  readonly correctTag: TagActions['correctTag'];
  readonly done: () => void;
}

function CorrectTagForm({ tag, correctTag, done }: Correcting) {
  const { part, takenFrom, state, shelf, keepUntil } = tag;
  const form = useEntryForm({
    schema: correctedTag,
    action: correctTag,
    defaults: { part, takenFrom, state, shelf, keepUntil },
    read: (values, faults) => {
      if (!values.part?.trim()) faults.push({ path: 'part', message: 'say which part it is' });
      return { ...tag, ...typed(values) };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Keep it so">
      <TagFields field={form.field} />
    </FormFields>
  );
}

const typed = (values: Partial<TagTexts>): Partial<TagTexts> =>
  Object.fromEntries(Object.entries(values).map(([key, value]) => [key, value ?? '']));
