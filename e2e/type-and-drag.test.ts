import { By, Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { pause } from './support/screen.ts';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();

/** Thirty pages on three levels: five sections, each with two pages that hold one or two. */
const PLAN = Array.from({ length: 5 }, (_, s) => [
  `Section ${s}`,
  `  Part ${s}a`,
  `    Leaf ${s}a`,
  `  Part ${s}b`,
  `    Leaf ${s}b`,
  `    Leaf ${s}c`,
]).flat();

const OUT = 'Shift+Tab';
/** The keys beside the letters that type a plan as a list: what comes after each title, and what ends it. */
function keysFor(plan: readonly string[]): string[][] {
  const depthOf = (line: string) => line.search(/\S/) / 2;
  return plan.map((line, at) => {
    const next = plan[at + 1];
    if (next === undefined) return [Key.ENTER, Key.ESCAPE];
    const step = depthOf(next) - depthOf(line);
    if (step === 1) return [Key.TAB];
    // Shift+Tab makes the page and goes out one level; in the empty field that follows it goes out one more.
    return step === 0 ? [Key.ENTER] : Array.from({ length: -step }, () => OUT);
  });
}

async function newSite(name: string): Promise<void> {
  await browser.driver.get(`${spur.workbench}/sites`);
  await bench.click('button', 'New site');
  await bench.fill('Name', name);
  await bench.press(Key.ENTER);
  await bench.untilText('The tree begins with one page');
}

describe('a tree', () => {
  it('of thirty pages on three levels is typed with its letters and at most 1.3 keys a page beside them', async () => {
    await newSite('Typed');
    await browser.resize(1280, 1300);
    await browser.driver.executeScript(`
      window.strokes = 0;
      window.addEventListener('keydown', (event) => {
        if (event.key.length > 1 && !['Shift', 'Control'].includes(event.key)) window.strokes += 1;
      }, true);`);
    const keys = keysFor(PLAN);
    await bench.press('n');
    for (const [at, line] of PLAN.entries()) {
      await bench.press(line.trim());
      for (const key of keys[at]!) await (key === OUT ? bench.chord(Key.SHIFT, Key.TAB) : bench.press(key));
    }
    // The page to practise on, which the site began with, stays behind them.
    await bench.untilTree('all of it is there', (tree) =>
      tree.join('\n').startsWith(`${PLAN.join('\n')}\nPractice page\n`),
    );
    const strokes = 1 + Number(await browser.driver.executeScript('return window.strokes'));
    expect(strokes / PLAN.length).toBeLessThanOrEqual(1.3);
    await bench.saved();
    await browser.resize(1280, 800);
  });

  it('is made of a pasted list, shown before it is made, with what was not understood; and one undo takes it away', async () => {
    await newSite('Pasted');
    await bench.press('l');
    await bench.fill(
      'The list',
      '# Boats\n- Small\n  - Oars\n%%%\n- Large\n    1. Masts\n<script>window.hit = 1</script>',
    );
    await bench.untilText('Line 4: %%%. No letter or digit: left out.');
    await bench.click('button', 'Make 6 pages');
    await bench.untilTree('the branch is there', (tree) =>
      tree
        .join('|')
        .startsWith('Boats|  Small|    Oars|  Large|    Masts|  <script>window.hit = 1</script>|Practice page|'),
    );
    expect(await browser.driver.executeScript('return window.hit ?? null')).toBeNull();
    await bench.saved();
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'z');
    await bench.untilText('The tree begins with one page');
  });

  it.each([
    ['100,000 lines', `'page\\n'.repeat(100000)`, /100,000 titles; at most 5,000/],
    ['a line of 1 MB', `'x'.repeat(1000000)`, /Too long for a title/],
    ['a text that is too large', `'ab\\n'.repeat(1000000)`, /3,000,000 characters; at most 2,000,000/],
    ['a depth of 500', `Array.from({ length: 500 }, (_, n) => ' '.repeat(n) + 'p' + n).join('\\n')`, /Too deep/],
    ['marks that cannot be seen', `'\\u202eabc\\u200b def'`, /Invisible characters/],
  ])('refuses or tames a paste of %s with clear words, and makes nothing by itself', async (_, made, words) => {
    await bench.open(spur, 'tern-sound');
    const before = await bench.tree();
    await bench.focusTree();
    await browser.driver.executeScript(`
      const data = new DataTransfer();
      data.setData('text/plain', ${made});
      document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));`);
    await bench.until('it says so', async () => words.test(await bench.text()));
    await bench.press(Key.ESCAPE);
    await bench.until('the tree is as it was', async () => (await bench.tree()).join() === before.join());
  });
});

/** Presses on one element, moves over another one, and stays there. */
async function carry(from: { x: number; y: number }, ...over: { x: number; y: number }[]): Promise<void> {
  let actions = browser.driver
    .actions()
    .move(from)
    .press()
    .move({ x: from.x + 4, y: from.y + 9 });
  for (const point of over) actions = actions.move({ ...point, duration: 120 });
  await actions.perform();
  await pause(250);
}
const drop = () => browser.driver.actions().release().perform();

async function pointOf(
  role: 'row' | 'treeitem',
  name: RegExp,
  x: number,
  y: number,
): Promise<{ x: number; y: number }> {
  const box = await bench.restOf(role, name);
  return { x: Math.round(x < 0 ? box.x - x : box.x + box.width * x), y: Math.round(box.y + box.height * y) };
}

describe('dragging in the sheet', () => {
  it('shows where it will hang and what changes, opens what it is held over, and Escape leaves all as it was', async () => {
    await bench.open(spur, 'pellow-quay');
    const before = await bench.tree();
    await bench.select('Course dates');
    await carry(await pointOf('row', /^Course dates/, -120, 0.5), await pointOf('row', /^Evening classes/, -160, 0.5));
    await bench.until('the strip tells', async () => /\/evening-classes\/course-dates/.test(await bench.strip()));
    await bench.untilTree('the closed branch opens', (tree) => tree.includes('    Sharpening day'));
    await browser.driver.actions().sendKeys(Key.ESCAPE).perform();
    await drop();
    await bench.until('nothing is considered any more', async () => !(await bench.strip()).includes('What changes'));
    expect((await bench.tree()).filter((row) => row.includes('Course dates'))).toEqual(
      before.filter((row) => row.includes('Course dates')),
    );
  });

  it('moves several at once to the depth that the pointer chooses, and one undo brings them back', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Course dates');
    await bench.select('Compare the courses', Key.SHIFT);
    const to = await pointOf('row', /^Entry requirements/, -50, 0.97);
    await carry(await pointOf('row', /^Course dates/, -120, 0.5), to);
    await bench.until('the strip tells', async () => /\/apply\/course-dates/.test(await bench.strip()));
    await drop();
    await bench.untilTree('both stand there', (tree) => {
      const at = tree.indexOf('  Entry requirements');
      return tree[at + 1] === '  Course dates' && tree[at + 2] === '  Compare the courses';
    });
    await bench.saved();
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'z');
    await bench.untilTree('they are back', (tree) => tree.indexOf('  Course dates') < tree.indexOf('Apply'));
  });

  it('3: taken at the title and moved straight, up or down, a page keeps its level; to the left it goes out, to the right inside', async () => {
    await bench.open(spur, 'pellow-quay');
    const titleOf = async (row: RegExp, down = 0.5, aside = 0) => {
      const { x, y } = await pointOf('row', row, -110, down);
      return { x: x + aside, y };
    };
    const lands = async (row: RegExp, to: { x: number; y: number }, where: string) => {
      await carry(await titleOf(row), to);
      await bench.until(where, async () => (await bench.text()).includes(where));
      await browser.driver.actions().sendKeys(Key.ESCAPE).perform();
      await drop();
    };
    await lands(/^Course dates/, await titleOf(/^Evening classes/, 0.4, 15), 'Inside ‘Courses’, after ‘Short courses’');
    await lands(
      /^Course dates/,
      await titleOf(/^Entry requirements/, 0.6, -15),
      'Inside ‘Apply’, after ‘Entry requirements’',
    );
    await lands(/^Course dates/, await titleOf(/^Apply/, 0.2, -10), 'Inside ‘Courses’, after');
    await lands(/^Course dates/, await titleOf(/^Apply/, 0.2, -40), 'At the top level, after ‘Courses’');
    await lands(/^Apply/, await titleOf(/^Courses/, 0.4, 20), 'At the top level, after');
    await lands(/^Apply/, await titleOf(/^Evening classes/, 0.5, 40), 'Inside ‘Evening classes’, last');
  });

  it('cannot put a branch into itself', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Apply');
    await carry(await pointOf('row', /^Apply/, -90, 0.5), await pointOf('row', /^Bursaries/, -120, 0.5));
    await drop();
    await bench.untilTree('it is where it was', (tree) => tree.indexOf('Apply') < tree.indexOf('  Bursaries'));
    expect(await bench.strip()).toContain('/apply');
  });
});

describe('the map', () => {
  it('shares its selection with the sheet, is walked by the arrow keys, and tells its nodes in words', async () => {
    await bench.open(spur, 'pellow-quay', '?view=map&page=pq012');
    await bench.find('treeitem', /^2\.2 Short courses, live, in menus, 8 pages below/);
    await bench.focusTree();
    await bench.press(Key.ARROW_DOWN);
    await bench.until('the next one is selected', async () => (await bench.strip()).includes('Evening classes'));
    await bench.press(Key.ARROW_LEFT);
    await bench.until('the one above is', async () => (await bench.strip()).includes('/courses\n'));
    await bench.press('m');
    await bench.find('treegrid', 'Pages');
    const chosen = await browser.driver.findElement(By.css('[role=row][aria-selected=true]'));
    expect(await chosen.getText()).toMatch(/^Courses/);
  });

  it('renames and adds in place', async () => {
    await bench.open(spur, 'tern-sound', '?view=map');
    await bench.focusTree();
    await bench.press(Key.HOME, Key.F2);
    await browser.driver.actions().keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform();
    await bench.press('Welcome aboard', Key.ENTER);
    await bench.find('treeitem', /^1 Welcome aboard/);
    await bench.press('n');
    await bench.press('Tide office', Key.ENTER, Key.ESCAPE);
    await bench.find('treeitem', /^2 Tide office, draft/);
    await bench.saved();
  });

  it('3: moves a page straight along its siblings to where its rail is drawn, and undo brings it back', async () => {
    await bench.open(spur, 'pellow-quay', '?view=map&page=pq012');
    await carry(
      await pointOf('treeitem', /^2\.4 Course dates/, 0.6, 0.5),
      await pointOf('treeitem', /^3\.2 Entry requirements/, 0.5, 0.6),
    );
    await bench.until('the strip tells', async () => /\/apply\/course-dates/.test(await bench.strip()));
    await drop();
    await bench.find('treeitem', /^3\.3 Course dates/);
    await bench.saved();
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'z');
    await bench.find('treeitem', /^2\.4 Course dates/);
  });

  it('stands beside the sheet, and that is remembered', async () => {
    await bench.open(spur, 'tern-sound');
    await bench.click('button', 'Rows and map beside each other');
    await bench.find('tree', 'Map of the pages');
    await bench.find('treegrid', 'Pages');
    await pause(900);
    await browser.driver.get(`${spur.workbench}/sites/tern-sound`);
    await bench.find('tree', 'Map of the pages');
    await bench.find('treegrid', 'Pages');
    await bench.click('button', 'As rows');
    await pause(900);
  });
});

describe('a filter', () => {
  it('stands in the address, so that a view can be sent to somebody, and one key clears it', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.click('button', 'Filter');
    await bench.click('checkbox', 'Retired');
    await bench.press(Key.ESCAPE);
    await bench.untilTree('only that is left', (tree) => tree.join('|') === 'Boats built|  Boats for sale');
    const address = await browser.driver.getCurrentUrl();
    expect(address).toContain('state=retired');
    await browser.driver.get('about:blank');
    await browser.driver.get(address);
    await bench.untilTree('it shows the same', (tree) => tree.join('|') === 'Boats built|  Boats for sale');
    await bench.click('checkbox', 'With the pages above');
    await bench.untilTree('only what was found', (tree) => tree.length === 1);
    await bench.focusTree();
    await bench.press(Key.ESCAPE);
    await bench.untilTree('the tree is whole', (tree) => tree.includes('Courses'));
  });

  it('finds words in the texts, is saved under a name, and comes back by it', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.fill('Find by title, address or text', 'net loft');
    await bench.untilTree('a page with these words in its text is there', (tree) => tree.includes('  Short courses'));
    await bench.click('button', 'Filter');
    await bench.fill('Name for this filter', 'The loft');
    await bench.press(Key.ENTER);
    await bench.press(Key.ESCAPE);
    await bench.click('button', /^Clear/);
    await bench.untilTree('the tree is whole', (tree) => tree.includes('Apply'));
    await bench.click('button', 'Filter');
    await bench.click('button', 'The loft');
    await bench.untilTree('it is found again', (tree) => !tree.includes('Apply') && tree.includes('  Short courses'));
  });
});

describe('copies', () => {
  it('of a branch are made here with what is below, and carried to another site', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Visit');
    await bench.chord(Key.CONTROL, 'c');
    await bench.untilText('Copied 1 page');
    await bench.chord(Key.CONTROL, 'v');
    await bench.click('button', 'Copy 8 pages');
    await bench.untilTree('there are two', (tree) => tree.filter((row) => row === 'Visit').length === 2);
    await bench.saved();
    await bench.open(spur, 'tern-sound');
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'v');
    await bench.untilText('They come from ‘Pellow Quay School of Boatbuilding’.');
    await bench.click('button', 'Copy 8 pages');
    await bench.untilTree('it is in the other site', (tree) => tree.includes('Visit'));
    await bench.focusTree();
    await bench.press(Key.ARROW_RIGHT);
    await bench.untilTree('with what is below', (tree) => tree.includes('  Guided tours'));
    await bench.saved();
  });
});

describe('the past', () => {
  it('is looked at, marked, and gone back to as one step that can be undone', async () => {
    await bench.open(spur, 'tern-sound');
    await bench.select('Visit');
    await bench.press(Key.F2);
    await browser.driver.actions().keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform();
    await bench.press('Come and see', Key.ENTER);
    await bench.saved();
    await bench.click('button', 'History');
    await bench.untilText('renamed ‘Visit’ to ‘Come and see’');
    const slider = await bench.find('slider', 'The tree as it was');
    await slider.sendKeys(Key.ARROW_LEFT);
    await bench.untilText('1 page has changed since, marked in the tree.');
    await bench.untilTree('it has its old name', (tree) => tree.includes('Visit'));
    expect(await bench.text()).toContain('renamed since');
    await bench.click('button', 'Go back to this');
    await bench.untilText('The draft is back to how it was then.');
    await bench.untilTree('it is so now', (tree) => tree.includes('Visit'));
    await bench.saved();
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'z');
    await bench.untilTree('one undo takes it back', (tree) => tree.includes('Come and see'));
  });
});

describe('columns', () => {
  it('are chosen, ordered and made wider, and stay so', async () => {
    await bench.open(spur, 'pellow-quay');
    const names = () =>
      browser.driver.executeScript<string[]>(
        `return [...document.querySelectorAll('[role=columnheader]')].map((one) => one.innerText.trim())`,
      );
    await bench.click('button', 'Columns');
    await bench.click('checkbox', 'Hidden');
    await bench.click('button', 'Move Address left');
    await bench.press(Key.ESCAPE);
    const wanted = ['Title', 'In menus', 'Address', 'State', 'Kind', 'Text'];
    await bench.until('they are so', async () => (await names()).join() === wanted.join());
    const handle = await bench.find('separator', 'Width of Address');
    await handle.sendKeys(Key.ARROW_RIGHT);
    await pause(900);
    await bench.open(spur, 'pellow-quay');
    await bench.until('they are so still', async () => (await names()).join() === wanted.join());
    expect(await (await bench.find('separator', 'Width of Address')).getAttribute('aria-valuetext')).toMatch(/pixels$/);
  });
});
