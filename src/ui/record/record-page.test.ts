import { Job } from '@/core/shell/job/job';
import { createElement } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { buildRecord } from '@/core/report/record/record';
import { demoRows } from '../../../tests/support/demo-rows';
import { rendered, textOf } from '../../../tests/support/render';
import { RecordPage } from './record-page';

vi.mock('next/navigation', () => ({ useRouter: () => ({ push: () => undefined, refresh: () => undefined }) }));

const lodd = demoRows('lodd');
const [job] = lodd.jobs;
const record = buildRecord(Job.of(lodd), '2026-11-24T12:00:00.000Z');
const signing = () => Promise.resolve({ ok: true, value: { number: 1 } } as const);
const page = (part: Partial<Parameters<typeof RecordPage>[0]> = {}) =>
  createElement(RecordPage, {
    jobId: job!.id,
    record,
    signatures: [],
    signing: { signRecord: signing, asksPassphrase: false },
    ...part,
  });

describe('the record on the screen', () => {
  const html = rendered(page());
  const text = textOf(html);

  it('names the car, the bench and what it was judged by', () => {
    for (const each of [job!.name, job!.owner, job!.bench]) expect(text).toContain(each);
    expect(text).toMatch(/Judged by .*\(maker’s chart\)/);
  });

  it('says what was found, then where the shell is, then what changed', () => {
    const chapters = ['What was found: round 1', 'Where the shell is: round 3', 'What changed from round 2 to round 3'];
    const places = chapters.map((chapter) => text.indexOf(chapter));
    expect(places.every((place) => place > 0)).toBe(true);
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(text).toMatch(/The front has gone .* from the nose leg hole at the crossmember \(F2, station \d+\) forward/);
  });

  it('draws the shell and lists every dimension with its verdict', () => {
    expect(html).toContain('<svg');
    for (const { code } of record.final!.dimensions) expect(text).toContain(code);
    expect(text).toContain('inside, accepted');
  });

  it('leaves the signature open until somebody signs, and then names them', () => {
    expect(text).toContain('not signed yet');
    const signature = { number: 2, signedBy: 'Alva', signedAt: '2026-10-12T15:00:00.000Z', hash: 'ab'.repeat(32) };
    const signed = textOf(rendered(page({ signature, signatures: [signature] })));
    expect(signed).toContain('Record 2, signed');
    expect(signed).toContain('Alva, 12 Oct 2026');
    expect(signed).not.toContain('not signed yet');
  });

  it('speaks inches and American to those who do', () => {
    const american = textOf(rendered(page(), { units: 'in16', words: 'us' }));
    expect(american).toContain('Limit in');
    expect(american).toMatch(/The front has gone .*\/16 ± .* in rearward|The front has gone \d+\/\d+ ± .* in/);
  });

  it('of a job that has hardly begun is short, not broken', () => {
    const begun = { ...lodd, rounds: [], readings: [], roundControls: [], signedRecords: [], braces: [], pulls: [] };
    const bare = textOf(
      rendered(page({ record: buildRecord(Job.of({ ...begun, holds: [] }), '2026-11-24T12:00:00.000Z') })),
    );
    expect(bare).toContain('Rounds of measuring');
    expect(bare).not.toContain('Where the shell is');
  });
});
