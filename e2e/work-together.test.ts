import { By, Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { bothSignedIn } from './support/signed-in.ts';
import type { Workbench } from './support/workbench.ts';

const { spur, ines, marek } = await bothSignedIn();

describe('two people on one site', () => {
  it('see each other’s edits without reloading, and neither loses the selection or what is being typed', async () => {
    await ines.open(spur, 'pellow-quay');
    await marek.open(spur, 'pellow-quay');
    await ines.select('Workshops');
    await ines.driver.executeScript('window.stayed = true');
    const field = await ines.fill('Menu label', 'Half typ');

    await marek.select('Visit');
    await marek.press(Key.F2);
    await marek.fill('New title of Visit', 'Come and see');
    await marek.press(Key.ENTER);
    await ines.untilTree('Marek’s title has come', (tree) => tree.includes('Come and see'));

    expect(await field.getAttribute('value')).toBe('Half typ');
    await field.sendKeys('ed', Key.ENTER);
    await marek.select('Workshops');
    await marek.until(
      'Ines’s label has come',
      async () => (await (await marek.find('textbox', 'Menu label')).getAttribute('value')) === 'Half typed',
    );
    expect(await ines.driver.executeScript('return window.stayed')).toBe(true);
    const chosen = await ines.driver.findElement(By.css('[role=row][aria-selected=true]'));
    expect(await chosen.getText()).toMatch(/^Workshops/);
  });

  it('see that somebody writes in a text before they write in it too', async () => {
    await ines.open(spur, 'pellow-quay', '?lens=write&page=pq012');
    await marek.open(spur, 'pellow-quay', '?lens=write&page=pq012');
    await (await ines.find('textbox', 'Text')).sendKeys('Tides. ');
    await marek.untilText('Ines Carrow is writing in this text now. What each of you writes is kept.');
    expect(await ines.text()).not.toContain('is writing in this text');
    await ines.select('Apply');
    await marek.until('she has left it', async () => !(await marek.text()).includes('is writing in this text'));
  });

  it('see which field the other is changing, until it is left', async () => {
    await ines.open(spur, 'pellow-quay', '?page=pq012');
    await marek.open(spur, 'pellow-quay', '?page=pq012');
    await (await marek.find('textbox', 'Menu label')).sendKeys('Short');
    await ines.untilText('Marek Holt is changing this');
    expect(await marek.text()).not.toContain('is changing this');
    await marek.press(Key.ESCAPE);
    await marek.focusTree();
    const hasLeft = () => ines.until('he has left it', async () => !(await ines.text()).includes('is changing this'));
    await hasLeft();
    // A title that is typed in the tree is the field of the side sheet.
    await ines.open(spur, 'pellow-quay', '?lens=write&page=pq012');
    await marek.press(Key.F2);
    await ines.untilText('Marek Holt is changing this');
    await marek.press(Key.ESCAPE);
    await hasLeft();
  });

  it('see that of the settings too, where both have the same one open, and not in another', async () => {
    await ines.open(spur, 'pellow-quay', '?lens=menus&beside=layouts/handbook');
    await marek.open(spur, 'pellow-quay', '?lens=menus&beside=layouts');
    await marek.click('button', /^Handbook/);
    await (await marek.find('textbox', 'Name')).sendKeys(' of all');
    await ines.untilText('Marek Holt is changing this');
    await ines.open(spur, 'pellow-quay', '?lens=menus&beside=layouts/bare');
    await ines.find('textbox', 'Name');
    await marek.press('!');
    expect(await ines.text()).not.toContain('is changing this');
    await ines.open(spur, 'pellow-quay', '?lens=menus&beside=layouts/handbook');
    await ines.untilText('Marek Holt is changing this');
    // The field goes while the keyboard is in it.
    await marek.driver.navigate().back();
    await ines.until('he has left it', async () => !(await ines.text()).includes('is changing this'));
  });

  it('undo their own changes only, and are told when somebody’s later change stands in the way', async () => {
    await ines.open(spur, 'tern-sound');
    await marek.open(spur, 'tern-sound');
    const rename = async (who: Workbench, from: string, to: string) => {
      await who.select(from);
      await who.press(Key.F2);
      await who.fill(`New title of ${from}`, to);
      await who.press(Key.ENTER);
      await who.untilTree(`it is ${to}`, (tree) => tree.includes(to));
      await who.saved();
    };
    await rename(ines, 'Boats', 'Vessels');
    await marek.untilTree('Ines’s title has come', (tree) => tree.includes('Vessels'));
    await rename(marek, 'Office', 'Bureau');
    await ines.chord(Key.CONTROL, 'z');
    await ines.untilTree('her own change is undone', (tree) => tree.includes('Boats') && tree.includes('Bureau'));
    await ines.chord(Key.CONTROL, Key.SHIFT, 'z');
    await ines.untilTree('it is made again', (tree) => tree.includes('Vessels'));

    await marek.untilTree('it has come back', (tree) => tree.includes('Vessels'));
    await rename(marek, 'Vessels', 'Fleet');
    await ines.untilTree('Marek’s title has come', (tree) => tree.includes('Fleet'));
    await ines.focusTree();
    await ines.chord(Key.CONTROL, 'z');
    await ines.untilText('Marek Holt renamed ‘Vessels’ to ‘Fleet’');
    await ines.click('button', 'Undo both');
    await ines.untilTree('both are undone', (tree) => tree.includes('Boats'));
  });

  it('are told when the other’s later change took the place of theirs, and can have it again', async () => {
    await ines.open(spur, 'pellow-quay');
    await marek.open(spur, 'pellow-quay');
    const rename = async (who: Workbench, from: string, to: string) => {
      await who.select(from);
      await who.press(Key.F2);
      await who.fill(`New title of ${from}`, to);
      await who.press(Key.ENTER);
      await who.saved();
    };
    await rename(ines, 'Apply', 'How to join');
    await marek.untilTree('Ines’s title has come', (tree) => tree.includes('How to join'));
    await rename(marek, 'How to join', 'Admissions');
    await ines.untilText('This replaced your change.');
    await ines.click('button', 'Restore mine');
    await marek.untilTree('her title is back', (tree) => tree.includes('How to join'));
  });

  it('can each work on while a branch is removed: what was moved into it is not lost without a word', async () => {
    await ines.open(spur, 'pellow-quay');
    await marek.open(spur, 'pellow-quay');
    await ines.select('Course dates');
    await ines.press(']');
    await ines.untilTree('it is nested', (tree) => !tree.includes('  Course dates'));
    await ines.saved();
    await marek.select('Evening classes');
    await marek.press(Key.DELETE);
    await marek.click('button', /^Remove \d+ pages/);
    await ines.untilText('This replaced your change.');
    await ines.click('button', 'Restore mine');
    await marek.untilTree('it stands in the tree again', (tree) => tree.includes('  Course dates'));
    expect((await marek.tree()).includes('  Evening classes')).toBe(false);
  });
});
