import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from 'puppeteer-core';

const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Serious and critical accessibility faults of the page as it stands, as lines for people. */
export async function seriousFaults(page: Page): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(source);
  return page.evaluate(async () => {
    const { axe } = window as unknown as {
      axe: {
        _audit: { rules: { id: string; impact?: string; tags: string[]; enabled: boolean }[] };
        run: (options: object) => Promise<{
          violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
        }>;
      };
    };
    // of the rules that are asked by themselves, those that find nothing serious are not: they take a third of the time
    const values = axe._audit.rules
      .filter(r => r.enabled && !r.tags.some(t => t === 'experimental' || t === 'deprecated'))
      .filter(r => r.impact !== 'minor' && r.impact !== 'moderate')
      .map(r => r.id);
    const { violations } = await axe.run({
      resultTypes: ['violations'],
      runOnly: { type: 'rule', values },
    });
    return violations
      .filter(v => v.impact === 'serious' || v.impact === 'critical')
      .flatMap(v =>
        v.nodes.slice(0, 4).map(n => `${v.id}: ${n.html.slice(0, 160)} | ${n.failureSummary.slice(0, 200)}`),
      );
  });
}
