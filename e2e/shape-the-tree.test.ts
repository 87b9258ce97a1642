import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();

describe('the trail strip', () => {
  it('shows what a slug would change while it is typed, for the branch too, and nothing is changed by Escape', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Visit');
    const field = await bench.fill('Slug', 'see-us');
    await bench.until('the strip tells what changes', async () => (await bench.strip()).includes('8 addresses change'));
    expect(await bench.strip()).toMatch(/\/visit\s*→\s*\/see-us/);
    await bench.fill('Slug', 'search');
    await bench.untilText('‘search’ is needed by the site itself');
    await field.sendKeys(Key.ESCAPE);
    await bench.until(
      'it shows the page as it is',
      async () => (await bench.strip()).includes('/visit') && !(await bench.strip()).includes('What changes'),
    );
  });
});

describe('a title', () => {
  it('shows its new address while it is typed', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Visit');
    const field = await bench.fill('Title', 'Come and see');
    await bench.until('the strip tells it', async () => /\/visit\s*→\s*\/come-and-see/.test(await bench.strip()));
    await field.sendKeys(Key.ESCAPE);
    await bench.until('it is as it was', async () => !(await bench.strip()).includes('What changes'));
    expect(await field.getAttribute('value')).toBe('Visit');
  });
});

describe('a page', () => {
  it('is moved by the searchable tree, with what changes shown before', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Bursaries');
    await bench.press('t');
    await bench.fill('Find a place by title', 'long cour');
    await bench.until('the strip tells where it would stand', async () =>
      (await bench.strip()).includes('/courses/long-courses/bursaries'),
    );
    await bench.press(Key.ENTER);
    await bench.until('it stands there', async () =>
      /^(?!.*What changes).*Long courses.*Bursaries.*\/courses\/long-courses\/bursaries/s.test(await bench.strip()),
    );
  });

  it('is removed with what stands below, and put back where it was', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Workshops');
    await bench.press(Key.DELETE);
    await bench.untilText('6 pages below are removed too.');
    await bench.click('button', 'Remove 7 pages');
    await bench.untilTree('they are gone', (tree) => !tree.includes('Workshops'));
    await bench.saved();
    await bench.click('button', 'Removed pages');
    await bench.click('button', 'Put back Workshops');
    await bench.untilTree(
      'they are back in their place',
      (tree) => tree.includes('Workshops') && tree.indexOf('Workshops') === tree.indexOf('  School groups') + 1,
    );
  });

  it('becomes home by name, and the old home gets an address', async () => {
    await bench.open(spur, 'tern-sound');
    await bench.select('Crossings');
    await bench.click('button', 'Make it home');
    await bench.until('it has the address of home', async () => (await bench.strip()).includes('Crossings\n/\n'));
    await bench.click('button', 'Let the first page be home');
    await bench.until('it has its own again', async () => (await bench.strip()).includes('/crossings'));
  });
});

describe('several pages', () => {
  it('are taken off menus and hidden at once, by the columns and by the bar', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Open Saturdays');
    await bench.select('How to find us', Key.SHIFT);
    await bench.untilText('3 selected');
    await bench.click('button', 'Off menus');
    const rows = async () => {
      const tree = await bench.driver.executeScript<string[]>(
        `return [...document.querySelectorAll('[role=row][aria-selected=true]')].map((row) => row.innerText.replace(/\\s+/g, ' '))`,
      );
      return tree;
    };
    await bench.until(
      'all three are off',
      async () => (await rows()).length === 3 && (await rows()).every((row) => row.includes(' Off ')),
    );
    await bench.click('button', 'Hidden: Guided tours, Shown');
    await bench.click('menuitem', 'Hide this page');
    await bench.until(
      'all three are hidden',
      async () => (await rows()).filter((row) => row.includes('Page hidden')).length === 3,
    );
    await bench.saved();
    await bench.chord(Key.CONTROL, 'z');
    await bench.until(
      'one undo shows all three again',
      async () => (await rows()).filter((row) => row.includes('Shown')).length === 3,
    );
  });
});

describe('finding', () => {
  it('keeps what stands above as context, and Escape brings the tree back', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.focusTree();
    await bench.press('/');
    await bench.press('marig');
    await bench.untilTree(
      'only these are left',
      (tree) => tree.join('|') === 'Boats built|  Clinker dinghies|    Marigold|News|  Marigold goes down the slip',
    );
    await bench.press(Key.ESCAPE);
    await bench.untilTree('the tree is back', (tree) => tree.includes('Courses'));
  });
});

describe('a text', () => {
  it('stays as it was typed when the editor is left at once', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq008');
    const editor = await bench.find('textbox', 'Text');
    await editor.sendKeys(Key.chord(Key.CONTROL, Key.END), ' Bring a pencil.');
    await bench.click('button', 'Bold');
    await editor.sendKeys('Two, even.');
    await bench.click('button', 'History');
    await bench.saved();
    await bench.click('button', 'History');
    const words = await (await bench.find('textbox', 'Text')).getText();
    expect(words).toMatch(/ Bring a pencil\.Two, even\.$/);
  });

  it('is not saved anew for having been looked at, though the editor writes it in its own way', async () => {
    const savings = async () => {
      await bench.click('button', 'History');
      await bench.untilText('removed ‘Plain Jane’');
      const found = (await bench.text()).match(/changed the text of ‘(Visit|Apply|Courses)’/g);
      await bench.click('button', 'History');
      return found?.length ?? 0;
    };
    await bench.open(spur, 'pellow-quay', '?lens=write');
    const before = await savings();
    // The first has links.
    for (const title of ['Visit', 'Apply', 'Courses']) {
      await bench.select(title);
      await bench.click('textbox', 'Text');
      await bench.press(Key.ARROW_DOWN, Key.ARROW_UP);
    }
    await bench.focusTree();
    await bench.saved();
    expect(await savings()).toBe(before);
  });

  it('is written in the editor, saved by itself, and live after the release', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq007');
    const editor = await bench.find('textbox', 'Text');
    await editor.sendKeys(
      Key.chord(Key.CONTROL, Key.END),
      ' Ask us about the ',
      Key.chord(Key.CONTROL, 'b'),
      'small print',
      Key.chord(Key.CONTROL, 'b'),
      '.',
    );
    await bench.until('it differs from what is live', async () => (await bench.text()).includes('Live, edited.'));
    await bench.saved();
    await bench.click('button', /^Make live…/);
    await bench.click('button', 'Make 1 page live');
    await bench.untilText('1 page made live.');
    const address = await bench.find('link', /^See it live/);
    await bench.driver.get((await address.getAttribute('href'))!);
    await bench.untilText('Ask us about the small print.');
    expect(await bench.driver.executeScript(`return document.querySelector('main strong').innerText`)).toBe(
      'small print',
    );
  });
});

describe('words in a text', () => {
  it('are linked to an address by the dialog', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq008');
    const editor = await bench.find('textbox', 'Text');
    await editor.sendKeys(Key.chord(Key.CONTROL, Key.HOME), Key.chord(Key.CONTROL, Key.SHIFT, Key.ARROW_RIGHT));
    await bench.until('a word is selected', () =>
      bench.driver.executeScript<boolean>('return !getSelection().isCollapsed'),
    );
    await bench.chord(Key.CONTROL, 'k');
    await bench.find('dialog', 'Link the selected words');
    await bench.click('radio', 'An outside address');
    const address = await bench.fill('Address', 'javascript:alert(1)');
    expect(await (await bench.find('button', 'Link them')).isEnabled()).toBe(false);
    await bench.fill('Address', 'https://yards.example/');
    await address.sendKeys(Key.ENTER);
    await bench.until('the words are a link', async () =>
      bench.driver.executeScript<boolean>(
        `return document.querySelector('.text-of-page a')?.getAttribute('href') === 'https://yards.example/'`,
      ),
    );
    await bench.until('it is saved', async () => (await bench.text()).includes('Live, edited.'));
  });
});

describe('a key that is quicker than the browser', () => {
  it('links what is selected on the screen', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq008');
    await (await bench.find('textbox', 'Text')).click();
    // Both within one task: the browser has not told of the selection when the key comes.
    await bench.driver.executeScript(`
      getSelection().selectAllChildren(document.querySelector('.text-of-page p'));
      document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key: 'k', ctrlKey: true, bubbles: true }));`);
    await bench.find('dialog', 'Link the selected words');
    await bench.press(Key.ESCAPE);
  });
});

describe('the history', () => {
  it('tells what was done, by whom', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.click('button', 'History');
    await bench.untilText('Marek Holt moved ‘Sharpening day’ into ‘Evening classes’');
    await bench.press(Key.ESCAPE);
  });
});

describe('a reader', () => {
  it('sees everything and is offered nothing that changes it', async () => {
    await bench.driver.manage().deleteAllCookies();
    await bench.signIn(spur, 'oona@pellow-quay.example');
    await bench.driver.get(`${spur.workbench}/sites/pellow-quay`);
    await bench.untilText('Workshops');
    for (const name of [/^New page/, /^Make live/, /^Remove$/]) expect(await bench.has('button', name)).toBe(false);
    await bench.focusTree();
    await bench.press(']');
    await bench.untilText('This needs the permission ‘Shape the tree’. On the whole site your role is Reader.');
  });
});
