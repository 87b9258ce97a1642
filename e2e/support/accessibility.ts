import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Browser } from './browser.ts';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const ALL_RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
/** What can be otherwise in the dark. */
const RULES_OF_COLOUR = { type: 'rule', values: ['color-contrast'] };

/** Waits until the colours have passed into each other, and nothing else moves that comes to an end. */
const AT_REST = `
  const done = arguments[0];
  const moves = () => document.getAnimations().some((one) =>
    one.playState === 'running' && one.effect?.getComputedTiming().iterations !== Infinity);
  const look = () => moves() ? requestAnimationFrame(look) : done();
  requestAnimationFrame(() => requestAnimationFrame(look));`;

/**
 * What axe finds on what shows, in light and in dark: WCAG 2.2 A and AA and its best practices, as one line a fault. Where
 * a dialog stands over it, in the dialog: what is behind it is looked at by itself.
 */
export async function accessibilityFaults(browser: Browser): Promise<string[]> {
  // Away from whatever shows a tooltip.
  await browser.driver.actions().move({ x: 1, y: 1 }).perform();
  await browser.driver.executeScript(AXE);
  const found: string[] = [];
  for (const scheme of ['light', 'dark'] as const) {
    await browser.prefer(scheme);
    await browser.driver.executeAsyncScript(AT_REST);
    const faults: string[] = await browser.driver.executeAsyncScript(
      `const [rules, done] = arguments;
      axe.run(document.querySelector('[role=dialog]') ?? document, { runOnly: rules, resultTypes: ['violations'] }).then((found) =>
        done(found.violations.flatMap((rule) => rule.nodes.map((node) => rule.id + ': ' + node.html.slice(0, 160) + ' | ' + (node.failureSummary || '').split('\\n')[1]))));`,
      scheme === 'light' ? ALL_RULES : RULES_OF_COLOUR,
    );
    found.push(...faults.map((fault) => `in ${scheme}: ${fault}`));
  }
  await browser.prefer('light');
  return found;
}
