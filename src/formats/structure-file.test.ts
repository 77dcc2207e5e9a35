import { describe, expect, it } from 'vitest';
import { cutModel } from '@/core/plan/cut/cut-model';
import { Job } from '@/core/shell/job/job';
import { massOf } from '@/core/structure/shell-frame';
import { slackOf, stageStiffness } from '@/core/structure/slack';
import { frameOf } from '@/core/structure/shell-model';
import { leftSideOut } from '../../tests/support/cutting';
import { braceListCsv } from './export/brace-list-csv';
import { braceListDxf } from './export/brace-list-dxf';
import { cuttingPage } from '@/core/report/pages/cutting';
import { modelFromFile, structureDocument } from './structure-file';
import { parseShellDocument } from './shell-file';

const { rows } = leftSideOut().brace('X1', 'A3L', 'B2L', { fromOff: 5, toOff: 5 });
const job = Job.of(rows);
const cut = cutModel(job)!;
const { model } = cut.structure;
const { supports } = cut.stands;

describe('a structure as a file', () => {
  const document = structureDocument(model, supports);

  it('is what the command reads', () => {
    expect(parseShellDocument(JSON.parse(JSON.stringify(document))).ok).toBe(true);
  });

  it('comes back as stiff and as heavy, its nodes at their points', () => {
    const read = modelFromFile(JSON.stringify(document), rows.points);
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    expect(read.value.nodes.map(({ pointId }) => pointId)).toEqual(model.nodes.map(({ pointId }) => pointId));
    const [own, again] = [model, read.value].map((each) => frameOf(each, supports));
    expect(massOf(again!) / massOf(own!)).toBeCloseTo(1, 1);
    const give = (frame: typeof own) => {
      const stage = stageStiffness(frame!, []);
      if (!stage.ok) throw new Error(stage.loose.join());
      return slackOf(
        stage.value,
        cut.lengths.find(({ code }) => code === 'DL2')!,
        200,
        0,
      )!.push;
    };
    expect(give(again) / give(own)).toBeGreaterThan(0.85);
    expect(give(again) / give(own)).toBeLessThan(1.15);
  });

  it('is refused by its place where it is none', () => {
    const broken = { ...document, members: [{ ...document.members[0]!, to: 'nowhere' }] };
    const read = modelFromFile(JSON.stringify(broken), rows.points);
    expect(read.ok ? [] : read.faults.map(({ path }) => path)).toEqual(['members[0].to']);
    expect(modelFromFile('{', []).ok).toBe(false);
  });
});

describe('the braces for the saw', () => {
  const page = cuttingPage(job);

  it('are a table with a line each', () => {
    const [head, first] = braceListCsv(page.braces).split('\n');
    expect(head).toContain('cut to mm');
    expect(first).toContain('X1,A3L');
    expect(first).toContain((Math.round(page.braces[0]!.sawn! * 10) / 10).toString());
  });

  it('are a drawing: in space between their points, and laid flat at the length they are cut to', () => {
    const text = braceListDxf(page, 'Solbris');
    expect(text).toContain('BRACES');
    expect(text).toContain(`X1  A3L - B2L  ${page.braces[0]!.sawn!.toFixed(1)}`);
  });
});
