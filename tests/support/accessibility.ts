import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';

const CHECKER = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');

interface Violation {
  id: string;
  nodes: { target: string[]; failureSummary?: string }[];
}

/** What the checker finds wrong with a page; the dark sheet differs by its tones alone. */
export async function faultsOf(page: Page, sheet: 'day' | 'dark'): Promise<string[]> {
  // Loaded once a page: the dark sheet is the same page in other tones.
  if (sheet === 'day') await page.evaluate(CHECKER);
  const violations = await page.evaluate(
    async (rules) => {
      const { axe: checker } = globalThis as unknown as {
        axe: { run(context: Document, options: object): Promise<{ violations: Violation[] }> };
      };
      return (await checker.run(document, rules)).violations;
    },
    sheet === 'dark' ? { runOnly: { type: 'rule', values: ['color-contrast'] } } : {},
  );
  return violations.map(
    ({ id, nodes }) =>
      `${id}: ${nodes
        .map((node) => node.target.join(' '))
        .slice(0, 3)
        .join(' | ')}`,
  );
}
