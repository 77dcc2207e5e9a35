import { angleText } from '@/core/maths/units/angle';
import { offText } from '@/core/report/set-up-words';
import type { SetUpPage } from '@/core/report/pages/set-up';
import type { Placement } from '@/core/plan/set-up/placement';
import { platform, type PlatformInput } from '@/formats/inputs/set-up';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { TextArea } from '../kit/field';
import { FormFields } from '../kit/form-fields';
import type { Action } from '../kit/use-action';
import { useEntryForm } from '../kit/use-entry-form';
import { useFormat } from '../shell/preferences-context';

interface PlatformProps {
  readonly jobId: string;
  readonly page: SetUpPage;
  readonly setPlatform: Action<PlatformInput>;
}

/** A body on a chassis or platform as two things: how each stands, and what their shared holes are off. */
export function Platform({ jobId, page, setPlatform }: PlatformProps) {
  const format = useFormat();
  const { points, things, placements } = page.platform;
  const code = new Map(page.gauges.points.map((point) => [point.id, point.code]));
  const length = (mm: number) => `${format.length(mm)} ${format.unit}`;
  return (
    <section aria-label="Body and platform" className="no-print flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-xl">Body and chassis or platform</h2>
        <span className="text-soft">
          {points.length === 0 ? 'taken as one thing' : `${points.length} points are the platform’s`}
        </span>
        <FormDialog
          title="The platform’s points"
          description="A point a line; behind = the body’s point that it meets when the two are bolted together"
          trigger={<Button className="ml-auto">{points.length === 0 ? 'Take them as two' : 'Change'}</Button>}
        >
          {(close) => <PlatformPoints {...{ jobId, page, setPlatform }} done={close} />}
        </FormDialog>
      </div>
      <Stands what="The platform" placement={placements.platform} />
      <Stands what="The body" placement={placements.body} />
      {things ? (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Shared holes">
          <table className="ruled">
            <caption className="caps text-left">
              {things.together
                ? `As they stand in the round “${things.rounds.body}”`
                : `The body of “${things.rounds.body}” laid on the platform of “${things.rounds.platform}” as well as it goes`}
            </caption>
            <thead>
              <tr>
                <th>Platform</th>
                <th>Body</th>
                <th>The body’s hole is</th>
              </tr>
            </thead>
            <tbody>
              {things.meetings.map(({ platformId, bodyId, by, sd }) => (
                <tr key={platformId}>
                  <td className="font-medium">{code.get(platformId)}</td>
                  <td>{code.get(bodyId)}</td>
                  <td>
                    {offText(by, length)} {format.plusMinus(2 * Math.max(...sd))}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : points.some(({ meets }) => meets) ? (
        <p>
          Read at least three of the shared holes, on the platform and on the body: in one round, or each by itself.
        </p>
      ) : null}
    </section>
  );
}

const ALONG = ['rearward', 'to the right', 'up'] as const;
const ABOUT = ['about its length', 'about its width', 'seen from above'] as const;

function Stands({ what, placement }: { what: string; placement: Placement | undefined }) {
  const format = useFormat();
  if (!placement) return null;
  const at = placement.at.map(
    ({ value, uncertainty }, k) => `${format.length(value)} ${format.plusMinus(uncertainty)} ${ALONG[k]}`,
  );
  const turned = placement.turned.map(
    ({ value, uncertainty }, k) => `${angleText(value, 2)} ±${angleText(uncertainty, 2)} ${ABOUT[k]}`,
  );
  return (
    <p className="text-soft">
      {what} by its own points: zero {at.join(', ')} ({format.unit}), turned {turned.join(', ')}.
    </p>
  );
}

function PlatformPoints({ jobId, page, setPlatform, done }: PlatformProps & { done: () => void }) {
  const byCode = new Map(page.gauges.points.map(({ id, code }) => [code.toLowerCase(), id]));
  const shown = page.platform.points.map(({ code, meets }) => (meets ? `${code} = ${meets}` : code)).join('\n');
  const form = useEntryForm({
    schema: platform,
    action: setPlatform,
    defaults: { points: shown },
    read: ({ points }, faults): PlatformInput => {
      const known = (code: string, i: number) => {
        const id = byCode.get(code.trim().toLowerCase());
        if (!id) faults.push({ path: 'points', message: `line ${i + 1}: no point “${code.trim()}” in this job` });
        return id ?? '';
      };
      const lines = points.split('\n').flatMap((line, i) => {
        const [own = '', meets] = line.split('=');
        if (line.trim() === '') return [];
        return [{ jobId, pointId: known(own, i), meetsId: meets === undefined ? null : known(meets, i) }];
      });
      const named = lines.flatMap(({ pointId, meetsId }) => (meetsId ? [pointId, meetsId] : [pointId]));
      if (new Set(named).size < named.length && faults.length === 0)
        faults.push({ path: 'points', message: 'a point stands here twice' });
      return { jobId, points: lines };
    },
    done,
  });
  return (
    <FormFields form={form} yes="Use these">
      <div className="sm:col-span-2">
        <TextArea
          label="Points of the platform"
          hint="P2L = A1L"
          rows={8}
          {...(form.field('points') as unknown as React.ComponentProps<'textarea'> & { readonly error?: string })}
        />
      </div>
    </FormFields>
  );
}
