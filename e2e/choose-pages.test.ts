import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();

/** The choices that show below a field, with their levels, and the one that Enter would take. */
const choices = () =>
  bench.driver.executeScript<{ all: string[]; active: string | null }>(`
    const items = [...document.querySelectorAll('[role=tree] [role=treeitem]')];
    const words = (one) => one.getAttribute('aria-level') + ' ' + one.innerText.trim();
    const field = document.querySelector('[role=combobox][aria-expanded=true]');
    const active = document.getElementById(field.getAttribute('aria-activedescendant'));
    return { all: items.map(words), active: active && words(active) };`);
const untilActive = (words: string) =>
  bench.until(`${words} is the active choice`, async () => (await choices()).active === words);

describe('a page is chosen', () => {
  it('to move into by part of its title and Enter, two levels down', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq017');
    await bench.press('t', 'year course');
    await untilActive('3 The year course');
    expect((await choices()).all.slice(0, 2)).toEqual(['1 Courses', '2 Long courses']);
    await bench.press(Key.ENTER);
    await bench.until('it stands there', async () => (await bench.strip()).includes('/the-year-course/'));
    await bench.chord(Key.CONTROL, 'z');
    await bench.until('it is back', async () => !(await bench.strip()).includes('/the-year-course/'));
  });

  it('with a letter too few and two that changed places', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq017');
    await bench.press('t', 'evning');
    await untilActive('2 Evening classes');
    await bench.untilText('Nothing is called exactly that. Similar:');
    await bench.fill('Find a place by title', 'bursareis');
    await untilActive('2 Bursaries');
    await bench.press(Key.ESCAPE);
  });

  it('and so is the top level', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq012');
    await bench.press('t', 'top level');
    await untilActive('1 The end of the top level');
    await bench.press(Key.ENTER);
    await bench.until('it stands there', async () =>
      /^(?!.*What changes)(?!.*\/courses\/)(?=.*\/short-courses)/s.test(await bench.strip()),
    );
    await bench.chord(Key.CONTROL, 'z');
  });

  it('for a link in a text, by Ctrl+K where nothing is selected', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=write&page=pq008');
    const editor = await bench.find('textbox', 'Text');
    await editor.sendKeys(Key.chord(Key.CONTROL, Key.END), ' See ', Key.chord(Key.CONTROL, 'k'));
    const field = await bench.find('combobox', 'Page');
    await field.sendKeys('fees and');
    await untilActive('2 Fees and paying');
    await field.sendKeys(Key.ENTER);
    await bench.click('button', 'Insert the link');
    await bench.until('the text has the link', () =>
      bench.driver.executeScript<boolean>(
        `return [...document.querySelectorAll('.text-of-page a')].some((one) => one.textContent === 'Fees and paying')`,
      ),
    );
  });

  it('for a redirect, with what is no page above', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.click('button', /^Redirects/);
    await bench.fill('The address', '/former-fees');
    const field = await bench.find('combobox', 'Leads to');
    await field.click();
    await bench.until('the choices show', async () => (await choices()).all.length > 3);
    expect((await choices()).all.slice(0, 2)).toEqual(['1 An outside address', '1 Nowhere: permanently gone (410)']);
    await field.sendKeys('fees and', Key.ENTER);
    expect(await field.getAttribute('value')).toBe('Fees and paying');
    await field.click();
    await bench.press(Key.ESCAPE);
    await bench.find('button', 'Close redirects');
    expect(await field.getAttribute('value')).toBe('Fees and paying');
    await bench.click('button', 'Make the redirect');
    await bench.untilText('/former-fees');
    await bench.press(Key.ESCAPE);
  });

  it('as the place of pages that are made from a list', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq017');
    await bench.press('l');
    await bench.find('dialog', /pages/i);
    await bench.press('Tide pools');
    const field = await bench.find('combobox', 'Place');
    await field.click();
    await field.sendKeys('bursaries', Key.ENTER);
    await bench.click('radio', 'After it');
    await bench.click('button', /^(Make|Add) 1 page/);
    await bench.untilTree('it stands there', (tree) => tree[tree.indexOf('  Bursaries') + 1] === '  Tide pools');
  });
});

describe('finding in the tree', () => {
  it('forgives a slip, and says so', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.focusTree();
    await bench.press('/', 'bursareis');
    await bench.untilText('No exact match. Similar: ');
    await bench.untilTree('the page is found', (tree) => tree.includes('  Bursaries'));
    await bench.press(Key.ESCAPE);
  });
});

describe('the list of commands', () => {
  const LENSES = ['plan', 'write', 'access', 'menus', 'publish', 'checks'];
  const buttons = () =>
    bench.driver.executeScript<string[]>(`
      const bars = [...document.querySelectorAll('section[aria-label="Page tree"] > div:first-child, section[aria-label="Page tree"] [role=toolbar]')];
      return bars.flatMap((bar) => [...bar.querySelectorAll('button:not([aria-haspopup=menu])')])
        .map((one) => one.getAttribute('aria-label') ?? one.innerText);`);
  const wordsOf = (text: string) =>
    text
      .toLowerCase()
      .replace(/\(.*?\)/g, '')
      .split(/[^\p{L}’]+/u)
      .filter((word) => word !== '');

  it.each<[string, number]>([...LENSES.map((lens): [string, number] => [lens, 1]), ['publish', 2]])(
    'has what each button of the %s lens does, with %i selected',
    async (lens, count) => {
      await bench.open(spur, 'pellow-quay', `?lens=${lens}&page=pq012`);
      await bench.focusTree();
      if (count === 2) await bench.chord(Key.SHIFT, Key.ARROW_DOWN);
      const all = await buttons();
      expect(all.length).toBeGreaterThan(8);
      await bench.chord(Key.CONTROL, 'k');
      await bench.untilText('Pages and keys');
      const commands = await bench.driver.executeScript<string[]>(
        `return [...document.querySelectorAll('[cmdk-item]')].map((one) => one.innerText)`,
      );
      const lacking = all.filter((button) => {
        // Of several, a button says how many and what goes along.
        const words = count === 1 ? wordsOf(button) : wordsOf(button).slice(0, 1);
        return !commands.some((command) => words.every((word) => wordsOf(command).includes(word)));
      });
      // That is Escape's and the arrow keys' as well.
      expect(lacking).toEqual(count === 1 ? [] : ['Select one page only']);
      await bench.press(Key.ESCAPE);
    },
  );

  it('opens the filter and the columns, and goes to the field to find in, with the keyboard', async () => {
    await bench.open(spur, 'pellow-quay');
    for (const [typed, opened] of [
      ['choose which pages', '[aria-label="Filters"] *'],
      ['choose and order', '[aria-label="Columns"] *'],
      ['find by title', '#find-field'],
    ] as const) {
      await bench.focusTree();
      await bench.chord(Key.CONTROL, 'k');
      await bench.untilText('Pages and keys');
      await bench.press(typed, Key.ENTER);
      await bench.until(`${typed} has the keyboard`, () =>
        bench.driver.executeScript<boolean>('return document.activeElement.matches(arguments[0])', opened),
      );
      await bench.press(Key.ESCAPE);
    }
  });

  it('has them under other words too', async () => {
    for (const [typed, command] of [
      ['navigation', 'Menus…'],
      ['404', 'Redirects and pages not found…'],
      ['backup', 'The whole site with its history and files (ZIP)'],
      ['unpublish', 'Take down the selected pages…'],
      ['deadlines', 'Schedule: who writes what by when'],
      ['shortcuts', 'Keys…'],
    ] as const) {
      await bench.chord(Key.CONTROL, 'k');
      await bench.press(typed);
      await bench.until(`${typed} finds ${command}`, () =>
        bench.driver.executeScript<boolean>(
          `return document.querySelector('[cmdk-item]')?.innerText.startsWith(arguments[0])`,
          command,
        ),
      );
      await bench.press(Key.ESCAPE);
    }
  });
});
