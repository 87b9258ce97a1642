import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Browser, openBrowser } from './support/browser.ts';
import { type Spur, startSpur } from './support/spur.ts';
import { Screen } from './support/screen.ts';
import { Workbench } from './support/workbench.ts';

let spur: Spur;
let browser: Browser;
let bench: Workbench;
beforeAll(async () => {
  spur = await startSpur({ withDemo: false });
  browser = await openBrowser();
  bench = new Workbench(browser.driver);
});
afterAll(async () => {
  await browser?.close();
  await spur?.stop();
});

it('a site manager makes the first account and a site, builds the tree by keyboard, makes it live, and visitors follow', async () => {
  await browser.driver.get(`${spur.workbench}/welcome#${spur.firstAccountToken}`);
  await bench.fill('Your name', 'Petra Rowe');
  await bench.fill('Mail address', 'petra@harbour.example');
  await bench.fill('Password', 'short');
  await bench.press(Key.ENTER);
  await bench.untilText('Use at least 10 characters.');
  await bench.fill('Password', 'a long enough password');
  await bench.press(Key.ENTER);
  await bench.untilText('There is no site yet');

  await bench.click('button', 'Create the first site');
  await bench.fill('Name', 'Harbour Library');
  await bench.until(
    'the key follows the name',
    async () => (await (await bench.find('textbox', 'Key')).getAttribute('value')) === 'harbour-library',
  );
  await bench.press(Key.ENTER);
  await bench.untilText('The tree begins with one page');

  // From here on by keyboard alone.
  await bench.press('n');
  for (const title of ['Welcome', 'Books', 'Opening hours', 'Staff room']) await bench.press(title, Key.ENTER);
  await bench.press(Key.ESCAPE);
  await bench.untilTree('four pages stand there', (tree) =>
    tree.join().startsWith('Welcome,Books,Opening hours,Staff room,Practice page'),
  );

  await bench.press(Key.ARROW_UP, Key.ARROW_UP, 'N');
  for (const title of ['New books', 'Lending']) await bench.press(title, Key.ENTER);
  await bench.press(Key.ESCAPE);
  await bench.untilTree('two stand inside Books', (tree) => tree.slice(1, 4).join() === 'Books,  New books,  Lending');

  // Opening hours goes below Books, and out again above it.
  await bench.press(Key.ARROW_DOWN, ']');
  await bench.untilTree('it is nested', (tree) => tree.includes('  Opening hours'));
  await bench.press('[');
  await bench.chord(Key.CONTROL, Key.ARROW_UP);
  await bench.untilTree('it stands before Books', (tree) => tree.slice(0, 3).join() === 'Welcome,Opening hours,Books');

  // The staff room is hidden with its branch, in the column, by keys.
  // Below it stands the practice page with four others.
  await bench.press(
    Key.END,
    ...Array.from({ length: 5 }, () => Key.ARROW_UP),
    Key.ARROW_RIGHT,
    Key.ARROW_RIGHT,
    Key.ARROW_RIGHT,
    Key.ENTER,
  );
  await bench.find('menuitem', 'Hide the branch');
  await bench.press(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ENTER);
  await bench.until('the strip says so', async () => (await bench.strip()).includes('Hidden: nobody can open it'));
  await bench.saved();

  await bench.click('button', /^Make live…/);
  await bench.click('radio', /Everything that waits/);
  await bench.click('button', 'Make 6 pages live');
  await bench.untilText('6 pages made live.');

  const visitor = new Screen(browser.driver);
  await browser.driver.get(`${spur.live}/harbour-library/books/new-books`);
  expect(await browser.driver.getTitle()).toBe('New books – Harbour Library');
  const trail = await browser.driver.executeScript(
    `return [...document.querySelectorAll('nav[aria-label=Breadcrumb] li')].map((step) => step.lastElementChild.innerText.trim())`,
  );
  expect(trail).toEqual(['Welcome', 'Books', 'New books']);
  const menu = () =>
    browser.driver.executeScript(
      `return [...document.querySelectorAll('nav[aria-label=Main] .entries > li > a')].map((entry) => entry.innerText)`,
    );
  expect(await menu()).toEqual(['Welcome', 'Opening hours', 'Books']);
  await browser.driver.get(`${spur.live}/harbour-library/staff-room`);
  await visitor.untilText('There is no page at this address');

  // Renamed in place; what visitors have follows with the next release, not before.
  await bench.open(spur, 'harbour-library');
  await bench.select('Books');
  await bench.press(Key.F2);
  await bench.fill('New title of Books', 'Books and maps');
  await bench.press(Key.ENTER);
  await bench.untilTree('it has the new title', (tree) => tree.includes('Books and maps'));
  await bench.saved();
  await browser.driver.get(`${spur.live}/harbour-library/`);
  expect(await menu()).toEqual(['Welcome', 'Opening hours', 'Books']);
  await bench.open(spur, 'harbour-library');
  await bench.select('Books and maps');
  await bench.click('button', /^Make live…/);
  await bench.untilText('2 addresses change'.replace('2', '3'));
  await bench.click('button', 'Make 1 page live');
  await bench.untilText('1 page made live.');
  await browser.driver.get(`${spur.live}/harbour-library/books-and-maps/lending`);
  await visitor.untilText('Books and maps');
  expect(await menu()).toEqual(['Welcome', 'Opening hours', 'Books and maps']);
});
