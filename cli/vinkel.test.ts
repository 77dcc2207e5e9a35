import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { run } from './vinkel';

const request = {
  format: 'vinkel.alignment-request/1',
  mode: 'selected',
  points: [
    { id: 'A', reference: [0, -400, 230], measured: [100, -400, 230], use: true },
    { id: 'B', reference: [0, 400, 230], measured: [100, 400, 230], use: true },
    { id: 'C', reference: [1000, 0, 150], measured: [1100, 0, 150], use: true },
    { id: 'D', reference: [2000, 0, 300], measured: [2103, 4, 300] },
  ],
};

describe('the headless command', () => {
  let folder = '';
  beforeAll(() => {
    folder = mkdtempSync(path.join(os.tmpdir(), 'vinkel-cli-'));
  });
  afterAll(() => rmSync(folder, { recursive: true }));

  /** Runs the command on a text and returns what it wrote. */
  async function command(name: string, text: string, ...options: string[]) {
    const file = path.join(folder, 'in.json');
    writeFileSync(file, text);
    let [out, error] = ['', ''];
    const exit = await run([name, file, ...options], {
      out: (written) => (out += written),
      error: (written) => (error += written),
    });
    return { exit, out, error: error.trimEnd().split('\n') };
  }
  const align = (document: unknown, ...options: string[]) => command('align', JSON.stringify(document), ...options);

  it('aligns on the selected points and leaves the others their deviation', async () => {
    const { exit, out } = await align(request);
    const answer = JSON.parse(out);
    expect(exit).toBe(0);
    expect(answer).toMatchObject({
      format: 'vinkel.alignment/1',
      used: ['A', 'B', 'C'],
      moved: [],
    });
    expect(answer.points[3].dx).toBeCloseTo(3, 9);
    expect(answer.points[3].dy).toBeCloseTo(4, 9);
    expect(answer.points[3].d).toBeCloseTo(5, 9);
    expect(answer.rms).toBeCloseTo(0, 9);
  });

  it('writes to the file it is given and nothing else', async () => {
    const target = path.join(folder, 'out.json');
    const { exit, out } = await align(request, '--out', target);
    expect([exit, out]).toEqual([0, '']);
    expect(JSON.parse(readFileSync(target, 'utf8')).format).toBe('vinkel.alignment/1');
  });

  it('names every fault of a file by its place in one run, and prints nothing', async () => {
    const points = [
      { ...request.points[0], sigma: 0 },
      { ...request.points[1], id: 'A', colour: 'red' },
      { ...request.points[2], measured: [1, 2] },
    ];
    const { exit, out, error } = await align({ ...request, points, agree: -1 });
    expect([exit, out]).toEqual([2, '']);
    const places = error.map((line) => line.split(':')[0]);
    expect(places).toEqual(
      expect.arrayContaining(['points[0].sigma', 'points[1].colour', 'points[2].measured', 'agree', 'points[1].id']),
    );
  });

  it('says line and column of what is not JSON', async () => {
    const { exit, error } = await command('align', '{\n  "format": oops\n}');
    expect(exit).toBe(2);
    expect(error[0]).toMatch(/^file: .*line 2, column 13/);
  });

  it.each([
    ['two points', request.points.slice(0, 2), /at least three points/],
    [
      'points on one line',
      [0, 1, 2].map((i) => ({ id: `${i}`, reference: [i, 0, 0], measured: [i, 0, 0], use: true })),
      /on one line/,
    ],
  ])('says what to add where %s cannot be aligned', async (_, points, reason) => {
    const { exit, out, error } = await align({ ...request, points });
    expect([exit, out, error.length]).toEqual([3, '', 1]);
    expect(error[0]).toMatch(reason);
  });

  it('refuses an unknown command, a missing file and a stray argument with its usage', async () => {
    for (const args of [['bend', 'x'], ['align'], ['align', 'a', 'b'], []]) {
      let error = '';
      expect(await run(args, { out: () => undefined, error: (text) => (error += text) })).toBe(2);
      expect(error).toContain('usage: vinkel COMMAND FILE');
    }
    expect(await run(['align', path.join(folder, 'none.json')], { out: () => undefined, error: () => undefined })).toBe(
      2,
    );
  });
});
