import { Job } from '@/core/shell/job/job';
import type { ChartDraft } from '@/core/shell/chart/draft';
import { mapAxes, norm, subtract, type Vector } from '@/core/maths/geometry/vector';
import { FIRST_STEPS } from '@/core/days/ladder';
import { morningThree } from '@/core/plan/morning';
import { buildRecord } from '@/core/report/record/record';
import { signedWith } from '@/core/report/record/signed';
import type { RecordDocument } from '@/core/shell/record-document';
import { aimOf } from '@/core/findings/brace-pull';
import { judgeRound } from '@/core/round/judge/judge-round';
import { NEW_PULL, type LogEntry, type Round, type Step } from '@/core/shell/job/entities';
import type { JobRows } from '@/core/shell/job/job-rows';
import { JobBuilder, onBench, type Standing } from './builder';
import { BENCHES, setUpOn } from './benches';
import { inTurn, solbrisCalendar } from './calendar';
import { solbrisPanels } from './panels';
import { loddNose, loddRead, loddWelds, solbrisWelds } from './welds';
import { bodyOf, solbrisCuts } from './structures';
import { seeded } from '@/core/maths/random/seeded';
import { hashOfRecord } from '@/server/record-hash';
import { gaugePart, readGauges } from './gauges';
import { kvistShell, maakeChart, loddChart, positionOf, solbrisChart, solbrisTruth } from './shells';

const SHOP = 'Sundet Karosseri';
const [ALVA, NILS, RONJA] = ['Alva', 'Nils', 'Ronja'];

/** A photograph the demo draws for itself: a caption and which entry it belongs to. */
export interface DemoPicture {
  readonly entryId: string;
  readonly name: string;
  readonly motif: 'sill' | 'corner' | 'brace' | 'leg';
}

export interface DemoJob {
  readonly folder: string;
  readonly rows: JobRows;
  readonly pictures: readonly DemoPicture[];
  /** Where the shell really stands in its last round, for the simulated instrument. */
  readonly truth?: ReadonlyMap<string, Vector>;
}

const defaultSteps = (job: JobBuilder): Step[] =>
  FIRST_STEPS.map(({ rung, title, needs, doneBy }) => job.step(rung, title, needs, doneBy));

type Places = ReadonlyMap<string, Vector>;

const placesOf = (
  chart: ChartDraft,
  truth: (point: ChartDraft['points'][number]) => Vector,
  standing: Standing,
): Places => new Map(chart.points.map((point) => [point.code, onBench(standing, truth(point))]));

/** Reads every charted dimension of the list. */
function readLengths(
  job: JobBuilder,
  round: Round,
  who: string,
  chart: ChartDraft,
  places: Places,
  codes?: readonly string[],
): void {
  for (const { code, from, to, measure } of chart.dimensions)
    if (!codes || codes.includes(code))
      job.readDistance(round, who, [from, places.get(from)!], [to, places.get(to)!], { measure });
}

export function solbris(): DemoJob {
  const job = new JobBuilder(seeded(1968), '2026-11-09T08:00:00Z', {
    name: 'Solbris 1200 estate',
    shell: 'Solbris 1200 estate, 1968',
    identityNumber: 'SB12-E-004417',
    owner: 'Lighthouse society, Ytre Sund',
    shop: SHOP,
    driverSide: 'left',
    bench: 'Rail bench with clamps on the pinch flange',
    note: 'Once a lighthouse service car. Left rear corner pushed into a granite quay post long ago and filled over; left sill and left rear floor rotten.',
  });
  bodyOf(job, 'estate');
  const chart = solbrisChart();
  job.reference('chart', 'Maker’s dimension chart', 'Workshop sheet 14, edition of 1967', 0, 0, job.referenceId);
  job.chart(chart);
  job.placeSeams({
    DF: ['A1', 'A3', 'shut'],
    DB: ['B1', 'B3', 'shut'],
    BN: ['F3', 'A3', 'line'],
    TG: ['D1', 'D2', 'shut'],
  });
  const [look, reference, setUp, measure, control, planBraces, fitBraces, cut, pullStep] = defaultSteps(job);
  const rust = job.step('cut', 'Rust dissolver on the left rear chassis leg');
  const parts = job.step('weld', 'Left sill panel and rear floor section');

  job.wait(50);
  const corner = job.log(
    'finding',
    ALVA!,
    'Left rear corner filled over: a magnet does not stick from the lamp down to the leg end.',
    '',
    [{ point: 'R4L' }],
  );
  job.wait(12);
  const sill = job.log(
    'finding',
    NILS!,
    'Left sill rotten through at the middle drain hole and behind the B post; the rear floor with it.',
    '',
    [{ point: 'S2L' }],
  );
  job.wait(6).stepEvent(look!, 'done', ALVA!);
  job
    .wait(20)
    .log(
      'decision',
      ALVA!,
      'Measure from the maker’s chart; the front section is taken as undisturbed.',
      'Factory welds and primer are whole ahead of the A posts, and no filler was found there.',
    );
  job.stepEvent(reference!, 'done', ALVA!);
  job.wait(90).stepEvent(setUp!, 'done', NILS!);

  job.until('2026-11-10T07:30:00Z');
  const support = {
    kind: 'sillClamps' as const,
    suspension: 'off' as const,
    note: 'Four clamps, left rear one on sound flange ahead of the rot',
  };
  const standing: Standing = { turn: [0.0021, -0.0034, 0.0046], shift: [8.4, -3.2, 312.6] };
  const places = placesOf(chart, solbrisTruth, standing);
  const controls = ['F2L', 'F2R', 'F4L', 'F4R', 'M1L', 'M1R', 'S1L', 'S1R'];
  const asFound = job.round('As found', 'asFound', RONJA!, 'plumb', 16, support, controls);
  const unreached = new Set(['R2L', 'R2R', 'C2L', 'K5']);
  for (const { code } of chart.points)
    if (!unreached.has(code)) job.readPosition(asFound, RONJA!, code, places.get(code)!, code === 'D2R' ? 'lh' : 'lwh');
  readLengths(
    job,
    asFound,
    RONJA!,
    chart,
    places,
    chart.dimensions.map((each) => each.code).filter((code) => !['XL1', 'CD2', 'FS2'].includes(code)),
  );
  // The two slips of the round: the tape started at its 100 mm mark, and the right end taken for the left.
  job.readDistance(asFound, NILS!, ['F2L', places.get('F2L')!], ['R4L', places.get('R4L')!], {
    slip: 100,
  });
  const crossed = { measure: 'level' as const, instrument: 'tram' as const };
  job.readDistance(asFound, NILS!, ['S1R', places.get('S1R')!], ['S3L', places.get('S3R')!], crossed);
  const misheard = job.readDistance(asFound, NILS!, ['F3R', places.get('F3R')!], ['S1R', places.get('S1R')!], {
    slip: 35,
  });
  const again = job.readDistance(asFound, NILS!, ['F3R', places.get('F3R')!], ['S1R', places.get('S1R')!]);
  job.strike(misheard, RONJA!, 'fifteen heard as fifty', again);
  const doorGaps: Record<string, [number, number]> = {
    'DFL.1': [4.3, 0.2],
    'DFL.2': [4.6, 0],
    'DFL.3': [4.9, 0.3],
    'DFR.1': [4.4, 0.1],
    'DFR.2': [4.5, 0],
    'DFR.3': [4.4, -0.1],
    'DBL.1': [2.1, 1.9],
    'DBL.2': [3.6, 0.8],
    'DBL.3': [5.2, 0.3],
    'DBR.1': [4.6, 0.1],
    'DBR.2': [4.3, 0.2],
    'DBR.3': [4.7, 0],
  };
  for (const [code, [gap, flush]] of Object.entries(doorGaps)) job.readGap(asFound, RONJA!, code, gap, flush);
  for (const [i, code] of ['BNL.1', 'BNL.2', 'BNL.3', 'BNR.1', 'BNR.2', 'BNR.3'].entries())
    job.readGap(asFound, RONJA!, code, 4.8 + 0.1 * (i % 3));
  for (const [i, code] of ['TGL.1', 'TGL.2', 'TGL.3', 'TGR.1', 'TGR.2', 'TGR.3'].entries())
    job.readGap(asFound, RONJA!, code, i < 3 ? 3.4 + 1.1 * i : 5.6 - 0.3 * (i % 3));
  job.wait(15).close(asFound);
  job.stepEvent(measure!, 'done', RONJA!);
  job.wait(10).stepEvent(control!, 'done', ALVA!);
  job
    .wait(5)
    .log(
      'finding',
      RONJA!,
      'Left B post foot stands in by some millimetres: a dent of its own, not the corner’s doing.',
      '',
      [{ point: 'B1L' }],
      asFound,
    );

  job.until('2026-11-12T08:10:00Z');
  const tube = 'small';
  const x1 = job.brace('X1', 'A1L', 'B2L', tube, asFound, ['DL1', 'DL2'], NILS!);
  const x2 = job.brace('X2', 'A1L', 'B3L', tube, asFound, ['DL3'], NILS!);
  const x3 = job.brace('X3', 'S1R', 'S3L', 'large', asFound, ['CD1', 'CD2'], NILS!);
  const x4 = job.brace('X4', 'B1R', 'C1L', tube, asFound, ['RD1'], NILS!);
  job.wait(40).stepEvent(planBraces!, 'done', ALVA!);
  job.until('2026-11-19T09:00:00Z');
  for (const id of [x1, x2, x3]) job.wait(35).braceEvent(id, 'fitted', NILS!);
  void x4;
  const braced = job.log('finding', NILS!, 'Braces X1 to X3 in; pads on the doubled flange of the posts.', '');
  job.stepEvent(fitBraces!, 'begun', NILS!);

  job.until('2026-11-20T07:40:00Z');
  const round2 = job.round('Braced', 'braced', RONJA!, 'plumb', 14, support, controls);
  const drawn = (point: ChartDraft['points'][number]): Vector => {
    const [x, y, z] = solbrisTruth(point);
    return [x, y + (point.code === 'B2L' ? -1.4 : 0), z];
  };
  const now = placesOf(chart, drawn, {
    turn: [0.0019, -0.0031, 0.0046],
    shift: [8.1, -3.0, 312.4],
  });
  for (const code of [
    ...controls,
    'S2L',
    'S2R',
    'S3L',
    'S3R',
    'A2L',
    'A2R',
    'B1L',
    'B2L',
    'B2R',
    'C1L',
    'C1R',
    'R4L',
    'R4R',
  ])
    job.readPosition(round2, RONJA!, code, now.get(code)!);
  readLengths(job, round2, RONJA!, chart, now, [
    'CW1',
    'CW2',
    'CW3',
    'CD1',
    'CD2',
    'DL1',
    'DL2',
    'DL3',
    'DR1',
    'RL1',
    'RL2',
    'RD1',
    'RD2',
    'RW1',
  ]);

  job.until('2026-11-23T08:00:00Z');
  const aim = aimOf(judgeRound(Job.of({ ...job.rows }), round2), job.point('R4L'))!;
  const pull = job.add('pulls', {
    id: job.random.uuid(),
    jobId: job.jobId,
    ...NEW_PULL,
    anchor: 'tower' as const,
    pointId: job.point('R4L'),
    roundId: round2.id,
    aimX: round1(aim[0]),
    aimY: round1(aim[1]),
    aimZ: round1(aim[2]),
    ...{ attach: 'plate', chain: 1600, rated: 30_000, ramArea: 2000 },
    heldAt: 'Clamped at C1L, C1R and both sills',
    note: 'First trial pull: learn the spring-back, not the whole way',
    version: 1,
  });
  job.rows.workItems.push({ id: pull.id, jobId: job.jobId, kind: 'pull', code: 'P1', name: 'P1', version: 1 });
  const holdIds = seeded(4021);
  for (const code of ['C1L', 'C1R'])
    job.add('holds', {
      id: holdIds.uuid(),
      itemId: pull.id,
      pointId: job.point(code),
      kind: 'clamp',
      rating: 25_000,
    });
  const pullEvent = (kind: 'planned' | 'loaded' | 'released', note = '') =>
    job.add('workEvents', {
      ...{ id: job.random.uuid(), itemId: pull.id, kind, key: '' },
      ...{ at: job.now(), author: NILS!, reason: note, value: null },
    });
  pullEvent('planned');
  job.wait(60);
  job.add('strokes', {
    ...{ id: holdIds.uuid(), pullId: pull.id, ordinal: 0, target: 5, rest: 2, plusMinus: 4 },
    ...{ at: job.now(), author: NILS! },
  });
  pullEvent('loaded');
  const reach = now.get('R4L')![0];
  pullReading(job, round2, pull.id, 'underLoad', reach + 5.2);
  job.wait(4);
  pullEvent('released');
  pullReading(job, round2, pull.id, 'released', reach + 1.7);
  job.stepEvent(pullStep!, 'begun', NILS!, 'one trial pull, to learn the spring-back');
  job.wait(30).stepEvent(rust!, 'curing', NILS!, 're-wet daily', '2026-11-26T08:00:00.000Z');
  job.stepEvent(parts!, 'missing', ALVA!, 'on order since 12 November', '2026-12-04T12:00:00.000Z');
  void cut;
  otherReferences(job, chart);
  writtenBesides(job, { corner: corner.id, sill: sill.id });
  setUpOn(job, BENCHES.clamps, {
    ...{ suspension: 'off', place: [450, 0, 312], kilograms: 268, tickedBy: NILS! },
    mounts: [
      ['Front left clamp', [800, -702, 168]],
      ['Front right clamp', [800, 702, 168]],
      ['Rear left clamp', [1940, -702, 170]],
      ['Rear right clamp', [1960, 702, 170]],
    ],
  });
  setUpOn(job, BENCHES.stands, {
    ...{ suspension: 'off', place: [450, 0, 312], kilograms: 268, name: 'Stands under the crossmembers' },
    mounts: ['F4L', 'F4R', 'C1L', 'C1R'],
  });
  solbrisCuts(job, NILS!);
  solbrisPanels(job, NILS!);
  solbrisWelds(job, NILS!);
  solbrisCalendar(job, NILS!);
  return {
    folder: 'solbris',
    rows: job.rows,
    truth: now,
    pictures: [
      { entryId: corner.id, name: 'Left rear corner, filler ground away', motif: 'corner' },
      { entryId: sill.id, name: 'Left sill behind the B post', motif: 'sill' },
      { entryId: braced.id, name: 'Braces X1 and X2 in the door opening', motif: 'brace' },
    ],
  };
}

/**
 * What else the shop knows of the car: a sister estate measured at the shows, and the old sill kept for its
 * holes, whose drain hole was drilled out of place at some time and contradicts the chart.
 */
function otherReferences(job: JobBuilder, chart: ChartDraft): void {
  const sister = job
    .wait(45)
    .reference(
      'sisterCar',
      'Sister estate of the Nordby museum',
      'Lengths taken with a tape on the standing car, 2024; never hit as far as is known',
      1.8,
      1,
    );
  const lengths = chart.dimensions.filter(({ code }) => /^(D|W|C|T|RW|RL)/.test(code));
  for (const { code, value } of lengths) job.figure(sister, code, value + 1.1 * job.random.normal());
  const sill = job
    .wait(5)
    .reference(
      'keptPart',
      'Old left sill, cut out and kept',
      'Jacking holes and pinch flange sound; the middle drain hole looks drilled anew',
      0.8,
      2,
    );
  job.figure(sill, 'CL1', lengths.find(({ code }) => code === 'CL1')!.value + 4.6);
}

/** What findings say more, what was assumed and decided, the parts on the shelf, and a morning's three readings. */
function writtenBesides(job: JobBuilder, { corner, sill }: Readonly<Record<'corner' | 'sill', string>>): void {
  const { later } = job;
  const entry = (kind: LogEntry['kind'], text: string, reason: string, overturnedBy = '') =>
    job.add('logEntries', {
      ...{ id: later.uuid(), jobId: job.jobId, kind, text, reason, overturnedBy },
      ...{ author: ALVA!, at: job.now(), roundId: null, supersedes: null },
    });
  job.add('findingDetails', {
    ...{ entryId: corner, sort: 'coatingThickness', grade: null, before: 6.5, after: 0.3 },
    ...{ weight: 'structural', otherSide: false },
  });
  job.add('findingDetails', {
    ...{ entryId: sill, sort: 'rust', grade: null, before: 1.2, after: 0.7 },
    ...{ weight: 'structural', otherSide: true },
  });
  entry(
    'assumption',
    'The rear seat crossmember stayed where it was: the hinge of the damage lies at or behind it.',
    'Its two diagonals agree, and no crease runs into it.',
    'A height at C1L or C1R more than 3 mm off once the filler is out.',
  );
  const whole = entry(
    'decision',
    'Left sill outer and inner replaced whole, not patched.',
    'Rotten at two places with sound metal only between them.',
  );
  job.add('decisionDetails', {
    entryId: whole.id,
    hours: 38,
    ownerSays: 'yes',
    ownerSaidAt: '2026-11-16T10:00:00.000Z',
  });
  const tags: readonly (readonly [part: string, takenFrom: string, state: string, shelf: string, until: string])[] = [
    ['Left door', 'A2L and A3L hinges', 'sound, hinge pins worn', 'Rack 2, lower', 'the new sill is welded'],
    ['Left rear lamp panel', 'between R3L and R4L', 'bent, brackets good', 'Rack 1', 'its brackets are copied'],
  ];
  for (const [i, [part, takenFrom, state, shelf, keepUntil]] of tags.entries())
    job.add('partTags', {
      ...{ id: later.uuid(), jobId: job.jobId, number: i + 1, part, takenFrom, state, shelf, keepUntil },
      ...{ at: job.now(), author: NILS!, version: 1 },
    });
  job.until('2026-11-24T06:40:00Z');
  const proposed = morningThree(Job.of({ ...job.rows }));
  if ('missing' in proposed) throw new Error('the estate has no morning three');
  const { roundId, version, pairs } = proposed.what;
  const check = job.add('morningChecks', {
    ...{ id: later.uuid(), jobId: job.jobId, roundId, instrumentVersionId: version.id },
    ...{ at: job.now(), author: RONJA! },
  });
  for (const { expected, sd, ...pair } of pairs)
    job.add('morningReadings', {
      ...{ id: later.uuid(), morningCheckId: check.id, ...pair, expected, sd },
      value: round1(expected + 0.6 * sd * later.normal()),
    });
}

/** The record as signed: a reason beside whatever was open. */
const signedOver = (record: RecordDocument): RecordDocument =>
  signedWith(
    JSON.parse(JSON.stringify(record)) as RecordDocument,
    () => 'Looked at together with the owner on the bench; it stays so.',
  );

const round1 = (value: number): number => Math.round(value * 10) / 10;

function pullReading(job: JobBuilder, round: Round, pullId: string, phase: 'underLoad' | 'released', x: number): void {
  const value = round1(x);
  job.line(round, NILS!, `R4L l ${value}`, [
    { instrument: 'plumb', quantity: 'length', value, point: 'R4L', pullId, phase },
  ]);
}

export function kvist(): DemoJob {
  const job = new JobBuilder(seeded(1959), '2026-11-18T12:30:00Z', {
    name: 'Kvist 700 pickup van',
    shell: 'Kvist 700 pickup van, 1959',
    identityNumber: 'K7-V-1188',
    owner: 'Sundet Karosseri',
    shop: SHOP,
    driverSide: 'left',
    bench: 'Stands on a floor nobody has mapped',
    note: 'Body on a platform. No chart anywhere: a sister van stands in another village.',
  });
  bodyOf(job, 'pickupCab');
  const shell = kvistShell();
  job.reference('sisterCar', 'Sister van', 'Stands in another village; to be measured the same way', 3, 1);
  job.reference('mirroredSide', 'The other side mirrored', 'Right side, thought to be sound', 4, 2);
  job.chart(shell, false);
  const steps = defaultSteps(job);
  inTurn(job);
  job.wait(40).log('finding', ALVA!, 'Platform sound by eye; cab leans a little to the left.', '', [{ point: 'A2L' }]);
  for (const step of steps.slice(0, 3)) job.wait(30).stepEvent(step, 'done', NILS!);
  job.until('2026-11-21T09:00:00Z');
  const lean = (point: ChartDraft['points'][number]): Vector => {
    const [x, y, z] = positionOf(point);
    return [x, y - Math.max(0, z - 400) * 0.008, z];
  };
  const places = placesOf(shell, lean, { turn: [0, 0.002, 0], shift: [0, 0, 420] });
  const round = job.round(
    'As found, on stands',
    'asFound',
    RONJA!,
    'tape',
    11,
    { kind: 'stands', suspension: 'off', note: 'Four stands under the platform mounts' },
    [],
  );
  readLengths(job, round, RONJA!, shell, places);
  for (const code of ['P1L', 'P1R', 'P2L', 'P2R', 'P4L', 'P4R', 'P5L', 'P5R'])
    job.readPosition(round, RONJA!, code, places.get(code)!, 'h');
  job.stepEvent(steps[3]!, 'begun', RONJA!);
  setUpOn(job, BENCHES.stands, {
    ...{ suspension: 'off', place: [0, 0, 0] },
    mounts: [
      ['Stand, front left', [150, -430, 425]],
      ['Stand, front right', [150, 430, 425]],
      ['Stand, rear left', [1950, -430, 440]],
      ['Stand, rear right', [1950, 430, 440]],
    ],
  });
  return { folder: 'kvist', rows: job.rows, pictures: [], truth: places };
}

export function lodd(): DemoJob {
  const job = new JobBuilder(seeded(1978), '2026-09-14T07:00:00Z', {
    name: 'Lodd GT coupé',
    shell: 'Lodd GT coupé, 1974',
    identityNumber: 'LGT-74-02931',
    owner: 'Private owner, Fjordby',
    shop: SHOP,
    driverSide: 'left',
    bench: 'Rail bench with fixture heads at eight points',
    note: 'Left nose leg and slam panel replaced.',
  });
  bodyOf(job, 'twoDoor');
  const chart = loddChart();
  job.reference('chart', 'Maker’s dimension chart', 'Body repair sheet 3', 0, 0, job.referenceId);
  job.chart(chart);
  const steps = defaultSteps(job);
  inTurn(job);
  const finish = (...indexes: number[]) => indexes.forEach((i) => job.wait(25).stepEvent(steps[i]!, 'done', NILS!));
  const leg = job
    .wait(30)
    .log('finding', NILS!, 'Left nose leg creased behind the bumper bracket; slam panel torn at its left end.', '', [
      { point: 'F1L' },
    ]);
  setUpOn(job, BENCHES.rails, {
    ...{ suspension: 'off', place: [900, 0, 250], kilograms: 214, tickedBy: NILS! },
    mounts: ['F2L', 'F2R', 'R1L', 'R1R', 'S1L', 'S1R', 'S2L', 'S2R'],
  });
  finish(0, 1, 2);
  const support = {
    kind: 'fixtureBench' as const,
    suspension: 'off' as const,
    note: 'Fixture heads at F2, S1, S2 and R1, both sides',
  };
  const controls = ['S1L', 'S1R', 'S2L', 'S2R', 'M1R', 'F2R', 'R1L', 'R1R'];
  const standing: Standing = { turn: [0.0004, 0.0006, -0.0005], shift: [1.2, 0.6, 250.3] };

  const bent = (point: ChartDraft['points'][number]): Vector => {
    const [x, y, z] = positionOf(point);
    const share = point.side === 'left' && x < 100 ? (100 - x) / 640 : 0;
    return [x + 9 * share, y + 7 * share, z + 4 * share];
  };
  const straight =
    (widening: number) =>
    (point: ChartDraft['points'][number]): Vector => {
      const [x, y, z] = positionOf(point);
      return point.code === 'F1L' ? [x + 0.4, y - 0.9 - widening, z + 0.3] : [x, y, z];
    };
  const measureAll = (
    name: string,
    state: 'asFound' | 'fitted' | 'tacked' | 'cold',
    truth: (point: ChartDraft['points'][number]) => Vector,
    temperature: number,
  ): Round => {
    const places = placesOf(chart, truth, standing);
    const round = job.round(name, state, RONJA!, 'digitalTram', temperature, support, controls);
    for (const { code } of chart.points) job.readPosition(round, RONJA!, code, places.get(code)!);
    for (const { from, to, measure } of chart.dimensions)
      job.readDistance(round, RONJA!, [from, places.get(from)!], [to, places.get(to)!], {
        measure,
        instrument: 'digitalTram',
      });
    return round;
  };
  job.until('2026-09-15T08:00:00Z');
  const found = measureAll('As found', 'asFound', bent, 18);
  job.wait(10).close(found);
  finish(3, 4);
  job.until('2026-09-21T08:00:00Z');
  const brace = job.brace('N1', 'F1R', 'M1L', 'small', found, ['ND2', 'NW1'], NILS!);
  finish(5);
  job.wait(50).braceEvent(brace, 'fitted', NILS!);
  loddNose(job, NILS!);
  finish(6, 7, 8, 9);
  job.until('2026-10-06T08:00:00Z');
  const tacked = measureAll('Tacked', 'tacked', straight(0), 15);
  job.wait(10).close(tacked);
  job.until('2026-10-08T08:00:00Z');
  loddWelds(job, NILS!);
  job.until('2026-10-09T12:00:00Z');
  job.braceEvent(brace, 'removed', NILS!);
  finish(10);
  job.until('2026-10-12T08:00:00Z');
  const cold = measureAll('Welded, measured cold', 'cold', straight(-1.8), 14);
  for (const code of ['BNL.1', 'BNL.2', 'BNL.3', 'BNR.1', 'BNR.2', 'BNR.3']) job.readGap(cold, RONJA!, code, 5);
  for (const side of ['L', 'R'])
    for (const seam of ['DF', 'DB'])
      for (const n of [1, 2, 3]) job.readGap(cold, RONJA!, `${seam}${side}.${n}`, 4.5, 0.1);
  job.wait(10).close(cold);
  loddRead(job, cold.id, RONJA!);
  finish(11);
  readLoddGauges(job, found, bent, chart);
  const across = judgeRound(Job.of({ ...job.rows }), cold).dimensions.find(
    (each) => each.dimension.code === 'NW1',
  )!.judged!;
  const accepted = job
    .wait(20)
    .log(
      'decision',
      ALVA!,
      'The width across the nose leg ends drew in by 1.8 mm between tacked and cold. Accepted.',
      'Within the chart’s limit of 2 mm, bonnet gaps even on both sides, bumper holes line up; pulling it back would load a fresh weld.',
      [{ dimension: 'NW1', accepted: round1(across.deviation) }],
      cold,
    );
  job.wait(30).stepEvent(steps[12]!, 'done', ALVA!);
  const signed = {
    ...{ id: job.random.uuid(), jobId: job.jobId, number: 1, signedBy: ALVA!, personId: null, signedAt: job.now() },
    snapshot: signedOver(buildRecord(Job.of({ ...job.rows }), job.now())),
  };
  job.add('signedRecords', { ...signed, hash: hashOfRecord(signed) });
  void accepted;
  return {
    folder: 'lodd',
    rows: job.rows,
    pictures: [{ entryId: leg.id, name: 'Left nose leg as found', motif: 'leg' }],
  };
}

/** The heads under the coupé enter but for the one at the bent leg; the carrier of its bumper fits the right leg and misses the bent left one. */
function readLoddGauges(
  job: JobBuilder,
  found: Round,
  truth: (point: ChartDraft['points'][number]) => Vector,
  chart: ChartDraft,
): void {
  const point = (code: string) => chart.points.find((each) => each.code === code)!;
  const codes = ['F1R', 'F1L', 'P1L', 'P1R', 'F2R'];
  const holes = gaugePart(
    job,
    { code: 'carrier', name: 'Bumper carrier' },
    Object.fromEntries(codes.map((code) => [code, positionOf(point(code))])),
  );
  const off = mapAxes((k) => truth(point('F1L'))[k] - positionOf(point('F1L'))[k]);
  const beside = (k: 0 | 1 | 2, toward: 'rear' | 'right' | 'up') => {
    const value = Math.round(off[k] * 2) / 2;
    return {
      point: 'F1L',
      said: `carrier.2 ${value} ${toward}`,
      hole: holes.get('F1L')!,
      fit: 'beside' as const,
      toward,
      value,
    };
  };
  const fitting = (code: string, number: number, fit: 'centred' | 'none') => ({
    ...{ point: code, said: `carrier.${number} ${fit === 'none' ? 'no' : fit}`, hole: holes.get(code)! },
    ...{ fit, toward: null, value: 0.5 },
  });
  readGauges(job, found, [
    ...['F2L', 'F2R', 'S1L', 'S1R', 'S2L', 'S2R', 'R1L', 'R1R'].map((code) => {
      const enters = norm(subtract(truth(point(code)), positionOf(point(code)))) < 0.8;
      const fit = enters ? ('free' as const) : ('none' as const);
      return { point: code, said: `head ${enters ? 'free' : 'no'} 0.8`, fit, toward: null, value: 0.8 };
    }),
    fitting('F1R', 1, 'centred'),
    fitting('P1R', 4, 'centred'),
    fitting('F2R', 5, 'centred'),
    beside(0, 'rear'),
    beside(1, 'right'),
    beside(2, 'up'),
    fitting('P1L', 3, 'none'),
  ]);
}

/** A small open car on clamps, early: its levelling is under way, one corner only follows. */
export function maake(): DemoJob {
  const job = new JobBuilder(seeded(1962), '2026-11-12T08:00:00Z', {
    name: 'Måke 900 roadster',
    shell: 'Måke 900 roadster, 1962',
    identityNumber: 'M9-R-0417',
    owner: 'Ingrid Havn',
    shop: SHOP,
    driverSide: 'left',
    bench: 'Flange clamps on the rails',
    note: 'Open two-seater; figures from a sister car, measured the same way.',
  });
  bodyOf(job, 'open');
  const chart = maakeChart();
  job.reference('sisterCar', 'Sister roadster', 'Measured on the same clamps in March 2026', 0.8, 0, job.referenceId);
  job.chart(chart);
  const steps = defaultSteps(job);
  inTurn(job);
  job.wait(30).log('finding', ALVA!, 'Sills sound, floor patched behind the seats; doors drop a little.', '', []);
  for (const step of steps.slice(0, 2)) job.wait(20).stepEvent(step, 'done', ALVA!);
  job.wait(60).stepEvent(steps[2]!, 'begun', NILS!, 'levelling on the clamps');
  setUpOn(job, BENCHES.clamps, {
    ...{ suspension: 'off', place: [700, 0, 320], kilograms: 172, tickedBy: NILS! },
    mounts: [
      ['Front left clamp', [860, -652, 160]],
      ['Front right clamp', [860, 652, 160]],
      ['Rear left clamp', [1700, -655, 160]],
      ['Rear right clamp', [1700, 655, 160]],
    ],
  });
  const controls = ['F2L', 'F2R', 'S1L', 'S1R', 'S2L', 'S2R', 'C1L', 'C1R'];
  // The rear stands 4 mm in a metre high, and the rear right corner is let down so far that the shell twists.
  const twisted = (point: ChartDraft['points'][number]): Vector => {
    const [x, y, z] = positionOf(point);
    return [x, y, z - (7 * Math.max(0, x - 860) * (y + 650)) / (840 * 1300)];
  };
  const places = placesOf(chart, twisted, { turn: [0.0006, -0.004, 0.001], shift: [1.5, 2.4, 320.4] });
  const round = job.round(
    'Levelling',
    'asFound',
    RONJA!,
    'heightStick',
    13,
    { kind: 'sillClamps', suspension: 'off', note: 'Four clamps on the flange' },
    controls,
  );
  for (const code of controls) job.readPosition(round, RONJA!, code, places.get(code)!, 'h');
  return { folder: 'maake', rows: job.rows, pictures: [], truth: places };
}
