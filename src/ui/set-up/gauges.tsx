import type { GaugeFinding } from '@/core/findings/gauges';
import { GAUGE_WORD, offText } from '@/core/report/set-up-words';
import type { GaugesPage } from '@/core/report/pages/gauges';
import type { CheckedPart } from '@/core/shell/gauges';
import type { JobRows } from '@/core/shell/job/job-rows';
import type { GaugePartInput } from '@/formats/inputs/set-up';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { unpacked } from '../kit/unpacked';
import type { Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import { GaugePartForm } from './gauge-part-form';
import { GaugeEntry } from './gauge-entry';

interface GaugesProps {
  readonly jobId: string;
  readonly gauges: GaugesPage;
  /** Those of the round that is read in. */
  readonly rows: JobRows;
  readonly saveGaugePart: Action<GaugePartInput>;
}

/** Heads and real parts bolted up as gauges: the parts, each checked against itself, and what every one says of the shell. */
function GaugesPart({ jobId, gauges, rows, saveGaugePart }: GaugesProps) {
  const { parts, openRoundId, findings } = gauges;
  return (
    <section aria-label="Gauges" className="no-print flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-xl">Heads and real parts as gauges</h2>
        <FormDialog
          title="A part as a gauge"
          description="Its holes in axes of its own, and lengths taped between them on the part itself"
          trigger={<Button className="ml-auto">Add a part</Button>}
        >
          {(close) => <GaugePartForm {...{ jobId, saveGaugePart }} done={close} />}
        </FormDialog>
      </div>
      {parts.length > 0 ? (
        <ul className="flex flex-col gap-2">
          {parts.map((part) => (
            <PartRow key={part.part.id} {...{ jobId, part, saveGaugePart }} />
          ))}
        </ul>
      ) : (
        <p className="text-soft">
          An axle beam, a gearbox mount or a lamp that fits for certain says of its holes whether the shell has them
          where it should.
        </p>
      )}
      {openRoundId ? <GaugeEntry {...{ rows, gauges }} roundId={openRoundId} /> : null}
      {findings.length > 0 ? <Findings {...{ gauges, findings }} /> : null}
    </section>
  );
}

export const Gauges = unpacked(GaugesPart);

const standing = ({ bent, unchecked, holes, lengths }: CheckedPart): string => {
  if (bent) return 'contradicts itself: it has no voice';
  if (lengths.length === 0) return 'not taped against itself yet: it has no voice';
  return unchecked.length > 0 ? `${holes.length - unchecked.length} of ${holes.length} holes checked` : 'straight';
};

function PartRow({
  jobId,
  part,
  saveGaugePart,
}: { readonly part: CheckedPart } & Pick<GaugesProps, 'jobId' | 'saveGaugePart'>) {
  const format = useFormat();
  const code = new Map(part.holes.map((hole) => [hole.id, hole.code]));
  const wrong = part.lengths.filter(({ agrees }) => !agrees);
  return (
    <li className="flex flex-wrap items-baseline gap-3 border-y border-faint py-1" data-part={part.part.code}>
      <strong>{part.part.code}</strong>
      <span>{part.part.name}</span>
      <span className={part.bent ? 'text-minus' : 'text-soft'}>{standing(part)}</span>
      {wrong.map(({ check, off }) => (
        <span key={check.id} className="text-minus">
          {code.get(check.fromHoleId)} to {code.get(check.toHoleId)} is {format.difference(off)} {format.unit} off
        </span>
      ))}
      <FormDialog
        title={`Change ${part.part.code}`}
        description="Its holes in axes of its own, and lengths taped between them on the part itself"
        trigger={<Button className="ml-auto">Change</Button>}
      >
        {(close) => <GaugePartForm {...{ jobId, saveGaugePart }} known={part} done={close} />}
      </FormDialog>
    </li>
  );
}

function Findings({ gauges, findings }: { gauges: GaugesPage; findings: readonly GaugeFinding[] }) {
  const format = useFormat();
  const point = new Map(gauges.points.map(({ id, code }) => [id, code]));
  const hole = new Map(
    gauges.parts.flatMap(({ part, holes }) => holes.map(({ id, code }) => [id, `${part.code}.${code}`] as const)),
  );
  const length = (mm: number) => `${format.length(mm)} ${format.unit}`;
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="What the gauges say">
      <table className="ruled">
        <caption className="caps text-left">What they say in the round “{gauges.round}”</caption>
        <thead>
          <tr>
            <th>Point</th>
            <th>Gauge</th>
            <th>Read</th>
            <th>By the rest the point is</th>
            <th>So</th>
          </tr>
        </thead>
        <tbody>
          {findings.map(({ reading, says, off }) => (
            <tr key={reading.id}>
              <td className="font-medium">{point.get(reading.pointId ?? '')}</td>
              <td>{reading.partHoleId ? hole.get(reading.partHoleId) : 'head'}</td>
              <td>
                {reading.toward ? `${length(reading.value)} ${reading.toward} of it` : FIT_WORD[reading.fit ?? 'none']}
              </td>
              <td>{off ? `${offText(off.by, length)} ${format.plusMinus(2 * Math.max(...off.sd))}` : '–'}</td>
              <td className={says === 'agrees' ? 'text-soft' : ''}>{GAUGE_WORD[says]}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const FIT_WORD = {
  free: 'enters freely',
  tight: 'enters tight',
  none: 'will not go in',
  centred: 'goes in',
  beside: 'beside it',
} as const;
