import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { seeded } from '@/core/maths/random/seeded';
import { shellNet } from '@/core/practice/shell-net';
import { computeAdjustment, parseSurvey, surveyDocumentOf, type SurveyDocument } from './survey';

const sample = (file: string): unknown => JSON.parse(readFileSync(`tests/samples/${file}`, 'utf8'));
const parsed = (value: unknown): SurveyDocument => {
  const document = parseSurvey(value);
  if (!document.ok) throw new Error(JSON.stringify(document.faults));
  return document.value;
};
const faults = (value: unknown): string[] => {
  const document = parseSurvey(value);
  return document.ok ? [] : document.faults.map(({ path, message }) => `${path}: ${message}`);
};

describe('a survey document', () => {
  it.each(['rectangle', 'mixed'])('gives the figures of the sample "%s"', (name) => {
    const result = computeAdjustment(parsed(sample(`${name}.survey.json`)));
    if (!result.ok) throw new Error(result.reason);
    compare(result.value, sample(`${name}.survey.expected.json`), name);
    function compare(actual: unknown, wanted: unknown, path: string): void {
      if (typeof wanted === 'number') expect(actual, path).toBeCloseTo(wanted, 6);
      else if (wanted && typeof wanted === 'object')
        for (const [key, value] of Object.entries(wanted))
          compare((actual as Record<string, unknown>)[key], value, `${path}.${key}`);
      else expect(actual, path).toBe(wanted);
    }
  });

  it('names every fault by its place in one run', () => {
    const document = {
      format: 'vinkel.survey/1',
      points: [
        { id: 'A', x: 0, y: 0, z: 0, hold: 0 },
        { id: 'A', x: 0, y: 0, z: 'high' },
      ],
      readings: [
        { id: 'r1', kind: 'distance', from: 'A', to: 'S9L', value: 12, sigma: 0.5 },
        { id: 'r1', kind: 'height', point: 'A', value: 12, sigma: -1 },
        { id: 'r3', kind: 'distance', from: 'A', to: 'A', value: 12, sigma: 1, colour: 'red' },
      ],
    };
    expect(faults(document)).toEqual(
      expect.arrayContaining([
        'points[1].z: expected a number',
        'points[1].id: "A" stands here twice',
        'readings[0].to: no point "S9L"',
        'readings[1].id: "r1" stands here twice',
        'readings[2].to: "A" to itself is no reading',
        'readings[2].colour: unknown field',
      ]),
    );
    expect(faults(document).some((fault) => fault.startsWith('points[0].hold:'))).toBe(true);
    expect(faults(document).some((fault) => fault.startsWith('readings[1].sigma:'))).toBe(true);
    expect(faults({ ...document, format: 'vinkel.chart/1' })[0]).toMatch(/^format:/);
  });

  it('comes back from a net as it went out', () => {
    const { survey } = shellNet({ points: 8, distances: 20 }, seeded(3));
    const document = surveyDocumentOf(survey);
    expect(parsed(JSON.parse(JSON.stringify(document)))).toEqual(document);
  });
});
