import { chartRows, type ChartDraft } from '@/core/shell/chart/draft';
import { distance, levelDistance, position, type Vector } from '@/core/maths/geometry/vector';
import { NEW_BRACE, NEW_JOB, NEW_STEP, type Seam } from '@/core/shell/job/entities';
import type {
  Job,
  LogEntry,
  Measure,
  Phase,
  Quantity,
  Round,
  Rung,
  Section,
  StateKind,
  Step,
  StepEvent,
  Support,
} from '@/core/shell/job/entities';
import type { z } from 'zod';
import { emptyJobRows, JOB_TABLES, type RowOf, type JobTable } from '@/core/shell/job/job-rows';
import { seeded, type Random } from '@/core/maths/random/seeded';

/** The instruments the schema brings, by their fixed identities. */
export const INSTRUMENTS = {
  tape: { number: 1, kind: 'tape', name: 'Steel tape', sd: 0.6, perMetre: 0.3, steel: true },
  tram: { number: 2, kind: 'tram', name: 'Tram gauge', sd: 0.5, perMetre: 0, steel: false },
  digitalTram: {
    number: 3,
    kind: 'digitalTram',
    name: 'Digital tram',
    sd: 0.3,
    perMetre: 0,
    steel: false,
  },
  caliper: { number: 4, kind: 'caliper', name: 'Caliper', sd: 0.25, perMetre: 0, steel: true },
  heightStick: {
    number: 5,
    kind: 'heightStick',
    name: 'Height stick on the bench',
    sd: 0.7,
    perMetre: 0,
    steel: false,
  },
  plumb: {
    number: 6,
    kind: 'plumb',
    name: 'Plumb and pointer to the bench',
    sd: 1.0,
    perMetre: 0,
    steel: false,
  },
  heads: { number: 7, kind: 'fixtureHead', name: 'Fixture heads', sd: 0.3, perMetre: 0, steel: true },
} as const;
export type InstrumentName = keyof typeof INSTRUMENTS;

const idOf = (series: 1 | 2, name: InstrumentName): string =>
  `00000000-0000-4000-8000-000000000${series}0${INSTRUMENTS[name].number}`;
export const versionId = (name: InstrumentName): string => idOf(2, name);

/** A rigid placement of the shell on the bench: small turns in radians and a shift in mm. */
export interface Standing {
  readonly turn: Vector;
  readonly shift: Vector;
}

/** Where a chart position is found in the axes of the bench. */
export function onBench({ turn: [rx, ry, rz], shift }: Standing, [x, y, z]: Vector): Vector {
  const [cx, sx, cy, sy, cz, sz] = [Math.cos(rx), Math.sin(rx), Math.cos(ry), Math.sin(ry), Math.cos(rz), Math.sin(rz)];
  const [x1, y1, z1] = [x, cx * y - sx * z, sx * y + cx * z];
  const [x2, y2, z2] = [cy * x1 + sy * z1, y1, -sy * x1 + cy * z1];
  return [cz * x2 - sz * y2 + shift[0], sz * x2 + cz * y2 + shift[1], z2 + shift[2]];
}

const tube = (number: number, size: number, wall: number): Section => ({
  id: `00000000-0000-4000-8000-00000000050${number}`,
  name: `square tube ${size}×${size}×${wall}`,
  ...{ width: size, height: size, wall, material: 'mildSteel', stock: 6000 },
});

/** The tubes the schema brings, by their fixed identities. */
export const SECTIONS = { small: tube(1, 25, 2), middle: tube(2, 30, 2), large: tube(3, 40, 3) } as const;
export type SectionName = keyof typeof SECTIONS;

/** Puts the rows of one demo job together, with a clock that only goes forward. */
export class JobBuilder {
  readonly rows = emptyJobRows();
  readonly jobId: string;
  readonly referenceId: string;
  /** Identities of what was added to the demo later: the readings' own chance stays what it was. */
  readonly later: Random;
  private minutes: number;
  private ordinal = 0;
  private sequence = 0;

  constructor(
    readonly random: Random,
    start: string,
    job: Omit<Job, 'id' | 'startedAt' | keyof typeof NEW_JOB> & Pick<Job, 'note'>,
  ) {
    this.minutes = Date.parse(start) / 60_000;
    this.later = seeded([...job.name].reduce((sum, letter) => (31 * sum + letter.charCodeAt(0)) % 1e6, 7));
    this.jobId = random.uuid();
    this.referenceId = random.uuid();
    this.rows.jobs.push({ ...NEW_JOB, id: this.jobId, ...job, startedAt: this.now() });
    for (const name of Object.keys(INSTRUMENTS) as InstrumentName[]) {
      const { kind, sd, perMetre, steel, name: title } = INSTRUMENTS[name];
      this.rows.instruments.push({ id: idOf(1, name), name: title, kind });
      this.rows.instrumentVersions.push({
        id: idOf(2, name),
        instrumentId: idOf(1, name),
        number: 1,
        sdConstant: sd,
        sdPerMetre: perMetre,
        zeroOffset: 0,
        startMark: 0,
        steel,
        pointers: '',
        checkedAt: null,
        note: '',
        validFrom: '2000-01-01T00:00:00.000Z',
      });
    }
  }

  now(): string {
    return new Date(this.minutes * 60_000).toISOString();
  }

  wait(minutes: number): this {
    this.minutes += minutes;
    return this;
  }

  until(time: string): this {
    this.minutes = Math.max(this.minutes, Date.parse(time) / 60_000);
    return this;
  }

  /** Adds a row; what it does not say is as its schema has it. */
  add<T extends JobTable>(table: T, said: z.input<(typeof JOB_TABLES)[T]>): RowOf<T> {
    const row = JOB_TABLES[table].parse(said) as RowOf<T>;
    (this.rows[table] as RowOf<T>[]).push(row);
    return row;
  }

  reference(
    kind: RowOf<'references'>['kind'],
    name: string,
    source: string,
    trust: number,
    rank: number,
    id = this.random.uuid(),
  ): string {
    this.add('references', {
      id,
      jobId: this.jobId,
      kind,
      name,
      source,
      trust,
      rank,
      roundId: null,
      createdAt: this.now(),
      edition: 1,
      editionOf: null,
      inUse: true,
    });
    return id;
  }

  /** One length of a reference. */
  figure(referenceId: string, dimension: string, value: number, tolerance = 3): void {
    this.add('referenceDimensions', {
      id: this.random.uuid(),
      referenceId,
      dimensionId: this.dimension(dimension),
      value: Math.round(value * 10) / 10,
      tolerance,
      sd: null,
      version: 1,
    });
  }

  /** The chart's points, dimensions and seams; without figures where the job has no chart. */
  chart(draft: ChartDraft, withFigures = true): void {
    const made = chartRows(draft, { jobId: this.jobId, referenceId: this.referenceId }, this.rows, this.random.uuid);
    for (const [table, rows] of Object.entries(made))
      if (withFigures || !table.startsWith('reference')) (this.rows[table as JobTable] as unknown[]).push(...rows);
  }

  /** Says where seams lie on the shell, both sides alike, and how much people see of them. */
  placeSeams(places: Readonly<Record<string, readonly [from: string, to: string, sight: Seam['sight']]>>): void {
    this.rows.seams = this.rows.seams.map((seam) => {
      const said = places[seam.pairing];
      if (!said) return seam;
      const [from, to, sight] = said;
      const side = seam.side === 'left' ? 'L' : 'R';
      return { ...seam, sight, fromPointId: this.point(`${from}${side}`), toPointId: this.point(`${to}${side}`) };
    });
  }

  point(code: string): string {
    const found = this.rows.points.find((point) => point.code === code);
    if (!found) throw new Error(`the demo has no point ${code}`);
    return found.id;
  }

  dimension(code: string): string {
    return this.rows.dimensions.find((dimension) => dimension.code === code)!.id;
  }

  station(code: string): string {
    const [seamCode, number] = code.split('.');
    const seam = this.rows.seams.find((each) => each.code === seamCode)!;
    return this.rows.seamStations.find((each) => each.seamId === seam.id && each.number === Number(number))!.id;
  }

  step(rung: Rung, title: string, needs = '', doneBy: Step['doneBy'] = null): Step {
    return this.add('steps', {
      id: this.random.uuid(),
      jobId: this.jobId,
      rung,
      ordinal: this.ordinal++,
      title,
      note: '',
      needs,
      ...NEW_STEP,
      doneBy,
      version: 1,
    });
  }

  stepEvent(step: Step, kind: StepEvent['kind'], author: string, note = '', until: string | null = null): void {
    this.add('stepEvents', {
      id: this.random.uuid(),
      stepId: step.id,
      kind,
      until,
      at: this.now(),
      author,
      note,
    });
  }

  round(
    name: string,
    state: StateKind,
    author: string,
    instrument: InstrumentName,
    temperature: number,
    support: Pick<Support, 'kind' | 'suspension' | 'note'>,
    control: readonly string[],
  ): Round {
    const at = this.now();
    const stateRow = this.add('shellStates', {
      id: this.random.uuid(),
      jobId: this.jobId,
      kind: state,
      note: '',
      reachedAt: at,
    });
    const supportRow = this.add('supports', {
      id: this.random.uuid(),
      jobId: this.jobId,
      ...support,
    });
    const round = this.add('rounds', {
      id: this.random.uuid(),
      jobId: this.jobId,
      number: this.rows.rounds.length + 1,
      name,
      stateId: stateRow.id,
      supportId: supportRow.id,
      instrumentVersionId: versionId(instrument),
      temperature,
      author,
      startedAt: at,
      closedAt: null,
      setUpId: null,
      shell: '',
      version: 1,
    });
    for (const code of control) this.add('roundControls', { roundId: round.id, pointId: this.point(code) });
    this.sequence = 0;
    return round;
  }

  close(round: Round): void {
    round.closedAt = this.now();
    this.add('roundEvents', {
      ...{ id: this.later.uuid(), roundId: round.id, kind: 'closed', at: this.now() },
      ...{ author: round.author, reason: '' },
    });
  }

  private noisy(value: number, instrument: InstrumentName, digits = 1): number {
    const { sd, perMetre } = INSTRUMENTS[instrument];
    const error = this.random.normal() * (sd + (perMetre * Math.abs(value)) / 1000);
    return Math.round((value + error) * 10 ** digits) / 10 ** digits;
  }

  /** One typed line with its numbers; a minute passes. */
  line(
    round: Round,
    author: string,
    raw: string,
    numbers: readonly {
      readonly instrument: InstrumentName;
      readonly quantity: Quantity;
      readonly value: number;
      readonly point?: string;
      readonly to?: string;
      readonly station?: string;
      readonly measure?: Measure;
      readonly pullId?: string;
      readonly phase?: Phase;
    }[],
  ): string {
    const lineId = this.random.uuid();
    this.wait(1);
    this.sequence++;
    for (const { instrument, quantity, value, point, to, station, measure, pullId, phase } of numbers)
      this.add('readings', {
        id: this.random.uuid(),
        lineId,
        roundId: round.id,
        sequence: this.sequence,
        instrumentVersionId: versionId(instrument),
        author,
        takenAt: this.now(),
        receivedAt: this.now(),
        raw,
        quantity,
        value,
        phase: phase ?? 'none',
        measure: measure ?? null,
        pointId: point ? this.point(point) : null,
        toPointId: to ? this.point(to) : null,
        stationId: station ? this.station(station) : null,
        pullId: pullId ?? null,
        pointerFrom: null,
        pointerTo: null,
        fit: null,
        partHoleId: null,
        toward: null,
      });
    return lineId;
  }

  /** Length and width by plumb, height by stick, of a point standing at `position` on the bench. */
  readPosition(round: Round, author: string, code: string, position: Vector, only = 'lwh'): void {
    const [x, y] = [this.noisy(position[0], 'plumb'), this.noisy(position[1], 'plumb')];
    const z = this.noisy(position[2], 'heightStick');
    const parts = [
      { letter: 'l', quantity: 'length' as const, value: x, instrument: 'plumb' as const },
      { letter: 'w', quantity: 'width' as const, value: y, instrument: 'plumb' as const },
      { letter: 'h', quantity: 'height' as const, value: z, instrument: 'heightStick' as const },
    ].filter(({ letter }) => only.includes(letter));
    const raw =
      only === 'lwh' ? `${code} ${x} ${y} ${z}` : `${code} ${parts.map((p) => `${p.letter} ${p.value}`).join(' ')}`;
    this.line(
      round,
      author,
      raw,
      parts.map((part) => ({ ...part, point: code })),
    );
  }

  /** A distance between two places on the bench; `slip` is what the person got wrong, mm. */
  readDistance(
    round: Round,
    author: string,
    from: readonly [string, Vector],
    to: readonly [string, Vector],
    options: {
      readonly instrument?: InstrumentName;
      readonly measure?: Measure;
      readonly slip?: number;
    } = {},
  ): string {
    const { measure = 'tip', slip = 0 } = options;
    const true_ = (measure === 'tip' ? distance : levelDistance)(position<'round'>(from[1]), position(to[1]));
    const instrument = options.instrument ?? (true_ > 1800 ? 'tape' : 'tram');
    const value = Math.round((this.noisy(true_, instrument) + slip) * 10) / 10;
    return this.line(round, author, `${from[0]} ${to[0]} ${value}`, [
      { instrument, quantity: 'distance', value, point: from[0], to: to[0], measure },
    ]);
  }

  readGap(round: Round, author: string, code: string, gap: number, flush?: number): void {
    const g = this.noisy(gap, 'caliper', 1);
    const f = flush === undefined ? undefined : this.noisy(flush, 'caliper', 1);
    this.line(round, author, `${code} ${g}${f === undefined ? '' : ` ${f}`}`, [
      { instrument: 'caliper', quantity: 'gap', value: g, station: code },
      ...(f === undefined
        ? []
        : [{ instrument: 'caliper' as const, quantity: 'flush' as const, value: f, station: code }]),
    ]);
  }

  strike(lineId: string, author: string, reason: string, replacedByLineId: string | null = null): void {
    for (const reading of this.rows.readings.filter((each) => each.lineId === lineId))
      this.add('readingStrikes', {
        id: this.random.uuid(),
        readingId: reading.id,
        struckAt: this.now(),
        author,
        reason,
        replacedByLineId,
      });
  }

  log(
    kind: LogEntry['kind'],
    author: string,
    text: string,
    reason: string,
    about: readonly {
      readonly point?: string;
      readonly dimension?: string;
      readonly accepted?: number;
    }[] = [],
    round: Round | null = null,
  ): LogEntry {
    const entry = this.add('logEntries', {
      id: this.random.uuid(),
      jobId: this.jobId,
      kind,
      text,
      reason,
      author,
      at: this.now(),
      roundId: round?.id ?? null,
      supersedes: null,
      overturnedBy: '',
    });
    for (const { point, dimension, accepted } of about)
      this.add('logSubjects', {
        id: this.random.uuid(),
        entryId: entry.id,
        pointId: point ? this.point(point) : null,
        dimensionId: dimension ? this.dimension(dimension) : null,
        acceptedDeviation: accepted ?? null,
        referenceId: accepted === undefined ? null : this.referenceId,
      });
    return entry;
  }

  brace(
    code: string,
    from: string,
    to: string,
    section: SectionName,
    round: Round,
    holds: readonly string[],
    author: string,
  ): string {
    const brace = this.add('braces', {
      id: this.random.uuid(),
      jobId: this.jobId,
      fromPointId: this.point(from),
      toPointId: this.point(to),
      kind: 'weldedTube',
      ...NEW_BRACE,
      sectionId: SECTIONS[section].id,
      ...{ fromOff: 3, toOff: 3 },
      roundId: round.id,
      version: 1,
    });
    if (!this.rows.sections.some(({ id }) => id === SECTIONS[section].id)) this.add('sections', SECTIONS[section]);
    this.rows.workItems.push({ id: brace.id, jobId: this.jobId, kind: 'brace', code, name: code, version: 1 });
    for (const dimension of holds)
      this.add('braceDimensions', { braceId: brace.id, dimensionId: this.dimension(dimension) });
    this.braceEvent(brace.id, 'planned', author);
    return brace.id;
  }

  braceEvent(braceId: string, kind: 'planned' | 'fitted' | 'removed', author: string): void {
    this.add('workEvents', {
      ...{ id: this.random.uuid(), itemId: braceId, kind, key: '', at: this.now(), author, reason: '', value: null },
    });
  }
}
