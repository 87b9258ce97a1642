import { By, Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();
await bench.askNoApproval('pellow-quay');

const MENU = 'section[aria-label="One menu"]';
/** The entries of the arranged menu as they stand in the side sheet, two spaces a level. */
const arranged = () =>
  browser.driver.executeScript<string[]>(
    `return [...document.querySelectorAll('${MENU} ol[aria-label=Entries] > li > button')].map((one) =>
       '  '.repeat((parseInt(one.style.paddingLeft) - 8) / 20) + one.innerText.split('\\n')[0])`,
  );
/** The entries of a menu that follows the tree, in one list. */
const following = () =>
  browser.driver.executeScript<string[]>(
    `return [...document.querySelectorAll('${MENU} ol:not([aria-label]) button')].map((one) => one.innerText.replace(/\\n/g, ' '))`,
  );
const untilArranged = (what: string, holds: (entries: string[]) => boolean) =>
  bench.until(what, async () => holds(await arranged()));

describe('whether labels fit', () => {
  /** What the side sheet says of the menu that is chosen. */
  const said = async (menu: RegExp) => {
    await bench.choose('Menu', menu);
    const text = () =>
      browser.driver.executeScript<string>(
        `return document.querySelector('section[aria-label="Whether it fits"]')?.innerText ?? ''`,
      );
    await bench.until('it is measured', async () => /in the (header|footer)|beside the text/i.test(await text()));
    const lines = (await text()).split('\n');
    /** The sentences under the line that names a screen. */
    return (screen: string) => {
      const from = lines.findIndex((line) => line.startsWith(`On ${screen} screens`)) + 1;
      const until = lines.findIndex((line, index) => index > from && line.startsWith('On '));
      return from === 0 ? [] : lines.slice(from, until === -1 ? undefined : until);
    };
  };

  it('is said as the visitors’ page has it, on wide and on narrower screens', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=menus');
    const main = await said(/^Main menu/);
    const side = await said(/^Section menu/);
    for (const [screen, width] of [
      ['wide', 1280],
      ['middle', 800],
    ] as const) {
      await browser.resize(width, 800);
      await browser.driver.get(`${spur.live}/pellow-quay/courses`);
      const rows = await browser.driver.executeScript<string[][]>(
        `const rows = new Map();
         for (const one of document.querySelectorAll('.entries > li'))
           rows.set(one.offsetTop, [...(rows.get(one.offsetTop) ?? []), one.querySelector('a, .text').firstChild.textContent.trim()]);
         return [...rows.values()]`,
      );
      const words = `It takes ${rows.length} rows: ‘${rows[1]?.[0]}’ begins the second.`;
      expect(main(screen).filter((line) => line.includes('rows:'))).toEqual(rows.length > 1 ? [words] : []);
      const wrapped = await browser.driver.executeScript<string[]>(
        `return [...document.querySelectorAll('nav[aria-label=Section] a')].filter((one) => one.getBoundingClientRect().height > 45).map((one) => one.firstChild.textContent.trim())`,
      );
      const listed = side(screen).map((line) => /‘(.*?)’ takes/.exec(line)?.[1]);
      const here = await browser.driver.executeScript<string[]>(
        `return [...document.querySelectorAll('nav[aria-label=Section] a')].map((one) => one.firstChild.textContent.trim())`,
      );
      expect(listed.filter((label) => here.includes(label ?? '')).sort()).toEqual(wrapped.sort());
    }
    await browser.resize(1280, 800);
  });
});

describe('menus', () => {
  it('have a new page at once where they follow the tree, and propose it where they were arranged by hand', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=menus');
    await bench.select('Long courses');
    await bench.press('n');
    await bench.press(...'Weekend courses', Key.ENTER, Key.ESCAPE);
    await bench.saved();
    await bench.until('the main menu has it', async () => (await following()).includes('1.2 Weekend courses'));
    await bench.untilRow('Weekend courses', /1\.2 .*1\.2 .*Proposed/);
    await bench.choose('Menu', /^Footer menu/);
    await bench.untilText('4 differences from the tree');
    await bench.untilText('Put ‘Weekend courses’ after ‘Long courses’, as in the tree');
  });

  it('take a proposal, or decline it for good, with what changes shown before', async () => {
    const take = await bench.find('button', /^Take: Put ‘Weekend courses’/);
    await browser.driver.actions().move({ origin: take }).perform();
    await bench.until('the strip says it', async () =>
      /1 entry comes into the Footer menu|Footer menu: comes in/.test(await bench.strip()),
    );
    await take.click();
    await untilArranged('it stands where the tree has it', (entries) =>
      entries.join().startsWith('Courses,  Long courses,  Weekend courses,  Short courses'),
    );
    await bench.untilText('3 differences from the tree');
    await bench.click('button', /^Decline: Rename it to ‘School shop’/);
    await bench.untilText('2 differences from the tree');
    await bench.click('button', 'Take all 2');
    await bench.untilText('Nothing to settle: the menu matches the tree.');
    await bench.saved();
    await bench.open(spur, 'pellow-quay', '?lens=menus');
    await bench.choose('Menu', /^Footer menu/);
    await bench.untilText('Nothing to settle: the menu matches the tree.');
    expect(await arranged()).toContain('  Chandlery');
  });

  it('are arranged by the keys that move pages, and no page moves', async () => {
    const entry = async (name: string) => {
      for (const one of await browser.driver.findElements(By.css(`${MENU} ol[aria-label=Entries] button`)))
        if ((await one.getText()).startsWith(name)) return one;
      throw new Error(`No entry ${name}`);
    };
    await (await entry('News')).click();
    await bench.chord(Key.CONTROL, Key.ARROW_UP);
    await untilArranged('it stands first', (entries) => entries[entries.indexOf('On the quay') + 1] === '  News');
    await bench.press('[');
    await untilArranged('it is lifted out', (entries) => entries.includes('News'));
    await bench.press(Key.DELETE);
    await untilArranged('it is taken out', (entries) => !entries.some((one) => one.trim() === 'News'));
    // It stands in the main menu as before: the page has not moved.
    await bench.untilRow('News', /^News In 7 1 Not added/);
    await bench.saved();
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'z');
    await untilArranged('undo brings the entry back', (entries) => entries.includes('News'));
  });

  it('are arranged by dragging, with where the entry lands drawn before', async () => {
    const rows = await browser.driver.findElements(By.css(`${MENU} ol[aria-label=Entries] button`));
    const names = await arranged();
    const from = rows[names.indexOf('  Evening classes')]!;
    const to = rows[names.indexOf('  Long courses')]!;
    await browser.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', to);
    const actions = browser.driver.actions({ async: true });
    await actions.move({ origin: from }).press().perform();
    await actions.move({ origin: to, y: -4 }).perform();
    await actions.move({ origin: to, y: -6 }).perform();
    await bench.untilText('moves the entry only');
    await actions.release().perform();
    await untilArranged('it stands before the others', (entries) => entries[1] === '  Evening classes');
  });

  it('leave a page out as an exception, which the tree keeps', async () => {
    await bench.choose('Menu', /^Main menu/);
    await bench.select('Apply');
    await bench.until('the entry is there', async () => (await following()).includes('2 Apply'));
    await bench.click('button', /^Main menu: Apply, 2/);
    await bench.click('menuitem', 'Leave it out here');
    await bench.untilRow('Apply', /Left out here/);
    await bench.until('it is left out', async () => !(await following()).includes('2 Apply'));
    await bench.saved();
  });
});

describe('a trail', () => {
  it('that is set on a layout reaches its pages, on the visitors’ side too', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=menus');
    await bench.select('Courses');
    await bench.click('button', /^Layouts/);
    await bench.click('button', /^Standard/);
    await bench.untilText('marked in the tree');
    const own = await bench.find('checkbox', 'Trails of its own');
    await own.click();
    await bench.fill('Words before the trail', `You stand here:${Key.ENTER}`);
    await bench.until('the sample shows them', async () =>
      /You stand here:\s*Home\s*›\s*Courses/.test(await bench.text()),
    );
    await bench.click('button', 'Close layouts');
    await bench.until('the strip shows them', async () => (await bench.strip()).includes('You stand here:'));
    await bench.untilText('Layout: Standard');
    await bench.saved();
    await bench.click('button', 'Make live…');
    await bench.click('button', /^Make \d+ (pages )?live|^Make \d+ pages live/);
    await bench.until('visitors have it', async () => {
      const page = await fetch(`${spur.live}/pellow-quay/courses/short-courses`);
      return (await page.text()).includes('<span class="lead-in">You stand here:</span>');
    });
  });
});
