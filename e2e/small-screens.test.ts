import { Key } from 'selenium-webdriver';
import { beforeAll, describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();
const LENSES = ['plan', 'write', 'access', 'menus', 'publish', 'checks'] as const;

/** How many rows of the tree are in sight as a whole. */
const rowsInSight = () =>
  browser.driver.executeScript<number>(`
    const tree = document.querySelector('[role=treegrid]').getBoundingClientRect();
    const bottom = Math.min(tree.bottom, innerHeight);
    return [...document.querySelectorAll('[role=treegrid] [role=row][aria-level]')].filter((row) => {
      const { top, bottom: end } = row.getBoundingClientRect();
      const at = document.elementFromPoint(60, (top + end) / 2);
      return top >= tree.top && end <= bottom && row.contains(at);
    }).length;`);
const hasFocus = (selector: string) =>
  browser.driver.executeScript<boolean>(`return document.activeElement.matches(arguments[0])`, selector);

describe('at twice the size on a small screen (640 × 400)', () => {
  beforeAll(() => browser.resize(640, 400));

  it.each(LENSES)('eight rows and more are in sight through the %s lens', async (lens) => {
    await bench.open(spur, 'pellow-quay', `?lens=${lens}&page=pq012`);
    expect(await rowsInSight()).toBeGreaterThanOrEqual(8);
  });

  it('what is looked for is typed in the whole bar, and Escape gives it back', async () => {
    await bench.focusTree();
    await bench.press('/', 'evening');
    await bench.untilText('‘evening’');
    await bench.press(Key.ESCAPE);
    await bench.until('the tree has the keyboard', () => hasFocus('[data-tree-view]'));
    expect(await rowsInSight()).toBeGreaterThanOrEqual(8);
  });

  it('a dialog scrolls as a whole, from its heading to its last button', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish&page=pq012');
    await bench.focusTree();
    await bench.press('l');
    const dialog = await bench.find('dialog', /pages/i);
    const places = () =>
      browser.driver.executeScript<boolean[]>(
        `const see = (one) => { const { top, bottom } = one.getBoundingClientRect(); return top >= 0 && bottom <= innerHeight; };
        const [dialog] = arguments; return [see(dialog.querySelector('h2')), see([...dialog.querySelectorAll('button')].at(-1))];`,
        dialog,
      );
    expect(await places()).toEqual([true, false]);
    await browser.driver.executeScript('arguments[0].scrollTop = 1e6', dialog);
    expect(await places()).toEqual([false, true]);
    await bench.press(Key.ESCAPE);
  });
});

describe('on a telephone (390 × 800) nothing is out of reach:', () => {
  beforeAll(async () => {
    await browser.resize(390, 800);
    await bench.open(spur, 'pellow-quay', '?lens=plan&page=pq012');
  });

  it('a page is moved to another place', async () => {
    await bench.click('button', 'More');
    await bench.click('menuitem', /^Move to/);
    await bench.find('dialog', /^Move ‘Short courses’/);
    await bench.press(Key.ESCAPE);
  });

  it('columns are chosen', async () => {
    await bench.click('button', 'Columns');
    await bench.click('checkbox', 'Owner');
    await bench.until('the column is gone', async () => !(await bench.text()).includes('Tobias Wren'));
    await bench.click('checkbox', 'Owner');
    await bench.press(Key.ESCAPE);
  });

  it('the tree is seen as a map, as rows, and as both', async () => {
    await bench.click('button', 'As a map');
    await bench.find('treeitem', /Short courses/);
    await bench.click('button', 'More');
    await bench.click('menuitem', 'Rows and map beside each other');
    await bench.find('row', /^Short courses/);
    await bench.find('treeitem', /Short courses/);
    await bench.click('button', 'As rows');
  });

  it('the lists of keys and of commands open', async () => {
    await bench.click('button', 'More');
    await bench.click('menuitem', /^Keys/);
    await bench.find('dialog', 'Keys');
    await bench.press(Key.ESCAPE);
    await bench.click('button', 'More');
    await bench.click('menuitem', /^Commands/);
    await bench.untilText('Pages and keys');
    await bench.press(Key.ESCAPE);
  });

  it.each(LENSES)('the %s lens is chosen, with what it offers', async (lens) => {
    await bench.click('button', /^Lens:/);
    await bench.click('button', new RegExp(`^${lens}`, 'i'));
    await bench.find('button', new RegExp(`^Lens: ${lens}`, 'i'));
  });

  it('what a lens offers opens from its name', async () => {
    await bench.click('button', /^Lens:/);
    await bench.click('button', /^Publish/);
    await bench.click('button', /^Lens:/);
    await bench.click('button', /^Redirects \(\d+ not found\)/);
    await bench.find('button', 'Close redirects');
    await bench.press(Key.ESCAPE);
  });

  it('the side sheet takes the place of the tree, and Escape brings the tree back', async () => {
    await bench.click('button', 'Page');
    await bench.until('the keyboard came along', () => hasFocus('main button'));
    expect(await bench.text()).toContain('Back to the tree');
    await bench.press(Key.ESCAPE);
    await bench.until('the tree has the keyboard', () => hasFocus('[data-tree-view]'));
    expect(await rowsInSight()).toBeGreaterThanOrEqual(8);
  });

  it('so does the history, and the tree as it was shows behind it', async () => {
    await bench.click('button', 'More');
    await bench.click('menuitem', /^History/);
    await (await bench.find('slider', 'The tree as it was')).sendKeys(Key.ARROW_LEFT);
    await bench.click('button', 'Back to the tree');
    await bench.untilText('The tree as it was.');
    await bench.click('button', 'Back to now');
  });
});

describe('the bar on top', () => {
  beforeAll(() => bench.open(spur, 'pellow-quay', '?lens=write&page=pq012'));

  it.each([768, 900, 1023, 1024, 1100, 1279, 1280])(
    'has nothing over something else, %i pixels wide',
    async (width) => {
      await browser.resize(width, 1024);
      const overlaps = await browser.driver.executeScript<string[]>(`
      const parts = [...document.querySelectorAll('header button, header input')].filter((one) => one.checkVisibility())
        .map((one) => ({ one, name: one.title || one.ariaLabel || one.textContent, box: one.getBoundingClientRect() }));
      const outside = parts.filter(({ box }) => box.left < 0 || box.right > innerWidth).map(({ name }) => name);
      const meet = (a, b) => a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 1 && b.top < a.bottom - 1;
      return [...outside, ...parts.flatMap((a, at) => parts.slice(at + 1)
        .filter((b) => !a.one.contains(b.one) && meet(a.box, b.box)).map((b) => a.name + ' and ' + b.name))];`);
      expect(overlaps).toEqual([]);
    },
  );
});

describe('in forced colours', () => {
  it('what is on looks otherwise than what is off', async () => {
    await browser.resize(1280, 800);
    await browser.prefer('forced');
    await bench.open(spur, 'pellow-quay', '?lens=plan&page=pq012');
    const looks = await browser.driver.executeScript<Record<string, string[]>>(`
      const look = (one) => getComputedStyle(one).backgroundColor + getComputedStyle(one).color;
      const of = (on, off) => [on, off].map((selector) => look(document.querySelector(selector)));
      return {
        lens: of('nav[aria-label=Lenses] [aria-current=true]', 'nav[aria-label=Lenses] button:not([aria-current])'),
        view: of('[aria-label=View] [aria-pressed=true]', '[aria-label=View] [aria-pressed=false]'),
        row: of('[role=row][aria-selected=true]', '[role=row][aria-selected=false]'),
      };`);
    for (const [on, off] of Object.values(looks)) expect(on).not.toBe(off);
    await browser.prefer('light');
  });
});
