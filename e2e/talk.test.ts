import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();

/** That of the latest edit. */
const revision = () =>
  browser.driver.executeScript<number>(
    `return fetch('/api/sites/pellow-quay/history').then((answer) => answer.json()).then(({ entries }) => entries[0].revision)`,
  );

describe('colleagues talk', () => {
  it('about a page, by a key, and letters in what they say are no commands', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access');
    await bench.select('Course dates');
    await bench.focusTree();
    const before = await revision();
    await bench.press('c');
    await bench.until('there is a field for it', () => bench.has('textbox', 'Comment on ‘Course dates’'));
    await browser.driver.actions().sendKeys('New parents ask about this weekly, @mi').perform();
    await bench.until('her name is offered', () => bench.has('option', 'Mira Sand'));
    await browser.driver.actions().sendKeys(Key.TAB, 'and').perform();
    expect(await revision()).toBe(before);
    await bench.chord(Key.CONTROL, Key.ENTER);
    await bench.untilText('New parents ask about this weekly, @Mira Sand and');
    await bench.until('it says what it is about', () => bench.has('button', 'In the Access lens'));
    await bench.untilRow('Course dates', /^Course dates 1/);
  });

  it('and whoever is mentioned finds it among what concerns them, answers and settles it', async () => {
    await bench.signInAs(spur, 'mira@pellow-quay.example');
    await bench.open(spur, 'pellow-quay');
    await bench.click('button', /^For you: /);
    await bench.untilText('Ines Carrow mentions you');
    await bench.click('button', 'Read and answer');
    await bench.untilText('Settle it');
    const answer = await bench.find('textbox', 'Answer');
    await answer.sendKeys('It is in the questions now.');
    await bench.click('button', 'Answer');
    await bench.until('the answer is there', () => bench.has('button', 'Delete your comment'));
    await bench.click('button', 'Settle it');
    await bench.untilText('Settled by Mira Sand.');
    await bench.click('button', /^For you: /);
    await bench.untilText('One is new.');
    await bench.click('button', 'Mark all as read');
    await bench.untilText('You have read everything.');
    await bench.signInAs(spur, 'ines@pellow-quay.example');
    await bench.open(spur, 'pellow-quay', '?beside=for-you');
    await bench.untilText('Mira Sand answers');
  });

  it('about words of a text, which stay marked as the text changes', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=write');
    await bench.select('Apply');
    await bench.until('the text is there', () =>
      browser.driver.executeScript<boolean>(`return document.querySelector('.text-of-page p') !== null`),
    );
    await browser.driver.executeScript(`
      const [text] = document.querySelectorAll('.text-of-page');
      const first = text.querySelector('p').firstChild;
      text.focus();
      document.getSelection().setBaseAndExtent(first, 0, first, 6);`);
    await bench.until('the words can be talked about', () => bench.has('button', 'Comment on the selected words'));
    await bench.click('button', 'Comment on the selected words');
    await bench.untilText('Comments');
    await bench.until('there is a field for it', () => bench.has('textbox', 'Comment on ‘Apply’'));
    const field = await bench.find('textbox', 'Comment on ‘Apply’');
    await field.sendKeys('Is this the right word?');
    await bench.chord(Key.CONTROL, Key.ENTER);
    await bench.until('the words are marked', async () =>
      browser.driver.executeScript<boolean>(
        `return document.querySelector('.talked-about')?.title.includes('right word')`,
      ),
    );
    const marked = () =>
      browser.driver.executeScript<string>(`return document.querySelector('.talked-about').textContent`);
    const words = await marked();
    await browser.driver.executeScript(`document.querySelector('.text-of-page').focus()`);
    await bench.chord(Key.CONTROL, Key.HOME);
    await browser.driver.actions().sendKeys('Today: ').perform();
    await bench.saved();
    expect(await marked()).toBe(words);
    await browser.driver.navigate().refresh();
    await bench.until('the words are marked again', async () => (await marked().catch(() => '')) === words);
  });

  it('only where they may read', async () => {
    await bench.signInAs(spur, 'kofi@words.example');
    await bench.open(spur, 'pellow-quay', '?find=Boats%20built');
    await bench.select('Boats built');
    await bench.find('textbox', 'Comment on ‘Boats built’');
    await bench.open(spur, 'pellow-quay');
    await bench.select('Visit');
    await bench.untilText('They are for those who may read the page.');
  });
});
