import type { JobRows } from '@/core/shell/job/job-rows';
import { writeCsv } from './csv';

/** Every reading of a job, struck ones too, as CSV; lengths in millimetres. */
export function readingsCsv(rows: JobRows): string {
  const codeOf = new Map(rows.points.map((point) => [point.id, point.code]));
  const seamOf = new Map(rows.seams.map((seam) => [seam.id, seam.code]));
  const stationOf = new Map(
    rows.seamStations.map((station) => [station.id, `${seamOf.get(station.seamId)}.${station.number}`]),
  );
  const roundOf = new Map(rows.rounds.map((round) => [round.id, round]));
  const versionOf = new Map(rows.instrumentVersions.map((version) => [version.id, version]));
  const instrumentOf = new Map(rows.instruments.map((instrument) => [instrument.id, instrument.name]));
  const strikeOf = new Map(rows.readingStrikes.map((strike) => [strike.readingId, strike]));
  const pullOf = new Map(rows.workItems.map(({ id, code }) => [id, code]));
  return writeCsv(
    rows.readings.map((reading) => {
      const round = roundOf.get(reading.roundId)!;
      const version = versionOf.get(reading.instrumentVersionId)!;
      const strike = strikeOf.get(reading.id);
      return {
        round: round.number,
        round_name: round.name,
        taken_at: reading.takenAt,
        who: reading.author,
        quantity: reading.quantity,
        subject: codeOf.get(reading.pointId ?? '') ?? stationOf.get(reading.stationId ?? '') ?? '',
        to: codeOf.get(reading.toPointId ?? '') ?? '',
        measure: reading.measure ?? '',
        value_mm: reading.value,
        typed: reading.raw,
        instrument: instrumentOf.get(version.instrumentId)!,
        instrument_version: version.number,
        phase: reading.phase,
        pull: pullOf.get(reading.pullId ?? '') ?? '',
        struck_at: strike?.struckAt ?? '',
        struck_by: strike?.author ?? '',
        struck_because: strike?.reason ?? '',
      };
    }),
  );
}
