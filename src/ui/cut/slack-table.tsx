import type { CuttingPage, Worked } from '@/core/report/pages/cutting';
import { slackWords } from '@/core/report/cut-words';
import type { SlackRange } from '@/core/plan/cut/slack-table';
import { useFormat } from '../shell/preferences-context';

/** What never comes near what it may give is told in a line. */
const STAYS = 0.6;

/** How far every length gives after every stage, without braces and with them, over the range the shell's stiffness is known in. */
export function SlackByStage({ page, worked }: { readonly page: CuttingPage; readonly worked: Worked }) {
  const format = useFormat();
  const { slack, stiffness } = worked;
  if (slack.rows.length === 0 || page.stages.length === 0) return null;
  const shown = slack.rows
    .map((row) => ({ row, worst: Math.max(0, ...row.stages.map(({ bare }) => (bare?.high ?? 0) / row.limit)) }))
    .toSorted((a, b) => b.worst - a.worst);
  const telling = shown.filter(({ worst }) => worst > STAYS);
  const others = shown.filter(({ worst }) => worst <= STAYS);
  return (
    <section aria-label="What each cut sets loose" className="flex flex-col gap-2">
      <h2 className="text-xl">What each cut sets loose</h2>
      <p className="text-soft">
        How far a length gives when somebody leans on the shell with 200 N anywhere, or under its own weight on what it
        stands on ({format.unit}), from the stiffest the shell can be to the softest.{' '}
        {stiffness.tested
          ? `Press tests put its stiffness at ${stiffness.usual.toFixed(2)} of the template’s.`
          : 'A template’s stiffness is known to a factor of two: a press test narrows it.'}
      </p>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Slack by stage">
        <table className="ruled">
          <thead>
            <tr>
              <th rowSpan={2}>Length</th>
              <th rowSpan={2} className="num">
                May give
              </th>
              <th rowSpan={2} className="num">
                Uncut
              </th>
              {page.stages.map(({ id, name }) => (
                <th key={id} colSpan={2}>
                  {format.name(name)} out
                </th>
              ))}
            </tr>
            <tr>
              {page.stages.map(({ id }) => [
                <th key={`${id} bare`}>without braces</th>,
                <th key={`${id} braced`}>with them</th>,
              ])}
            </tr>
          </thead>
          <tbody>
            {telling.map(({ row }) => (
              <tr key={row.lengthId} data-length={row.code}>
                <td>
                  <strong>{format.name(row.code)}</strong>{' '}
                  {row.name === row.code ? null : <span className="text-soft">{format.name(row.name)}</span>}
                </td>
                <td className="num">{format.fine(row.limit)}</td>
                <td className="num">{row.whole ? format.fine(row.whole.usual) : '–'}</td>
                {row.stages.map(({ bare, braced }, i) => [
                  <RangeCell key={`${i} bare`} range={bare} />,
                  <RangeCell key={`${i} braced`} range={braced} />,
                ])}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {others.length > 0 ? (
        <p className="text-sm text-soft">
          Tight throughout, or gone with the metal: {others.map(({ row }) => format.name(row.code)).join('; ')}.
        </p>
      ) : null}
    </section>
  );
}

/** How far a length gives, in a word and from the stiffest to the softest the shell can be. */
export function RangeCell({ range }: { readonly range: SlackRange | undefined }) {
  const format = useFormat();
  if (!range) return <td className="text-soft">gone</td>;
  const worst = range.words[1];
  return (
    <td className={worst === 'tight' ? '' : 'font-medium'}>
      <span className={worst === 'tight' ? '' : 'text-minus'}>{slackWords(range)}</span>{' '}
      <span className="figures text-sm text-soft">
        {format.fine(range.low)}–{format.fine(range.high)}
      </span>
    </td>
  );
}
