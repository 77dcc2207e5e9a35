import { Link } from '../kit/link';
import type { Blasting } from '@/core/plan/cut/blasting';
import type { CuttingPage } from '@/core/report/pages/cutting';
import { newBlasting, type NewBlasting } from '@/formats/inputs/cut';
import { Button } from '../kit/button';
import { Confirm, FormDialog } from '../kit/dialog';
import { TextField } from '../kit/field';
import { Faults } from '../kit/faults';
import { FormFields } from '../kit/form-fields';
import { useAction } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';
import { TakeBack } from '../work/take-back';
import type { CuttingActions } from './actions';

interface BlastingProps {
  readonly page: Pick<CuttingPage, 'jobId' | 'blastings'>;
  readonly actions: Pick<CuttingActions, 'planBlasting' | 'punchPoints' | 'recordItemEvent' | 'withdraw'>;
}

/** What is blasted: which marks it wipes, and what is read and looked at again after it. */
export function Blastings({ page, actions }: BlastingProps) {
  return (
    <section aria-label="Blasting" className="flex flex-col gap-2">
      <div className="flex items-center gap-3">
        <h2 className="text-xl">Blasting</h2>
        <FormDialog
          title="Something is to be blasted"
          description="It wipes every mark that is only drawn, and bare metal shows more rust"
          trigger={<Button className="ml-auto">Plan a blasting</Button>}
        >
          {(close) => <BlastingForm {...{ page, actions }} done={close} />}
        </FormDialog>
      </div>
      {page.blastings.length === 0 ? (
        <p className="text-soft">None is planned. Marks that are only drawn go with it: punch them first.</p>
      ) : null}
      {page.blastings.map((blasting) => (
        <OneBlasting key={blasting.item.id} {...{ page, blasting, actions }} />
      ))}
    </section>
  );
}

function OneBlasting({ page, blasting, actions }: BlastingProps & { readonly blasting: Blasting }) {
  const format = useFormat();
  const telling = useAction(actions.recordItemEvent);
  const punching = useAction(actions.punchPoints);
  const { item, doneAt, eventId, drawn, readAgain, found } = blasting;
  const { jobId } = page;
  const codes = drawn.map(({ code }) => code).join(', ');
  return (
    <article aria-label={item.name} className="flex flex-col gap-2 border-t border-rule pt-3">
      <h3 className="text-lg font-medium">
        {format.name(item.name)}{' '}
        <span className="text-base text-soft">{doneAt ? `blasted, ${format.day(doneAt)}` : 'planned'}</span>
      </h3>
      <Faults faults={[...telling.faults, ...punching.faults]} />
      {doneAt ? (
        <>
          {drawn.length > 0 ? (
            <p className="text-minus">
              {codes} {drawn.length === 1 ? 'was' : 'were'} only drawn, and nobody read{' '}
              {drawn.length === 1 ? 'it' : 'them'} since: mark {drawn.length === 1 ? 'it' : 'them'} gone, or lay{' '}
              {drawn.length === 1 ? 'it' : 'them'} out anew.
            </p>
          ) : null}
          <p>
            {readAgain ? (
              <>Measured again in “{readAgain.name}”.</>
            ) : (
              <>
                <Link className="underline" href={`/jobs/${jobId}/measure`}>
                  Measure all that stays
                </Link>{' '}
                in a new round: what is wrong now was seen by nobody before.
              </>
            )}{' '}
            {found > 0 ? (
              `${found} ${found === 1 ? 'finding' : 'findings'} written down since.`
            ) : (
              <Link className="underline" href={`/jobs/${jobId}/log`}>
                Write down what bare metal shows.
              </Link>
            )}
          </p>
        </>
      ) : (
        <>
          <p>
            {drawn.length === 0
              ? 'No point is only drawn: nothing that is measured is lost.'
              : `Only drawn, and lost with it unless punched: ${codes}.`}{' '}
            Read what they tie before, and a new round after.
          </p>
          <p className="text-sm text-soft">
            Breathing air and a closed suit; sand with quartz in it kills lungs. No big flat panel is blasted hard: it
            warps. Close the box sections, and blow them out after.
          </p>
        </>
      )}
      <div className="flex flex-wrap gap-2">
        {!doneAt && drawn.length > 0 ? (
          <Button
            look="main"
            disabled={punching.pending}
            onClick={() => punching.run({ jobId, pointIds: drawn.map(({ id }) => id) })}
          >
            All are punched
          </Button>
        ) : null}
        {doneAt ? null : (
          <Confirm
            trigger={<Button>Blasted</Button>}
            yes="Yes, blasted"
            title={`${item.name} is blasted`}
            caution={
              drawn.length > 0
                ? `${codes} ${drawn.length === 1 ? 'is' : 'are'} only drawn: nobody finds ${drawn.length === 1 ? 'it' : 'them'} again.`
                : 'A new round comes next: until then nothing is cut.'
            }
            onYes={() =>
              telling.run({
                id: crypto.randomUUID(),
                ...{ itemId: item.id, kind: 'done', key: '', reason: '', value: null },
              })
            }
          />
        )}
        {eventId ? (
          <TakeBack
            label="Not blasted"
            what={`${item.name} blasted`}
            row={{ jobId, tableName: 'work_event', rowId: eventId }}
            withdraw={actions.withdraw}
          />
        ) : null}
        <TakeBack
          what={`blasting of ${item.name}`}
          row={{ jobId, tableName: 'work_item', rowId: item.id }}
          withdraw={actions.withdraw}
        />
      </div>
    </article>
  );
}

function BlastingForm({ page: { jobId }, actions, done }: BlastingProps & { readonly done: () => void }) {
  const form = useEntryForm({
    schema: newBlasting,
    action: actions.planBlasting,
    defaults: { name: '' },
    read: ({ name }, faults, id): NewBlasting => {
      if (!name.trim()) faults.push({ path: 'name', message: 'say what is blasted' });
      return { id, jobId, kind: 'blasting', code: `blasting-${id.slice(0, 8)}`, name: name.trim() };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Plan it">
      <TextField label="What is blasted" placeholder="floor and sills" {...form.field('name')} />
    </FormFields>
  );
}
