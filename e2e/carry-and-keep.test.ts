import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { pause } from './support/screen.ts';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();

describe('several pages', () => {
  it('get the same fields at once, with what changes said before, and one undo takes it back', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Open Saturdays');
    await bench.select('How to find us', Key.SHIFT);
    await bench.click('button', 'Set fields…');
    await bench.find('button', 'Close set fields');
    await bench.choose('Hidden', /^The page$/);
    await bench.choose('In menus', /^Off menus$/);
    await bench.untilText('No address changes.');
    await bench.click('button', 'Set 3 pages');
    const chosen = () =>
      browser.driver.executeScript<string[]>(
        `return [...document.querySelectorAll('[role=row][aria-selected=true]')].map((row) => row.innerText.replace(/\\s+/g, ' '))`,
      );
    await bench.until('all three have both', async () => {
      const rows = await chosen();
      return rows.length === 3 && rows.every((row) => / Off Page hidden/.test(row));
    });
    await bench.saved();
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'z');
    await bench.until('one undo takes both back', async () => (await chosen()).every((row) => / In Shown/.test(row)));
  });

  it('are removed with what is below, after it is said how many that are', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Short courses');
    await bench.select('Evening classes', Key.CONTROL);
    await bench.click('button', 'Remove 2 pages and the 13 below them');
    await bench.untilText('13 pages below are removed too.');
    await bench.untilText('15 addresses disappear:');
    await bench.click('button', 'Remove 15 pages');
    await bench.untilTree('they are gone', (tree) => !tree.includes('  Short courses'));
    await bench.saved();
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'z');
    await bench.untilTree('one undo brings all back', (tree) => tree.includes('  Short courses'));
  });
});

describe('removed pages', () => {
  it('come back one alone, and the rest stays', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Workshops');
    await bench.press(Key.DELETE);
    await bench.click('button', 'Remove 7 pages');
    await bench.saved();
    await bench.click('button', 'Removed pages');
    await bench.untilText('from the top level.');
    await browser.driver.executeScript(
      `document.querySelector('aside[aria-label="Removed pages"] details').open = true`,
    );
    await bench.click('button', 'Put back only this: The smithy');
    await bench.untilTree('it stands at the top level', (tree) => tree.includes('The smithy'));
    expect((await bench.tree()).includes('Workshops')).toBe(false);
    await bench.saved();
  });

  it('come back to the nearest page above that is there, and it is said', async () => {
    await bench.open(spur, 'pellow-quay', '?page=pq012');
    await bench.focusTree();
    await bench.press(Key.ARROW_RIGHT);
    const title = 'Steam bending and laminating';
    await bench.select(title);
    await bench.press(Key.DELETE);
    await bench.click('button', 'Remove 1 page');
    await bench.saved();
    await bench.select('Short courses');
    await bench.press(Key.DELETE);
    await bench.click('button', /^Remove \d+ pages$/);
    await bench.saved();
    await bench.click('button', 'Removed pages');
    await bench.untilText('‘Short courses’ no longer exists: it will be put back in ‘Courses’');
    await bench.click('button', `Put back ${title}`);
    await bench.untilTree('it stands there', (tree) => tree.includes(`  ${title}`));
  });

  it('are deleted for good after a question, but not while visitors have them', async () => {
    await bench.open(spur, 'tern-sound');
    await bench.focusTree();
    await bench.press('n');
    await bench.press('A slip of the pen', Key.ENTER, Key.ESCAPE);
    await bench.select('A slip of the pen');
    await bench.press(Key.DELETE);
    await bench.click('button', 'Remove 1 page');
    await bench.saved();
    await bench.click('button', 'Removed pages');
    await bench.click('button', 'Delete for good… A slip of the pen');
    await bench.click('button', 'Delete 1 page for good');
    await bench.until('it is not in the list', async () => !(await bench.text()).includes('A slip of the pen Removed'));
    await bench.press(Key.ESCAPE);
    await bench.select('Boats');
    await bench.press(Key.DELETE);
    await bench.click('button', /^Remove \d+ pages$/);
    await bench.saved();
    await bench.click('button', 'Removed pages');
    await bench.click('button', 'Delete for good… Boats');
    await bench.untilText('Visitors still have it. Make the removal live first');
    expect(await bench.has('button', /^Delete \d+ pages for good$/)).toBe(false);
  });
});

describe('a branch that is cut', () => {
  it('moves within the site by keys alone, and Escape lets go of it', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('Course dates');
    await bench.chord(Key.CONTROL, 'x');
    await bench.untilText('It stays until you paste; press Escape to cancel.');
    await bench.press(Key.ESCAPE);
    await bench.chord(Key.CONTROL, 'x');
    await bench.select('Visit');
    await bench.chord(Key.CONTROL, 'v');
    await bench.click('radio', 'Inside it, last');
    await bench.until('the strip tells', async () => /\/visit\/course-dates/.test(await bench.strip()));
    await bench.click('button', 'Move 1 page');
    await bench.untilTree('it stands there', (tree) => tree.indexOf('  Course dates') > tree.indexOf('Visit'));
    await bench.saved();
  });

  it('moves to another site, and is gone from the first', async () => {
    await bench.open(spur, 'pellow-quay');
    await bench.select('School groups');
    await bench.chord(Key.CONTROL, 'x');
    await bench.open(spur, 'tern-sound');
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'v');
    await bench.click('button', 'Move 1 page');
    await bench.untilTree('it is here', (tree) => tree.includes('School groups'));
    // It leaves the other site once this one has it; the dialog closes then.
    await bench.until('the dialog has closed', async () => {
      const dialogs = await bench.driver.findElements(By.css('[role="dialog"]'));
      return dialogs.length === 0;
    });
    await bench.open(spur, 'pellow-quay');
    await bench.untilTree('it is not there', (tree) => tree.includes('Visit') && !tree.includes('  School groups'));
  });

  it('is put back in the first site by undoing in the other', async () => {
    await bench.open(spur, 'tern-sound');
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'z');
    await bench.untilTree('it is gone here', (tree) => !tree.includes('School groups'));
    await bench.untilText('In ‘Pellow Quay School of Boatbuilding’, where it was cut, this is kept');
    await bench.click('button', 'Put back there');
    await bench.untilText('Put back in ‘Pellow Quay School of Boatbuilding’.');
    await bench.open(spur, 'pellow-quay');
    await bench.untilTree('it is there again', (tree) => tree.includes('  School groups'));
  });

  it('and nothing is offered to be undone or redone where there is nothing', async () => {
    await bench.driver.executeAsyncScript(
      `fetch('/api/sites', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ key: 'sluice', name: 'Sluice' }) }).then(arguments[0])`,
    );
    await bench.open(spur, 'sluice');
    const untilOn = (undo: boolean, redo: boolean) =>
      bench.until(`undo is ${undo ? 'on' : 'off'}, redo is ${redo ? 'on' : 'off'}`, async () => {
        const names = ['Undo your last change', 'Redo your last undone change'];
        const are = await Promise.all(names.map(async (name) => (await bench.find('button', name)).isEnabled()));
        return are[0] === undo && are[1] === redo;
      });
    await untilOn(false, false);
    await bench.focusTree();
    await bench.press('n', 'Gates', Key.ENTER, Key.ESCAPE);
    await untilOn(true, false);
    await bench.click('button', 'Undo your last change');
    await untilOn(false, true);
    await bench.click('button', 'Redo your last undone change');
    await untilOn(true, false);
  });
});

describe('the map', () => {
  it('is exported as SVG, PNG and PDF, with the title and the date', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'spur-files-'));
    await browser.keepFilesIn(folder);
    await bench.open(spur, 'pellow-quay', '?view=map');
    for (const kind of ['SVG', 'PNG', 'PDF']) {
      await bench.click('button', 'Export the map…');
      await bench.choose('Kind of file', new RegExp(`^${kind}`));
      await bench.click('button', `Make the ${kind}`);
      await bench.until('the dialog has closed', async () => !(await bench.has('button', `Make the ${kind}`)));
    }
    const files = ['pdf', 'png', 'svg'].map((kind) => `pellow-quay-map.${kind}`);
    await bench.until('the files are there', () => Promise.resolve(readdirSync(folder).sort().join() === files.join()));
    const read = (end: string) => readFileSync(join(folder, `pellow-quay-map${end}`));
    expect(read('.svg').toString()).toMatch(/>Pellow Quay School of Boatbuilding<.*20\d\d</s);
    expect(read('.png').subarray(1, 4).toString()).toBe('PNG');
    expect(read('.pdf').subarray(0, 5).toString()).toBe('%PDF-');
    rmSync(folder, { recursive: true });
  });
});

describe('on a telephone', () => {
  it('the tree is looked at, opened and changed', async () => {
    await browser.resize(390, 800);
    await bench.open(spur, 'pellow-quay', '?view=sheet');
    const wide = await browser.driver.executeScript<number>('return document.documentElement.scrollWidth');
    expect(wide).toBeLessThanOrEqual(390);
    await bench.select('Apply');
    await bench.click('button', 'In menus: Apply');
    await bench.until('it is off menus', async () => bench.has('button', 'Off menus: Apply'));
    await bench.click('button', 'As a map');
    await bench.find('tree', 'Map of the pages');
    await pause(900);
    await bench.click('button', 'As rows');
    await bench.saved();
    await browser.resize(1280, 800);
  });
});
