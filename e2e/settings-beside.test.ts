import { By, Key, type WebElement } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();

const address = async () => new URL(await browser.driver.getCurrentUrl()).searchParams.get('beside');
/** By small steps, as a hand does, from where people grab a row: its title. */
async function drag(from: WebElement, to: WebElement): Promise<void> {
  const actions = browser.driver.actions({ async: true });
  await actions
    .move({ origin: from })
    .press()
    .move({ origin: from, x: 10, y: 6, duration: 60 })
    .move({ origin: to, duration: 250 })
    .pause(200)
    .release()
    .perform();
}

describe('settings beside the tree', () => {
  it('open as a list, then as one of them; the address holds it, and Back goes back', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=menus');
    await bench.click('button', /^Layouts/);
    await bench.untilText('A layout is the frame around pages.');
    expect(await address()).toBe('layouts');
    await bench.click('button', /^Handbook/);
    await bench.untilText('marked in the tree');
    const one = await address();
    expect(one).toMatch(/^layouts\/\w+$/);
    await browser.driver.navigate().back();
    await bench.find('textbox', 'Another layout');
    await browser.driver.navigate().forward();
    await bench.find('textbox', 'Name');
    await browser.driver.get(`${spur.workbench}/sites/pellow-quay?lens=menus&beside=${one}`);
    expect(await (await bench.find('textbox', 'Name')).getAttribute('value')).toBe('Handbook');
    await bench.click('button', 'The layout before');
    await bench.until(
      'the one before is there',
      async () => (await (await bench.find('textbox', 'Name')).getAttribute('value')) !== 'Handbook',
    );
  });

  it('draw a layout to scale, with the entries of its menus, as it is changed', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=menus&beside=layouts');
    await bench.click('button', /^Handbook/);
    const drawn = () =>
      browser.driver.executeScript<string[]>(
        `return [...document.querySelectorAll('figure [role]')].map((one) => one.getAttribute('aria-label') + ': ' + one.innerText.replace(/\\s+/g, ' '))`,
      );
    await bench.until('it stands around a page that takes it', async () => {
      const [desk, telephone] = await drawn();
      return /^On a desk: .*You are here:.*Staff handbook/.test(desk!) && /^On a telephone: /.test(telephone!);
    });
    expect((await drawn())[0]).not.toContain('Coming here');
    await bench.choose('In the footer', /^Footer menu/);
    await bench.until('the footer has its entries', async () => (await drawn())[0]!.includes('Coming here'));
    await bench.choose('Beside the text', /^No menu/);
    await bench.until('nothing is beside the text', async () =>
      (await drawn())[0]!.includes('Beside the text: no menu'),
    );
    const block = await browser.driver.findElement(
      By.xpath('//ul[@aria-label="Menus to drag into the drawing"]/li[text()="Footer menu"]'),
    );
    await drag(block, await bench.find('combobox', 'Beside the text'));
    await bench.until(
      'a menu that is dragged there is',
      async () => !(await drawn())[0]!.includes('Beside the text: no menu'),
    );
    await bench.choose('Header', /^No header/);
    await bench.until('the header is gone', async () => !(await drawn())[0]!.includes('Workshops'));
    await bench.click('button', 'Undo your last change');
    await bench.until('and there again', async () => (await drawn())[0]!.includes('Workshops'));
  });

  it('mark the rows that one of them touches, each with its reason; a key goes to the next, and only these can show', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=menus&beside=layouts');
    await bench.click('button', /^Handbook/);
    await bench.untilText('9 pages marked in the tree: 1 by itself, 8 through others');
    await bench.focusTree();
    await bench.press('g');
    await bench.untilRow('Staff handbook', /by itself/);
    await bench.press('g');
    await bench.until('the next one is selected', async () => {
      const selected = await browser.driver.executeScript<string>(
        `return document.querySelector('[role=row][aria-selected=true]').textContent`,
      );
      return selected.includes('through ‘Staff handbook’');
    });
    await bench.click('checkbox', 'Only these');
    await bench.untilTree('only these show', (tree) => tree.length === 9 && tree[0]!.trim() === 'Staff handbook');
    await bench.click('button', 'Remove the filter Marked: ‘Handbook’');
    await bench.untilTree('all show again', (tree) => tree.some((row) => row.trim() === 'Governors'));
  });

  it('are given to selected pages with a button', async () => {
    await bench.open(spur, 'tern-sound', '?lens=access&beside=labels');
    await bench.fill('The first label', 'Season');
    await bench.click('button', 'Add the label');
    await bench.untilText('It touches no page.');
    await bench.select('Boats');
    await bench.click('button', 'Give ‘Boats’ this label');
    await bench.untilRow('Boats', /by itself/);
    await bench.untilRow('Sandpiper', /through ‘Boats’/);
    const give = await bench.find('button', 'Give ‘Boats’ this label');
    await bench.until('it is not given twice', async () => !(await give.isEnabled()));
  });

  it('are given to a page that is dragged onto one of them', async () => {
    await bench.click('button', 'All labels and kinds');
    await bench.find('button', /^Season/);
    const title = await (await bench.find('row', /^Crossings/)).findElement({ xpath: './/span[text()="Crossings"]' });
    await drag(title, await bench.find('button', /^Season/));
    await bench.untilText('On 2 pages');
    await bench.untilTree('nothing has moved', (tree) => tree.some((row) => row === 'Crossings'));
    await bench.click('button', 'Undo your last change');
    await bench.untilText('On 1 page');
  });

  it('are given to a row that one of them is dragged onto', async () => {
    const season = await bench.find('button', /^Season/);
    const row = await bench.find('row', /^Crossings/);
    // Escape leaves it where it was, and the list open.
    const carry = browser.driver.actions({ async: true });
    await carry.move({ origin: season }).press().move({ origin: season, x: 10, y: 6 }).move({ origin: row }).perform();
    await bench.press(Key.ESCAPE);
    await browser.driver.actions({ async: true }).release().perform();
    await bench.untilText('On 1 page');
    await drag(await bench.find('button', /^Season/), await bench.find('row', /^Crossings/));
    await bench.untilText('On 2 pages');
    await bench.click('button', 'Undo your last change');
    await bench.untilText('On 1 page');
  });

  it('go away with Escape, a step at a time, and the keyboard is in the tree again', async () => {
    await bench.click('button', /^Season/);
    await (await bench.find('textbox', 'Name')).sendKeys(Key.ESCAPE);
    await bench.find('textbox', 'Another label');
    await bench.press(Key.ESCAPE);
    await bench.until('the selected page stands there again', async () => (await address()) === null);
    await bench.until('the tree has the keyboard', () =>
      browser.driver.executeScript<boolean>(`return document.activeElement.closest('[data-tree-view]') !== null`),
    );
  });

  it('a release is picked in the tree: what goes live is ticked there, what must come along too, with its reason', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.click('button', /^Make live…/);
    await bench.click('radio', /Everything that waits/);
    await bench.untilRow('Visit', /goes live/);
    await bench.click('checkbox', 'Goes live: Visit');
    await bench.until(
      'the rest is ticked still',
      async () => await (await bench.find('radio', /What is ticked in the tree \(11 pages\)/)).isSelected(),
    );
    await bench.until('the row is left out', async () => !/goes live/.test(await bench.row('Visit')));
    await bench.click('radio', 'Site settings only');
    await bench.select('Online talks');
    await bench.press(Key.ARROW_RIGHT);
    await bench.click('checkbox', /^Goes live: Reading a boat/);
    await bench.untilRow('Online talks', /comes along: stands above ‘Reading a boat’/);
    await bench.find('button', 'Make 2 pages live');
    // Another row is looked at: the release stays what it was, until somebody says otherwise.
    await bench.select('Visit');
    await bench.find('button', 'Make 2 pages live');
    await bench.click('button', 'Use what is selected now');
    await bench.click('radio', /^The selected page \(1 page\)/);
    await bench.find('button', 'Make 1 page live');
    await bench.press(Key.ESCAPE);
  });

  it('an audience and a visitor colour the tree with what they can open, each page with its reason', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access&beside=audiences&find=staff+handbook');
    await bench.click('button', /^Governors Can open/);
    await bench.untilText('95 pages marked in the tree: 90 open to everyone, ');
    await bench.until(
      'the staff’s pages are not among them',
      async () => !/(by itself|through|open to everyone)/.test(await bench.row('Staff handbook')),
    );
    await bench.click('button', 'Clear');
    await bench.untilRow('Courses', /open to everyone/);
    await bench.focusTree();
    await bench.press('g');
    await bench.untilRow('Minutes', /by itself/);
    await bench.open(spur, 'pellow-quay', '?lens=access&beside=visitors&find=staff+handbook');
    await bench.click('button', /^Bram Calloway/);
    await bench.untilText('Can open 111 pages of the draft, 21 of them not open to everyone.');
    await bench.untilRow('Staff handbook', /by itself/);
    await bench.click('checkbox', 'Staff');
    await bench.untilText('all of them open to everyone');
    await bench.until(
      'the handbook is not marked any more',
      async () => !/by itself/.test(await bench.row('Staff handbook')),
    );
    await bench.click('checkbox', 'Staff');
    await bench.untilText('21 of them not open to everyone.');
  });

  it('a redirect shows its page, and leads elsewhere when that is chosen', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish&beside=redirects');
    await bench.click('button', /^\/prospectus/);
    await bench.untilRow('How to apply', /\/prospectus leads here/);
    await bench.until('the row is selected', async () =>
      /How to apply/.test(
        await browser.driver.executeScript<string>(
          `return document.querySelector('[role=row][aria-selected=true]').textContent`,
        ),
      ),
    );
    await bench.choose('Leads to', /Bursaries/);
    await bench.untilText('/prospectus → /apply/bursaries');
    await bench.click('button', 'Undo your last change');
    await bench.untilText('/prospectus → /apply/how-to-apply');
  });

  it('lines of what visitors notice lead to their rows', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish&beside=releases');
    await bench.click('button', /The autumn sale is over/);
    await bench.click('button', 'Main menu: ‘Boats for sale’ goes');
    await bench.until('the row is selected', async () =>
      /Boats for sale/.test(
        await browser.driver.executeScript<string>(
          `return document.querySelector('[role=row][aria-selected=true]').textContent`,
        ),
      ),
    );
  });

  it('are marked in the map too, with the reason', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=menus&view=map&beside=layouts');
    await bench.click('button', /^Handbook/);
    await bench.untilText('marked in the tree');
    await bench.focusTree();
    await bench.press('g');
    await bench.find('treeitem', /Staff handbook.*by itself/);
  });

  it('are found by name where one looks for pages', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.focusTree();
    await bench.press('/', 'handbook');
    await bench.click('button', 'Layout ‘Handbook’');
    await bench.untilText('marked in the tree');
  });

  it('are found by name among the commands', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'k');
    await bench.press('layout handb', Key.ENTER);
    await bench.until('it is open', async () => /^layouts\//.test((await address()) ?? ''));
  });

  it('are made wider by the edge beside the tree, and stay so', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=menus&beside=facts');
    const edge = await bench.find('separator', 'Between the tree and the settings');
    const width = async () => Number(await edge.getAttribute('aria-valuenow'));
    const before = await width();
    await edge.sendKeys(Key.ARROW_LEFT, Key.ARROW_LEFT);
    await bench.until('it is wider', async () => (await width()) > before);
    const wide = await width();
    await bench.saved();
    await browser.driver.sleep(700);
    await bench.open(spur, 'pellow-quay', '?lens=menus&beside=facts');
    const again = await bench.find('separator', 'Between the tree and the settings');
    expect(Number(await again.getAttribute('aria-valuenow'))).toBe(wide);
  });

  it('are closed to those who may only look, where they are about others or about visitors', async () => {
    await bench.driver.manage().deleteAllCookies();
    await bench.signIn(spur, 'oona@pellow-quay.example');
    // Who may only look has no button for a new page, which `open` waits for.
    const look = (beside: string) => browser.driver.get(`${spur.workbench}/sites/pellow-quay?beside=${beside}`);
    for (const [beside, permission] of [
      ['visitors', 'People'],
      ['sharing', 'People'],
      ['going-live', 'Publish'],
    ] as const) {
      await look(beside);
      await bench.untilText(`This needs the permission ‘${permission}’. On the whole site your role is Reader.`);
    }
    await look('layouts');
    await bench.click('button', /^Handbook/);
    await bench.untilText('marked in the tree');
    expect(await (await bench.find('textbox', 'Name')).isEnabled()).toBe(false);
  });
});
