import { Job } from '../shell/job/job';
import { describe, expect, it } from 'vitest';
import { demoRows } from '../../../tests/support/demo-rows';
import { position } from '../maths/geometry/vector';
import { ladderOf } from './ladder';
import { braceGeometry, braceState, lineGeometry, pullProgress } from '../findings/brace-pull';
import { compareRounds } from '../findings/change';
import { judgeRound } from '../round/judge/judge-round';
import { judgeSeams, pairSeams } from '../round/judge/seams';
import { recordDocument } from '../shell/record-document';
import { foundSentences } from '../report/record/found';
import { buildRecord, figureOfRecord } from '../report/record/record';
import { referenceText } from '../report/vocabulary/words';
import { daySheet, doneBetween } from './day';

const solbris = demoRows('solbris');
const lodd = demoRows('lodd');
const kvist = demoRows('kvist');

describe('the page at the end of a day', () => {
  const day = daySheet(Job.of(solbris));

  it('says what moved and after which step', () => {
    expect(day.moved!.change.earlier.name).toBe('As found');
    expect(day.moved!.after.join()).toMatch(/brace X1/);
  });

  it('says what holds the shell tonight, with the dimensions each brace is for', () => {
    expect(day.holding.map(({ brace }) => brace.code)).toEqual(['X1', 'X2', 'X3']);
    expect(day.holding[0]!.dimensions.map(({ code }) => code)).toEqual(['DL1', 'DL2']);
  });

  it('names the readings the rest contradicts, with their likely cause', () => {
    expect(day.contradicted.map(({ subject }) => subject)).toEqual(['S1R – S3L', 'F2L – R4L']);
    expect(day.contradicted[1]!.cause).toContain('100 mm mark');
  });

  it('knows what is first, curing and missing', () => {
    expect(day.tomorrow.first?.step.title).toMatch(/Fit the braces/);
    expect(day.tomorrow.curing).toHaveLength(1);
    expect(day.tomorrow.missing).toHaveLength(1);
  });

  it('has something to say of a job with nothing located, and of one that is finished', () => {
    expect(daySheet(Job.of(kvist)).moved).toBeUndefined();
    expect(daySheet(Job.of(lodd)).tomorrow.first).toBeUndefined();
    expect(doneBetween(Job.of(lodd), lodd.rounds[0]!, lodd.rounds[1]!).length).toBeGreaterThan(0);
  });
});

describe('the ladder', () => {
  it('stands on the first rung with a step that is not finished', () => {
    expect(ladderOf(Job.of(solbris)).here).toBe('brace');
    expect(ladderOf(Job.of(lodd)).here).toBeUndefined();
    const rungs = ladderOf(Job.of(solbris)).rungs.map(({ state }) => state);
    expect(rungs.slice(0, 4)).toEqual(['done', 'done', 'done', 'here']);
    expect(new Set(rungs.slice(4))).toEqual(new Set(['ahead']));
  });
});

describe('two rounds compared', () => {
  const [tacked, cold] = [lodd.rounds[1]!, lodd.rounds[2]!].map((round) => judgeRound(Job.of(lodd), round));
  const change = compareRounds(Job.of(lodd), tacked!, cold!);

  it('finds the one dimension that drifted between tacked and cold', () => {
    const drifted = change.dimensions.reduce((a, b) => (Math.abs(b.change) > Math.abs(a.change) ? b : a));
    expect(drifted.dimension.code).toBe('NW1');
    expect(Math.abs(drifted.change)).toBeGreaterThan(1.2);
    expect(change.dimensions.filter(({ verdict }) => verdict === 'held').length).toBeGreaterThan(8);
  });

  it('turns round with the order of the rounds', () => {
    const back = compareRounds(Job.of(lodd), cold!, tacked!);
    back.dimensions.forEach((each, i) => expect(each.change).toBeCloseTo(-change.dimensions[i]!.change, 9));
  });

  it('warns of a support that is not the same', () => {
    const other = lodd.supports.map((support) =>
      support.id === cold!.round.supportId ? { ...support, kind: 'stands' as const } : support,
    );
    expect(compareRounds(Job.of({ ...lodd, supports: other }), tacked!, cold!).cautions).toContain('support');
  });
});

describe('gaps', () => {
  it('stand left beside right, with the taper along each seam', () => {
    const judgement = judgeRound(Job.of(solbris), solbris.rounds[0]!);
    const pairs = pairSeams(judgeSeams(Job.of(solbris), judgement));
    const doors = pairs.find(({ left }) => left?.seam.code === 'DBL')!;
    expect(doors.right?.seam.code).toBe('DBR');
    expect(Math.abs(doors.left!.gap!.taper!.value)).toBeGreaterThan(Math.abs(doors.right!.gap!.taper!.value));
    expect(doors.left!.stations.some(({ judged }) => judged?.verdict === 'outside')).toBe(true);
  });
});

describe('braces and pulls', () => {
  it('have length, rise and heading by the line between their ends', () => {
    const { length, rise, heading } = lineGeometry(position([0, 0, 0]), position([300, 400, 500]));
    expect(length).toBeCloseTo(Math.hypot(300, 400, 500), 9);
    expect(rise).toBeCloseTo(45, 9);
    expect(heading).toBeCloseTo(53.1301, 4);
  });

  it('are measured where the round located both ends, charted elsewhere', () => {
    const judgement = judgeRound(Job.of(solbris), solbris.rounds[0]!);
    const brace = Job.of(solbris).braces.find(({ code }) => code === 'X3')!;
    expect(braceState(Job.of(solbris), brace)).toBe('fitted');
    const measured = braceGeometry(brace, judgement, judgement.references)!;
    const charted = braceGeometry(brace, undefined, judgement.references)!;
    expect([measured.from, charted.from]).toEqual(['round', 'reference']);
    expect(Math.abs(measured.length - charted.length)).toBeLessThan(10);
  });

  it('spring back by what is released less what is under load', () => {
    const pull = solbris.pulls[0]!;
    const round = solbris.rounds.find(({ id }) => id === pull.roundId)!;
    const [progress] = pullProgress(Job.of(solbris), pull, judgeRound(Job.of(solbris), round));
    const [cycle] = progress!.cycles;
    expect(cycle!.springBack).toBeCloseTo(cycle!.released! - cycle!.underLoad!, 9);
    expect(cycle!.gained! + progress!.left!).toBeCloseTo(pull.aimX, 6);
  });
});

describe('the record', () => {
  const record = buildRecord(Job.of(lodd), '2026-11-24T12:00:00.000Z');

  it('holds rounds, figures, changes and what was accepted with its reason', () => {
    expect(record.rounds).toHaveLength(3);
    expect(record.final!.dimensions.find(({ code }) => code === 'NW1')!.accepted).toBe(true);
    expect(record.changes!.rows.length).toBeGreaterThan(10);
  });

  it('says what was found before anything was done, in the reader’s words and units', () => {
    const { found } = buildRecord(Job.of(solbris), '2026-11-24T12:00:00.000Z');
    expect(found).toMatchObject({ round: 1, sections: [{ section: 'rear' }] });
    const words = {
      length: (mm: number) => mm.toFixed(1),
      uncertainty: (mm: number) => mm.toFixed(1),
      unit: 'mm',
      name: (text: string) => text.toUpperCase(),
      station: (mm: number) => (mm / 25.4).toFixed(0),
    };
    const sentences = foundSentences(found!, words);
    expect(sentences[0]).toMatch(
      /^The REAR has gone 8\.\d ± 0\.\d mm forward, .* from the rEAR SEAT CROSSMEMBER HOLE \(C1, station \d\d\)/,
    );
    // A record signed before places were told apart from their words is read as it was signed.
    const signed = {
      ...found!,
      sections: found!.sections.map(({ beside: _, ...rest }) => ({ ...rest, near: 'the bend' })),
    };
    expect(foundSentences(signed, words)[0]).toContain(' from THE BEND ');
    expect(sentences.at(-1)).toMatch(/^B1L stands 7\.\d ± \d\.\d mm inward by itself/);
    // It survives being written and read, as a signed record is.
    expect(recordDocument.parse(JSON.parse(JSON.stringify(buildRecord(Job.of(solbris), 'now')))).found).toEqual(found);
  });

  it('says nothing of a pattern where too few points were located to look for one', () => {
    const few = new Set(solbris.points.slice(0, 6).map(({ id }) => id));
    const ends = (row: { pointId: string | null; toPointId?: string | null }) => [row.pointId, row.toPointId ?? null];
    const readings = solbris.readings.filter((each) => ends(each).every((id) => id === null || few.has(id)));
    const roundControls = solbris.rounds.flatMap((round) =>
      [...few].map((pointId) => ({ roundId: round.id, pointId })),
    );
    expect(buildRecord(Job.of({ ...solbris, readings, roundControls }), 'now').found).toBeUndefined();
  });

  it('names only the references in use, the edition where there were others', () => {
    const [chart] = lodd.references.filter(({ kind }) => kind === 'chart');
    const second = { ...chart!, id: 'second', edition: 2, editionOf: chart!.id, inUse: true };
    const editions = { ...lodd, references: [{ ...chart!, inUse: false }, second] };
    expect(buildRecord(Job.of(editions), 'now').references.map(referenceText)).toEqual([
      `${chart!.name} (maker’s chart, edition 2)`,
    ]);
  });

  it('draws the points it judges', () => {
    const figure = figureOfRecord(record);
    expect(figure.points.length).toBe(record.final!.points.length);
    expect(figure.lines.length).toBeGreaterThan(10);
  });
});
