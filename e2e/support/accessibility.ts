import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Browser } from './browser.ts';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const ALL_RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
/** What can be otherwise in the dark. */
const RULES_OF_COLOUR = { type: 'rule', values: ['color-contrast'] };

/** A dialog that is open: pictures of a gallery wait in theirs. */
const DIALOG = '[role=dialog]:not([popover]), [role=dialog]:popover-open';

/** Colours change at once from here on: what passes into something else could be looked at halfway. */
const WITHOUT_TRANSITIONS = `
  const sheet = new CSSStyleSheet();
  sheet.replaceSync('*, *::before, *::after { transition: none !important; }');
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];`;

/** Waits until nothing moves that comes to an end. */
const AT_REST = `
  const done = arguments[0];
  const moves = () => document.getAnimations().some((one) =>
    one.playState === 'running' && one.effect?.getComputedTiming().iterations !== Infinity);
  const look = () => moves() ? requestAnimationFrame(look) : done();
  requestAnimationFrame(() => requestAnimationFrame(look));`;

/**
 * Words that can hardly be read: less than 4.5 to 1 (WCAG 2.2, 1.4.3). Axe does not tell where colours are forced, since it goes by
 * the colour that a glyph is filled with, which the browser reports as the author gave it.
 */
const FAINT_WORDS = `
  const channels = (colour) => colour.match(/[\\d.]+/g).map(Number);
  const light = (rgb) => {
    const [r, g, b] = rgb.map((value) => (value /= 255) <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4);
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  };
  const over = (top, alpha, ground) => top.map((value, at) => value * alpha + ground[at] * (1 - alpha));
  const groundOf = (element) => {
    if (!element) return [255, 255, 255];
    const [r, g, b, alpha = 1] = channels(getComputedStyle(element).backgroundColor);
    return alpha === 1 ? [r, g, b] : over([r, g, b], alpha, groundOf(element.parentElement));
  };
  const faults = [];
  for (const element of (document.querySelector('${DIALOG}') ?? document.body).querySelectorAll('*:not(svg *, script, style, option)')) {
    const says = [...element.childNodes].some((node) => node.nodeType === 3 && node.data.trim() !== '');
    if (!says || !element.checkVisibility({ visibilityProperty: true }) || element.closest(':disabled, [inert], [data-disabled]')) continue;
    const box = element.getBoundingClientRect();
    if (box.width < 2 || box.height < 2) continue;
    const ground = groundOf(element);
    const [r, g, b, alpha = 1] = channels(getComputedStyle(element).color);
    const [dark, bright] = [light(over([r, g, b], alpha, ground)), light(ground)].sort((one, other) => one - other);
    const ratio = (bright + 0.05) / (dark + 0.05);
    if (ratio < 4.5) faults.push(ratio.toFixed(2) + ': ' + element.outerHTML.slice(0, 160));
  }
  return faults;`;

/**
 * What axe finds on what shows, in light, in dark and in forced colours: WCAG 2.2 A and AA and its best practices, as one line a fault. Where
 * a dialog stands over it, in the dialog: what is behind it is looked at by itself.
 * @param of light alone where the same was looked at in all colours at another size
 */
export async function accessibilityFaults(
  browser: Browser,
  of: 'in all colours' | 'in light' = 'in all colours',
): Promise<string[]> {
  // Away from whatever shows a tooltip.
  await browser.driver.actions().move({ x: 1, y: 1 }).perform();
  if (await browser.driver.executeScript<boolean>('return window.axe === undefined'))
    await browser.driver.executeScript(`${AXE};${WITHOUT_TRANSITIONS}`);
  const found: string[] = [];
  for (const scheme of of === 'in light' ? (['light'] as const) : (['light', 'dark'] as const)) {
    await browser.prefer(scheme);
    await browser.driver.executeAsyncScript(AT_REST);
    const faults: string[] = await browser.driver.executeAsyncScript(
      `const [rules, done] = arguments;
      axe.run(document.querySelector('${DIALOG}') ?? document, { runOnly: rules, resultTypes: ['violations'] }).then((found) =>
        done(found.violations.flatMap((rule) => rule.nodes.map((node) => rule.id + ': ' + node.html.slice(0, 160) + ' | ' + (node.failureSummary || '').split('\\n')[1]))));`,
      scheme === 'light' ? ALL_RULES : RULES_OF_COLOUR,
    );
    found.push(...faults.map((fault) => `in ${scheme}: ${fault}`));
  }
  if (of === 'in light') return found;
  await browser.prefer('forced');
  await browser.driver.executeAsyncScript(AT_REST);
  const faint: string[] = await browser.driver.executeScript(FAINT_WORDS);
  found.push(...faint.map((fault) => `in forced colours: ${fault}`));
  await browser.prefer('light');
  return found;
}
