import { z } from 'zod';
import type { ListedBench } from '@/core/shell/benches';
import * as entity from '@/core/shell/job/entities';
import { parseJson, parseShape, type Parsed } from './faults';
import type { NewBench } from './inputs/set-up';

const FORMAT = 'vinkel.bench/1';

/** A bench and its shelf as a file of their own, apart from any job: names and figures, no identities. */
const benchFile = z.strictObject({
  format: z.literal(FORMAT),
  bench: entity.bench.omit({ id: true }),
  version: entity.benchVersion.omit({ id: true, benchId: true, number: true, validFrom: true }),
  shelf: z.array(entity.shelfItem.omit({ id: true, benchVersionId: true })).max(200),
});
export type BenchFile = z.infer<typeof benchFile>;

export function benchDocument({ bench, version, items }: ListedBench): BenchFile {
  const { id: _, ...named } = bench;
  const { id: __, benchId: ___, number: ____, validFrom: _____, ...figures } = version;
  return {
    format: FORMAT,
    bench: named,
    version: figures,
    shelf: items.map(({ id: ______, benchVersionId: _______, ...item }) => item),
  };
}

/** Reads such a file as a new bench of this shop. */
export function readBenchFile(text: string, newId: () => string): Parsed<NewBench> {
  const json = parseJson(text);
  if (!json.ok) return json;
  const read = parseShape(benchFile, json.value);
  if (!read.ok) return read;
  const { bench, version, shelf } = read.value;
  const [benchId, versionId] = [newId(), newId()];
  return {
    ok: true,
    value: {
      bench: { ...bench, id: benchId },
      version: { ...version, id: versionId, benchId },
      items: shelf.map((item) => ({ ...item, id: newId(), benchVersionId: versionId })),
    },
  };
}
