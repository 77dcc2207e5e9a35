import { angleText } from '@/core/maths/units/angle';
import type { Vector } from '@/core/maths/geometry/vector';
import { anchorFrom } from '@/core/plan/pulls/anchor';
import type { WorkedPull } from '@/core/plan/pulls/worked-pull';
import type { PullPicture } from '@/core/report/pages/pulling';
import { ANCHOR_WORD, wayText } from '@/core/report/pull-words';
import { HOLD_WORD } from '@/core/report/vocabulary/words';
import type { CodedPull } from '@/core/shell/job/entities';
import { useFormat } from '../shell/preferences-context';

interface RigProps {
  readonly pull: CodedPull;
  readonly worked: WorkedPull;
  readonly nodes: PullPicture['nodes'];
  readonly codeOf: (pointId: string) => string;
}

const kN = (newtons: number): string => `${(newtons / 1000).toFixed(1)} kN`;
const percent = (share: number): string => `${share < -0.005 ? '−' : ''}${Math.round(100 * Math.abs(share))} %`;
/** Half as much and half as much again: sheet of older cars is not better known. */
const SPREAD = [0.6, 1.5] as const;
/** A hold that takes less of the pull than this is not told. */
const TOLD = 0.05;

/** The forces of a pull: where they go, what each hold gives back, and what bears what it may first. */
export function RigPanel({ pull, worked: { rig, tried }, nodes, codeOf }: RigProps) {
  const format = useFormat();
  const named = (node: number) => {
    const at = nodes[node];
    return at?.pointId ? codeOf(at.pointId) : format.name(at?.code ?? '');
  };
  const told = rig.reactions.filter(({ size }) => size >= TOLD);
  return (
    <section className="flex min-w-0 flex-col gap-1" aria-label={`Rig of ${pull.code}`}>
      <h3 className="caps">Rig</h3>
      <p>
        {wayText(rig.parts)}: {angleText(rig.heading)} in plan, {angleText(rig.rise)} above the bench. Of each kN{' '}
        {percent(Math.abs(rig.parts[0]))} go lengthwise, {percent(Math.abs(rig.parts[1]))} sideways and{' '}
        {percent(Math.abs(rig.parts[2]))} {rig.parts[2] < 0 ? 'press the shell down' : 'lift the shell'}.
      </p>
      {pull.chain === null ? null : (
        <p>
          {format.length(pull.chain)} {format.unit} of chain{pull.anchor ? ` to the ${ANCHOR_WORD[pull.anchor]}` : ''}:
          it stands {anchorText(anchorFrom({ direction: rig.parts, chain: pull.chain }), format)}
          {' from the point.'}
        </p>
      )}
      {told.length > 0 ? (
        <table className="ruled">
          <thead>
            <tr>
              <th>Held at</th>
              <th className="num">Takes, of each kN</th>
              <th className="num">Pull at most</th>
            </tr>
          </thead>
          <tbody>
            {told.map(({ node, hold, size, bearsUpTo }) => (
              <tr key={node}>
                <td>
                  {named(node)} <span className="text-soft">{hold ? HOLD_WORD[hold.kind] : 'mount'}</span>
                </td>
                <td className="num">{size.toFixed(2)} kN</td>
                <td className="num">{bearsUpTo === undefined ? '–' : kN(bearsUpTo)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="text-soft">The two ends hold each other: nothing goes into the bench.</p>
      )}
      {rig.never ? (
        <p className="font-medium">
          Never harder than {kN(rig.never.newtons)}
          {rig.pressure === undefined ? '' : ` (${rig.pressure.toFixed(0)} bar at the pump)`}:{' '}
          {rig.never.by === 'rated' ? 'the rig' : `the hold at ${named(rig.never.by)}`} bears what it may first, with a
          fifth kept back.
        </p>
      ) : (
        <p className="text-soft">
          Nothing is said of what chain, clamps and holds are rated for: say it, and never pass it.
        </p>
      )}
      {tried ? (
        <p className="text-sm text-soft">
          Choose a rig for about {kN(SPREAD[0] * tried.force)} to {kN(SPREAD[1] * tried.force)}: a model’s force, for
          choosing chain and clamps by. How hard to pull is read at the gauge and at the metal.
        </p>
      ) : null}
    </section>
  );
}

function anchorText([x, y, up]: Vector, format: ReturnType<typeof useFormat>): string {
  const flat = Math.hypot(x, y);
  return `${format.length(flat)} away in plan and ${format.length(Math.abs(up))} ${up < 0 ? 'lower' : 'higher'}`;
}
