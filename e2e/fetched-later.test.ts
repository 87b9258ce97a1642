import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();

describe('a part of the screen that cannot be fetched', () => {
  it('says so in its place; the tree goes on, and once it can be fetched a reload brings it', async () => {
    await browser.block('*/beside-*');
    await bench.open(spur, 'pellow-quay', '?lens=access');
    await bench.select('Visit');
    await bench.untilText('This part of the screen could not be fetched.');
    expect(await bench.has('button', 'Reload the page')).toBe(true);
    await bench.focusTree();
    await bench.press('n');
    await bench.press(...'Quay walk', Key.ENTER, Key.ESCAPE);
    await bench.until('the page is in the tree', async () =>
      (await bench.tree()).some((row) => row.includes('Quay walk')),
    );
    await bench.saved();
    await browser.block();
    await browser.driver.navigate().refresh();
    await bench.until('the tree is back', async () => (await bench.tree()).length > 3);
    await bench.select('Visit');
    await bench.untilText('It stands alone');
    expect((await bench.tree()).some((row) => row.includes('Quay walk'))).toBe(true);
  });
});

describe('a part of the screen in which something goes wrong', () => {
  /** Lets days fail to be written by what is fetched later, or not. */
  const breakDays = (areBroken: boolean) =>
    browser.driver.executeScript(
      `const [areBroken] = arguments;
      const all = Intl.DateTimeFormat.prototype;
      const wellMade = (window.wellMade ??= Object.getOwnPropertyDescriptor(all, 'format'));
      const get = function () {
        if (new Error().stack.includes('/beside-')) throw new Error('No days today');
        return wellMade.get.call(this);
      };
      Object.defineProperty(all, 'format', areBroken ? { configurable: true, get } : wellMade);`,
      areBroken,
    );

  it('says so in its place; the tree goes on, and the part can be tried again', async () => {
    await bench.openAnew(spur, 'pellow-quay', '?lens=access');
    await bench.select('Visit');
    await breakDays(true);
    await bench.focusTree();
    await bench.press('h');
    await bench.untilText('Something went wrong in this part of the screen.');
    await bench.focusTree();
    await bench.press('n');
    await bench.press(...'Slip walk', Key.ENTER, Key.ESCAPE);
    await bench.untilTree('the page is in the tree', (tree) => tree.some((row) => row.includes('Slip walk')));
    await bench.saved();
    await breakDays(false);
    await bench.click('button', 'Try again');
    await bench.find('combobox', 'By whom');
    await bench.untilNoText('Something went wrong');
  });
});

describe('a title in letters that are not plain', () => {
  it('gives the slug that it has everywhere, though it was typed before these letters were known', async () => {
    await browser.block('*/transliterate-*');
    await bench.openAnew(spur, 'pellow-quay', '?lens=write');
    const addressOf = (title: string) => bench.row(title);
    await bench.focusTree();
    await bench.press('n');
    await bench.press(...'Große Fähre', Key.ENTER, Key.ESCAPE);
    await bench.saved();
    expect(await addressOf('Große Fähre')).toContain('/groe-fahre');
    await browser.block();
    await browser.driver.navigate().refresh();
    await bench.untilRow('Große Fähre', /\/grosse-fahre/);
    // From here on the letters are known.
    await bench.until('all is there', () =>
      browser.driver.executeScript<boolean>(`return document.documentElement.dataset.rest === 'here'`),
    );
    await bench.focusTree();
    await bench.press('n');
    await bench.press(...'Straße', Key.ENTER, Key.ESCAPE);
    await bench.untilRow('Straße', /\/strasse/);
  });
});
