import type { BringAs } from '@/formats/inputs/jobs';
import { Button } from '../kit/button';
import { Confirm } from '../kit/dialog';

/** How a job that is here already is brought in again. */
export function BringChoices({ bring }: { bring: (as: BringAs) => Promise<unknown> }) {
  return (
    <div className="flex flex-wrap gap-2">
      <Button onClick={() => bring('missing')}>Add what is missing here</Button>
      <Button onClick={() => bring('copy')}>Take it as a copy</Button>
      <Confirm
        title="Replace the job that is here"
        trigger={<Button>Replace the one here …</Button>}
        yes="Replace it"
        caution="The job as it is here now is taken out whole first, as a zip among the backups; then the other takes its place."
        onYes={async () => {
          await bring('replace');
          return undefined;
        }}
      />
    </div>
  );
}
