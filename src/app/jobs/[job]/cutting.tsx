import { cuttingPageInput } from '@/formats/inputs/page-address';
import * as cut from '@/server/actions/cut';
import { correctBrace, planBrace, recordItemEvent, withdraw } from '@/server/actions/work';
import { jobAnd, rowsForRounds } from '@/server/views';
import { CuttingPlace } from '@/ui/cut/cutting-place';
import { RungPage } from './rung-page';

export interface CuttingParams {
  readonly params: Promise<{ job: string }>;
  readonly searchParams: Promise<Record<string, string | string[] | undefined>>;
}

/** The rungs Brace and Cut: one place, with the room that belongs to each. */
export async function CuttingRung({ params, searchParams, room }: CuttingParams & { readonly room: 'brace' | 'cut' }) {
  const { job } = await params;
  const { stage } = cuttingPageInput.parse(await searchParams);
  const { rows, made } = await jobAnd(job, 'cutting', stage === undefined ? {} : { at: stage });
  const taping = new Set(rows.instruments.flatMap(({ id, kind }) => (LENGTH_KINDS.has(kind) ? [id] : [])));
  const newest = new Map(rows.instrumentVersions.map((version) => [version.instrumentId, version.id]));
  const instruments = rows.instruments.flatMap(({ id, name }) =>
    taping.has(id) ? [{ id: newest.get(id) ?? '', name }] : [],
  );
  return (
    <RungPage
      rows={rows}
      rung={room}
      place={
        <CuttingPlace
          room={room}
          rows={rowsForRounds(
            rows,
            rows.rounds.map(({ id }) => id),
          )}
          page={made}
          instruments={instruments}
          actions={{
            ...{ planBrace, correctBrace, recordItemEvent, withdraw },
            ...{ savePanel: cut.savePanel, saveStage: cut.saveStage, addCheck: cut.addCheck },
            ...{ keepStructure: cut.keepStructure, importStructure: cut.importStructure },
            ...{ addPressTest: cut.addPressTest, addSection: cut.addSection, decideAdvice: cut.decideAdvice },
            ...{ saveKeepOut: cut.saveKeepOut, removeKeepOut: cut.removeKeepOut, saveTemplate: cut.saveTemplate },
            ...{ orderPanels: cut.orderPanels, planBlasting: cut.planBlasting, punchPoints: cut.punchPoints },
          }}
        />
      }
    />
  );
}

/** What a length between two points is taken with. */
const LENGTH_KINDS: ReadonlySet<string> = new Set(['tape', 'tram', 'digitalTram']);
