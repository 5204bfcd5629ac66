import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from 'puppeteer-core';

const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What stands around a stage, the same whatever is opened on it. */
const AROUND = ['header', 'nav[aria-label="Stages"]', 'footer[aria-label="Summary"]'];

/**
 * Serious and critical accessibility faults of the page as it stands, as lines for people; `within`: but for what stands around the stage,
 * where that was looked at before.
 */
export async function seriousFaults(page: Page, { within = false } = {}): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(source);
  return page.evaluate(
    async around => {
      const { axe } = window as unknown as {
        axe: {
          _audit: { rules: { id: string; impact?: string; tags: string[]; enabled: boolean }[] };
          run: (
            where: { exclude: string[] },
            options: object,
          ) => Promise<{
            violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
          }>;
        };
      };
      // of the rules that are asked by themselves, those that find nothing serious are not: they take a third of the time
      const values = axe._audit.rules
        .filter(r => r.enabled && !r.tags.some(t => t === 'experimental' || t === 'deprecated'))
        .filter(r => r.impact !== 'minor' && r.impact !== 'moderate')
        .map(r => r.id);
      const { violations } = await axe.run(
        { exclude: around },
        {
          resultTypes: ['violations'],
          runOnly: { type: 'rule', values },
        },
      );
      return violations
        .filter(v => v.impact === 'serious' || v.impact === 'critical')
        .flatMap(v =>
          v.nodes
            .slice(0, 4)
            .map(n => `${v.id}: ${n.html.slice(0, 160)} | ${n.failureSummary.slice(0, 200)}`),
        );
    },
    within ? AROUND : [],
  );
}
