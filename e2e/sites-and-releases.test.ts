import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();
await bench.askNoApproval('pellow-quay');

const status = async (path: string): Promise<number> =>
  (await fetch(`${spur.live}${path}`, { redirect: 'manual' })).status;

/** Visitors get a release a moment after it was made. */
const untilStatus = (path: string, expected: number) =>
  bench.until(`visitors get ${expected} at ${path}`, async () => (await status(path)) === expected);

describe('sites', () => {
  it('are made with a key that is proposed and can be changed; one that is taken is refused with the way out', async () => {
    await bench.driver.get(`${spur.workbench}/sites`);
    await bench.click('button', 'New site');
    await bench.fill('Name', 'Pellow Quay!');
    await bench.until(
      'the key is proposed',
      async () => (await (await bench.find('textbox', 'Key')).getAttribute('value')) === 'pellow-quay',
    );
    await bench.press(Key.ENTER);
    await bench.untilText('Another site has the key ‘pellow-quay’ already'.replace(/[‘’]/g, "'"));
    await bench.fill('Key', 'Not A Key');
    await bench.press(Key.ENTER);
    await bench.untilText('a key is made of small letters, digits and single hyphens between them');
    await bench.fill('Key', 'pellow-two');
    await bench.fill('Name', 'Pellow the second');
    expect(await (await bench.find('textbox', 'Key')).getAttribute('value')).toBe('pellow-two');
    await bench.press(Key.ENTER);
    await bench.untilText('The tree begins with one page');
  });

  it('are renamed, from the list and from the workbench, for everybody', async () => {
    await bench.driver.get(`${spur.workbench}/sites`);
    await bench.click('button', 'Rename Pellow the second');
    await bench.fill('Name', 'Second quay');
    await bench.press(Key.ENTER);
    await bench.until('the list has the new name', async () => bench.has('link', 'Second quay'));
    await bench.click('link', 'Second quay');
    await bench.untilText('The tree begins with one page');
    for (const step of [
      /^Add the first page/,
      /^Begin from a starter/,
      /^Make pages from a list/,
      /^Read the old site/,
    ])
      await bench.find('button', step);
    await bench.click('button', /^Site: Second quay/);
    await bench.click('menuitem', 'Rename this site…');
    await bench.fill('Name', 'Third quay');
    await bench.press(Key.ENTER);
    await bench.until('the bar has the new name', async () => bench.has('button', /^Site: Third quay/));
  });

  it('say what waits in each, and lead there', async () => {
    await bench.driver.get(`${spur.workbench}/sites`);
    await bench.find('link', '4 questions are open');
    await bench.click('link', /^\d+ pages differ from what is live$/);
    await bench.untilText('Compared with live: Differs');
  });
});

it('a site is exported with its history, and restored under another key', async () => {
  await bench.open(spur, 'pellow-quay', '?lens=plan');
  const archive = await bench.driver.executeAsyncScript<string>(
    'const done = arguments[0]; fetch("/api/sites/pellow-quay/archive").then((answer) => answer.text()).then(done)',
  );
  const folder = mkdtempSync(join(tmpdir(), 'spur-archive-'));
  try {
    const file = join(folder, 'pellow-quay-archive.json');
    writeFileSync(file, archive);
    await bench.driver.get(`${spur.workbench}/sites`);
    await bench.click('button', /^Restore a site/);
    await (await bench.driver.findElement(By.css('input[type=file]'))).sendKeys(file);
    await bench.until(
      'the key of the site is proposed',
      async () => (await (await bench.find('textbox', 'Key')).getAttribute('value')) === 'pellow-quay',
    );
    await bench.click('button', 'Restore the site');
    await bench.untilText("Another site has the key 'pellow-quay' already");
    await bench.fill('Key', 'old-quay');
    await bench.click('button', 'Restore the site');
    await bench.untilTree('the tree is there', (tree) => tree.some((one) => one.trim() === 'Long courses'));
    await untilStatus('/old-quay/courses', 200);
    await bench.click('button', 'History');
    await bench.untilText('removed ‘Plain Jane’');
  } finally {
    rmSync(folder, { recursive: true });
  }
});

describe('a release', () => {
  it('of a new page deep in the tree brings the page above it along, and says why', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.click('button', 'Filter');
    await bench.click('checkbox', 'Differs');
    await bench.press(Key.ESCAPE);
    await bench.select('Reading a boat');
    await bench.click('button', 'Make this page live…');
    await bench.untilText('1 page comes along');
    await bench.untilText('Online talks stands above ‘Reading a boat’');
    await untilStatus('/pellow-quay/courses/online-talks', 404);
    await bench.click('button', 'Make 2 pages live');
    await bench.untilText('2 pages made live.');
    await untilStatus('/pellow-quay/courses/online-talks/reading-a-boat', 200);
    await untilStatus('/pellow-quay/courses/online-talks/woods-of-the-coast', 404);
    await bench.untilTree('it is not among what differs any more', (tree) => !tree.includes('      Reading a boat'));
  });

  it('takes pages down with those below, and they can go live again', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.select('Workshops');
    await bench.click('button', 'Take down…');
    await bench.untilText('6 pages come along');
    await bench.click('button', 'Take 7 pages down');
    await bench.untilText('7 pages taken down.');
    await untilStatus('/pellow-quay/workshops/the-smithy', 301);
    expect(await (await fetch(`${spur.live}/pellow-quay/`)).text()).not.toMatch(/Workshops/);
    await bench.until('the row says so', async () =>
      /^Workshops Retired/.test((await (await bench.find('row', /^Workshops/)).getText()).replace(/\s+/g, ' ')),
    );
    await bench.click('button', 'Make this page live…');
    await bench.click('button', 'Make 1 page live');
    await bench.untilText('1 page made live.');
    await untilStatus('/pellow-quay/workshops', 200);
    await untilStatus('/pellow-quay/workshops/the-smithy', 301);
  });

  it('of all that waits takes down what was removed from the tree', async () => {
    await untilStatus('/pellow-quay/boats-built/clinker-dinghies/plain-jane', 200);
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.untilText('Removed, still live');
    await bench.click('button', /^Make live…/);
    await bench.click('radio', /Everything that waits/);
    await bench.untilText('Removed from the tree, so taken down');
    await bench.click('button', /^Make \d+ pages live and take 1 page down$/);
    await bench.untilText('1 page taken down.');
    await untilStatus('/pellow-quay/boats-built/clinker-dinghies/plain-jane', 301);
    await untilStatus('/pellow-quay/courses/evening-classes/sharpening-day', 200);
    await bench.untilNoText('Removed, still live');
  });
});

describe('headings and links', () => {
  it('are made of pages, and visitors get a text and a way elsewhere', async () => {
    await bench.open(spur, 'tern-sound', '?page=ts002');
    await bench.focusTree();
    await bench.press('n');
    for (const title of ['For crews', 'Weather']) await bench.press(title, Key.ENTER);
    await bench.press(Key.ESCAPE);
    await bench.select('For crews');
    await bench.choose('Type', /^Heading/);
    await bench.until('it has no address', async () => !(await bench.strip()).includes('/for-crews'));
    await bench.select('Weather');
    await bench.choose('Type', /^Link/);
    await bench.choose('Leads to', /An outside address/);
    await bench.fill('Outside address', 'https://gales.example/');
    await bench.press(Key.ENTER);
    await bench.until('the strip says where it leads', async () =>
      (await bench.strip()).includes('https://gales.example/'),
    );
    await bench.saved();
    await bench.select('For crews', Key.CONTROL);
    await bench.click('button', /^Make live…/);
    await bench.click('button', 'Make 2 pages live');
    await bench.untilText('2 pages made live.');
    const page = await (await fetch(`${spur.live}/tern-sound/`)).text();
    expect(page).toMatch('<span class="text">For crews</span>');
    expect(page).toMatch('<a href="https://gales.example/">Weather</a>');
  });
});

describe('the tree by keyboard', () => {
  const active = () =>
    bench.driver.executeScript<string>(`
      const tree = document.querySelector('[role=treegrid]');
      const at = document.getElementById(tree.getAttribute('aria-activedescendant'));
      const row = at.closest('[role=row]');
      return row.querySelector('[role=gridcell]').innerText.trim().split('\\n')[0] + (at === row ? '' : ' / ' + [...row.children].indexOf(at)) + ' level ' + row.getAttribute('aria-level') + (row.getAttribute('aria-expanded') ?? '');`);

  it('follows the treegrid pattern: rows, branches, columns, ends', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq002');
    await bench.focusTree();
    const steps: [string, string][] = [
      [Key.ARROW_LEFT, 'Courses level 1false'],
      [Key.ARROW_RIGHT, 'Courses level 1true'],
      [Key.ARROW_DOWN, 'Long courses level 2false'],
      [Key.ARROW_RIGHT, 'Long courses level 2true'],
      [Key.ARROW_RIGHT, 'Long courses / 0 level 2true'],
      [Key.ARROW_RIGHT, 'Long courses / 1 level 2true'],
      [Key.ARROW_DOWN, 'The year course / 1 level 3false'],
      [Key.ARROW_LEFT, 'The year course / 0 level 3false'],
      [Key.ARROW_LEFT, 'The year course level 3false'],
      [Key.ARROW_LEFT, 'Long courses level 2true'],
      [Key.HOME, 'Pellow Quay School of Boatbuilding level 1'],
      [Key.END, 'Your account level 1'],
      [Key.ARROW_UP, 'Not open to you level 1'],
    ];
    for (const [key, expected] of steps) {
      await bench.press(key);
      await bench.until(`the keyboard is at ${expected}`, async () => (await active()) === expected);
    }
  });

  it('changes a column by Enter, and several rows by Space and the column', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq040');
    await bench.focusTree();
    const chosen = () =>
      bench.driver.executeScript<string[]>(
        `return [...document.querySelectorAll('[role=row][aria-selected=true]')].map((row) => row.innerText.replace(/\\s+/g, ' '))`,
      );
    await bench.chord(Key.SHIFT, Key.ARROW_DOWN);
    await bench.until('two are selected', async () => (await chosen()).length === 2);
    await bench.press(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ENTER);
    await bench.until('both are off menus', async () => (await chosen()).every((row) => / Off /.test(row)));
    await bench.press(' ');
    await bench.until('both are in menus again', async () => (await chosen()).every((row) => / In /.test(row)));
  });

  it('has every command in the list of commands', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq005');
    await bench.chord(Key.CONTROL, 'k');
    await bench.press('lift', Key.ENTER);
    await bench.until('the page was lifted out', async () =>
      /Long courses\s*›\s*Term by term/.test(await bench.strip()),
    );
    await bench.focusTree();
    await bench.press('4');
    await bench.until('the lens is Menus', async () => (await bench.text()).includes('It follows the tree. '));
  });
});
