import { By, Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();

/** A sentence with each letter, digit and sign that is a command where the tree has the keyboard. */
const SENTENCE = ' New hulls lift the mast, then walk 1 2 3 4 5 6 [and] /?';
const KEY = 'pellow-quay';

const asked = async <Answer>(path: string, init: object = {}): Promise<Answer> =>
  bench.driver.executeAsyncScript(
    `const [path, init, done] = arguments; fetch(path, init).then((answer) => answer.json()).then(done)`,
    `/api/sites/${KEY}${path}`,
    init,
  );
const revision = async () => (await asked<{ revision: number }>('/tree')).revision;
const isDialogOpen = async () => (await bench.driver.findElements(By.css('[role=dialog]'))).length > 0;
const tabs = async () => (await bench.driver.getAllWindowHandles()).length;

/** Types the sentence wherever the keyboard is, and looks that nothing came of it but what `may` be. */
async function typesInVain(mayEdit = 0): Promise<void> {
  const [before, lens] = [await revision(), await bench.driver.getCurrentUrl()];
  await bench.press(SENTENCE);
  await bench.driver.sleep(300);
  expect([await revision(), await tabs(), await bench.driver.getCurrentUrl()]).toEqual([before + mayEdit, 1, lens]);
}

describe('letters are no commands', () => {
  it('where the keyboard is nowhere, or on a button outside the tree', async () => {
    await bench.open(spur, KEY);
    await bench.select('Course dates');
    await bench.driver.executeScript('document.activeElement.blur()');
    await typesInVain();
    await bench.driver.executeScript(`document.querySelector('aside[aria-label="Selected page"] button').focus()`);
    const before = await revision();
    await bench.press('nlwmht]');
    expect([await revision(), await isDialogOpen(), await tabs()]).toEqual([before, false, 1]);
  });

  it('and commands where the tree has it, as from the start', async () => {
    await bench.open(spur, KEY);
    await bench.press('l');
    await bench.until('the list can be pasted', isDialogOpen);
    await bench.press(Key.ESCAPE);
    await bench.until('it is closed', async () => !(await isDialogOpen()));
  });

  it.each(['Rename this site…', 'Remove the selected pages'])('in a dialog that has just opened: %s', async (name) => {
    await bench.open(spur, KEY);
    await bench.select('Course dates');
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'k');
    await bench.until('the commands are listed', isDialogOpen);
    await bench.press(name.replace('…', ''), Key.ENTER);
    await bench.until(
      'the dialog is there',
      async () => (await bench.driver.findElements(By.css('[role=dialog] h2'))).length > 0,
    );
    await typesInVain();
    expect(await isDialogOpen()).toBe(true);
  });

  it.each([
    'Removed pages',
    'Goals of the site…',
    'Audiences…',
    'Labels and kinds…',
    'Visitors…',
    'Share the plan for comment…',
    'Make live…',
  ])('in settings that have just opened beside the tree: %s', async (name) => {
    await bench.open(spur, KEY);
    await bench.select('Course dates');
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'k');
    await bench.until('the commands are listed', isDialogOpen);
    await bench.press(name.replace('…', ''), Key.ENTER);
    await bench.find('button', /^Close (removed|goals|audiences|labels|visitors|share|make)/);
    await bench.until('the keyboard is there', () =>
      bench.driver.executeScript(`return document.activeElement.matches('aside h2')`),
    );
    await typesInVain();
  });

  it('when somebody else removes the page that is written on', async () => {
    await bench.open(spur, KEY, '?lens=write');
    await bench.select('Course dates');
    const editor = await bench.find('textbox', /^Text/);
    await editor.click();
    await bench.press('Dates ');
    const { pages } = await asked<{ pages: { id: string; title: unknown }[] }>('/exports/site.json');
    const page = pages.find(({ title }) => JSON.stringify(title).includes('Course dates'))!.id;
    await bench.saved();
    await asked('/operations', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ operations: [{ name: 'page.remove', page }] }),
    });
    await bench.untilTree('the page is gone', (tree) => !tree.some((row) => row.includes('Course dates')));
    await typesInVain();
  });

  it('when a row of its own was expected: Story, Tab, Enter, People', async () => {
    await bench.open(spur, 'tern-sound');
    await bench.focusTree();
    await bench.press('n');
    await bench.press('Story', Key.TAB, Key.ENTER);
    // As somebody types who looks for the keys.
    for (const letter of 'People') {
      await bench.press(letter);
      await bench.driver.sleep(300);
    }
    expect(await isDialogOpen()).toBe(false);
    await bench.untilTree('Story is there', (tree) => tree.some((row) => row.trim() === 'Story'));
  });
});

describe('14: for those who listen, and for those who press Escape', () => {
  it('a column is called by its name alone', async () => {
    await bench.open(spur, 'pellow-quay');
    const names = await Promise.all(
      (await bench.driver.findElements(By.css('[role=columnheader]'))).map((one) => one.getAccessibleName()),
    );
    expect(names.slice(0, 3)).toEqual(['Title', 'In menus', 'Hidden']);
  });

  it('Escape shows the whole tree again wherever the keyboard is', async () => {
    await bench.open(spur, 'pellow-quay', '?state=draft');
    await bench.untilText('State: Draft');
    await (await bench.find('button', 'New page')).sendKeys(Key.ESCAPE);
    await bench.until('all shows', async () => !(await bench.text()).includes('State: Draft'));
  });

  it('what can be pressed is 24 pixels high and wide', async () => {
    await bench.open(spur, 'pellow-quay', '?view=split');
    const small = await bench.driver.executeScript<string[]>(
      `return [...document.querySelectorAll('[role=row] button, [role=separator], header button, [role=toolbar] button')]
        .filter((one) => one.checkVisibility() && one.getBoundingClientRect().width > 0)
        .filter((one) => {
          const { width, height } = one.getBoundingClientRect();
          const before = getComputedStyle(one, '::before');
          const beyond = before.position === 'absolute' ? parseFloat(before.width) || 0 : 0;
          return Math.max(width, beyond) < 23.5 || height < 23.5;
        }).map((one) => (one.ariaLabel ?? one.innerText) + ' ' + Math.round(one.getBoundingClientRect().width) + 'x' + Math.round(one.getBoundingClientRect().height))`,
    );
    expect([...new Set(small)]).toEqual([]);
  });
});
