import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Browser, openBrowser } from './support/browser.ts';
import { type Spur, startSpur } from './support/spur.ts';
import { Workbench } from './support/workbench.ts';

let spur: Spur;
let browser: Browser;
let manager: Workbench;
/** Somebody whom the plan was sent to. */
let theirs: Browser;
let guest: Workbench;
beforeAll(async () => {
  spur = await startSpur({ withDemo: true });
  [browser, theirs] = await Promise.all([openBrowser(), openBrowser()]);
  manager = new Workbench(browser.driver);
  guest = new Workbench(theirs.driver);
  await manager.signIn(spur);
});
afterAll(async () => {
  await Promise.all([browser?.close(), theirs?.close()]);
  await spur?.stop();
});

/** What the lines of the boxes say that is open: type, purpose and words. */
const boxes = (): Promise<string[]> =>
  browser.driver.executeScript(`return [...document.querySelectorAll('[data-box-row]')].map((row) =>
    [row.querySelector('select').selectedOptions[0].text, row.querySelector('textarea').value, row.querySelectorAll('input')[0].value]
      .filter(Boolean).join(' | '));`);
const untilBoxes = (expected: string[]) =>
  manager.until(`the boxes are ${expected.join(' / ')}`, async () => (await boxes()).join() === expected.join());

describe('a page that is sketched before it is written', () => {
  it('is typed as quickly as the tree: a line, Enter, the next one', async () => {
    await manager.open(spur, 'tern-sound', '?lens=plan');
    await manager.press('n');
    await manager.press('Ice on the slip', Key.ENTER, Key.ESCAPE);
    await manager.select('Ice on the slip');
    await manager.click('button', 'Sketch this page');
    await manager.click('textbox', 'Next box');
    await manager.press('What changes in winter, 60 words', Key.ENTER);
    await manager.press('Table: crossings by day', Key.ENTER);
    await manager.press('Button: Ask the desk', Key.ENTER);
    await untilBoxes(['Text | What changes in winter | 60', 'Table | crossings by day', 'Button | Ask the desk']);
    await manager.find('img', 'Variant A, 3 boxes');
  });

  it('goes on in the middle, moves by keys, and takes back an empty line', async () => {
    await manager.click('textbox', 'Purpose of box 1');
    await manager.press(Key.END, Key.ENTER);
    await manager.press('Picture: the slip under ice');
    await manager.chord(Key.CONTROL, Key.ARROW_UP);
    await untilBoxes([
      'Picture | the slip under ice',
      'Text | What changes in winter | 60',
      'Table | crossings by day',
      'Button | Ask the desk',
    ]);
    await manager.press(Key.ENTER);
    await manager.until('there is an empty line', async () => (await boxes()).length === 5);
    await manager.press(Key.BACK_SPACE);
    await manager.until('it is gone', async () => (await boxes()).length === 4);
    // Whoever types on does so in the line before, and no letter was a command.
    await manager.press(' tonight');
    await manager.click('textbox', 'Next box');
    await manager.until(
      'the words are kept',
      async () => (await boxes())[0] === 'Picture | the slip under ice tonight',
    );
  });

  it('has a second variant, which begins with the same boxes', async () => {
    await manager.click('button', 'Variant');
    await manager.find('img', 'Variant B, 4 boxes');
    await manager.click('button', /^Remove box 1/);
    await manager.find('img', 'Variant B, 3 boxes');
    await manager.find('img', 'Variant A, 4 boxes');
    await manager.click('button', 'As on a telephone');
    await manager.click('button', 'As on a desktop');
  });

  let link = '';
  it('is chosen and commented box by box by those whom the plan was sent to', async () => {
    await manager.open(spur, 'tern-sound', '?lens=plan&beside=sharing');
    await manager.fill('For whom', 'the skippers');
    await manager.click('button', 'Make the link');
    link = (await (await manager.find('textbox', 'The link for the skippers')).getAttribute('value'))!;
    await theirs.driver.get(link);
    await guest.select('Ice on the slip');
    await guest.click('button', 'B');
    await guest.click('button', 'Choose B');
    await guest.fill('Your name', 'Ulla Storm');
    await guest.click('button', 'Use this name');
    await guest.untilText('You chose B');
    await guest.choose('Say something about a box', /crossings by day/);
    await guest.untilText('About the box ‘crossings by day’ of variant B');
    await guest.fill('What should be different, or what do you want to know?', 'Say which days are holidays.');
    await guest.click('button', 'Send the comment');
    await guest.untilText('You wrote on');
    for (const words of ['Take this variant', 'Next box']) expect(await guest.text()).not.toContain(words);
  });

  it('tells its maker, who takes the variant: the page has its sections, empty', async () => {
    await manager.open(spur, 'tern-sound', '?lens=plan');
    await manager.select('Ice on the slip');
    await manager.untilText('About the box ‘crossings by day’ of variant B');
    await manager.click('button', 'Open the sketch');
    await manager.untilText('chosen by Ulla Storm');
    await manager.click('button', 'B');
    await manager.untilText('1 page without a text gets these 3 sections, empty.');
    await manager.click('button', 'Take this variant');
    await manager.untilText('This variant is taken');
    await manager.open(spur, 'tern-sound', '?lens=plan');
    await manager.select('Ice on the slip');
    await manager.untilText('0 of 3 sections written');
    await manager.untilRow('Ice on the slip', /0 of 3/);
  });

  it('is written at the desk, with the purposes as hints, and counted', async () => {
    await manager.open(spur, 'tern-sound', '?lens=write');
    await manager.select('Ice on the slip');
    await manager.focusTree();
    await manager.press('d');
    await manager.until('the first place says what it is for', () =>
      browser.driver.executeScript<boolean>(
        `return document.querySelector('.text-of-page .has-hint')?.dataset.hint === 'What changes in winter, about 60 words' && document.activeElement.classList.contains('text-of-page')`,
      ),
    );
    await manager.press('The last boat leaves at four.');
    await manager.untilText('Saved');
    await manager.open(spur, 'tern-sound', '?lens=plan');
    await manager.untilRow('Ice on the slip', /1 of 3/);
    // What is still empty is found.
    await manager.open(spur, 'tern-sound', '?lens=checks');
    await manager.untilRow('Ice on the slip', /planned section not written/);
  });

  it('is on paper: the map, then the sketches', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'spur-plan-'));
    await browser.keepFilesIn(folder);
    await manager.open(spur, 'tern-sound', '?lens=plan&beside=plan-pdf');
    await manager.untilText('2 sheets: the map, and one sketch.');
    await manager.click('button', 'Make the PDF');
    await manager.until('the file is there', () =>
      Promise.resolve(existsSync(join(folder, 'tern-sound-plan.pdf')) && readdirSync(folder).length === 1),
    );
    rmSync(folder, { recursive: true });
  });
});
