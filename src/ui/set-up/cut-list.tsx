import { cutList } from '@/core/plan/set-up/own-frame';
import type { ShelfItem } from '@/core/shell/job/entities';
import type { NewBench } from '@/formats/inputs/set-up';
import { Button } from '../kit/button';
import { Faults } from '../kit/faults';
import { useAction, type Action } from '../kit/use-action';
import { useFormat } from '../shell/preferences-context';
import type { InHand } from './in-hand';

/** For a frame of one's own: the stands to cut, and the frame written down for the next car of the model. */
export function CutList({ planned, built, words, addBench }: InHand & { addBench: Action<NewBench> }) {
  const format = useFormat();
  const keeping = useAction(addBench);
  const { bench, version, items } = planned.bench;
  const head = items.find(({ kind }) => kind === 'head') ?? { height: 0, travel: 0 };
  if (bench.kind !== 'ownFrame' || built.mounts.length === 0) return null;
  const stands = cutList(version, built.mounts, head);
  const keep = () => {
    const [benchId, id] = [crypto.randomUUID(), crypto.randomUUID()];
    const { number: _, validFrom: __, ...figures } = version;
    const made = stands.map((stand): ShelfItem => ({
      ...{ id: crypto.randomUUID(), benchVersionId: id, kind: 'piece', code: `stand ${words.mount(stand.mountId)}` },
      ...{ height: Math.round(stand.height * 10) / 10, count: 1, travel: 0, threadPitch: null },
      ...{ fitsLeast: null, fitsMost: null, clearance: 0, rating: null },
    }));
    const heads = items
      .filter(({ kind }) => kind === 'head')
      .map((item) => ({ ...item, id: crypto.randomUUID(), benchVersionId: id }));
    return keeping.run({
      bench: { id: benchId, name: `${bench.name}, for ${planned.item.name}`.slice(0, 200), kind: 'ownFrame' },
      version: { ...figures, id, benchId },
      items: [...made.filter(({ height }) => height > 0), ...heads],
    });
  };
  return (
    <section aria-label="Cut list" className="flex flex-col gap-2">
      <h2 className="text-xl">Cut list of the stands</h2>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Stands to cut">
        <table className="ruled">
          <thead>
            <tr>
              <th>Stand</th>
              <th className="num">Cut to {format.unit}</th>
              <th className="num">Foot along the frame</th>
              <th className="num">From the middle</th>
              <th className="num">Off the tube</th>
              <th className="num">Point over the frame</th>
            </tr>
          </thead>
          <tbody>
            {stands.map((stand) => (
              <tr key={stand.mountId}>
                <td className="font-medium">{words.mount(stand.mountId)}</td>
                <td className="num">{stand.height > 0 ? format.length(stand.height) : 'no room'}</td>
                <td className="num">{format.length(stand.along)}</td>
                <td className="num">
                  {format.length(Math.abs(stand.side))} {stand.side < 0 ? 'left' : 'right'}
                </td>
                <td className="num">
                  {format.length(Math.abs(stand.offset))} {stand.offset < 0 ? 'inside' : 'outside'}
                </td>
                <td className="num">{format.length(stand.top)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Faults faults={keeping.faults} />
      <Button className="no-print self-start" disabled={keeping.pending} onClick={keep}>
        Keep these stands as a bench, for the next car of the kind
      </Button>
    </section>
  );
}
