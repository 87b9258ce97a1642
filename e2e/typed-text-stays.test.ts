import { By, Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

// The numbers are those of what people were promised: nothing typed is lost.
const { spur, bench } = await signedIn();
const KEY = 'pellow-quay';

const isDialogOpen = async () => (await bench.driver.findElements(By.css('[role=dialog]'))).length > 0;
const closed = () => bench.until('the dialog is closed', async () => !(await isDialogOpen()));
const valueOf = async (name: string | RegExp) => (await bench.find('textbox', name)).getAttribute('value');
/** Makes an edit as somebody else does, at another browser. */
const elsewhere = (operations: object[]) =>
  bench.driver.executeAsyncScript(
    `const [path, body, done] = arguments; fetch(path, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body }).then((answer) => done(answer.status))`,
    `/api/sites/${KEY}/operations`,
    JSON.stringify({ operations }),
  );
const exported = async (title: string): Promise<{ id: string; content: string }> =>
  bench.driver.executeAsyncScript(
    `const [path, title, done] = arguments; fetch(path).then((answer) => answer.json()).then(({ pages }) => done(pages.find((page) => JSON.stringify(page.title).includes(title))))`,
    `/api/sites/${KEY}/exports/site.json`,
    title,
  );
const idOf = async (title: string): Promise<string> => (await exported(title)).id;

describe('2: what was typed', () => {
  it('into a fact of the site is saved by Escape', async () => {
    const open = async () => {
      await bench.click('button', 'Facts');
      await bench.click('button', /^Telephone/);
    };
    await bench.open(spur, KEY, '?lens=menus');
    await open();
    const field = await bench.find('textbox', 'What it says');
    await bench.driver.executeScript('arguments[0].focus(); arguments[0].select()', field);
    await field.sendKeys('Slipway 3, at the lamp', Key.ESCAPE);
    await bench.find('button', 'Add the fact');
    await bench.saved();
    await bench.click('button', /^Telephone/);
    expect(await valueOf('What it says')).toBe('Slipway 3, at the lamp');
  });

  it('as a list of pages comes back when the dialog is opened again, also after a reload, until the pages are made', async () => {
    await bench.open(spur, 'tern-sound');
    await bench.press('l');
    await (await bench.find('textbox', /^The list/)).sendKeys('Wharf\n  Crane');
    await bench.press(Key.ESCAPE);
    await closed();
    await bench.open(spur, 'tern-sound');
    await bench.press('l');
    expect(await valueOf(/^The list/)).toBe('Wharf\n  Crane');
    await bench.click('button', /^Make 2 pages/);
    await closed();
    await bench.focusTree();
    await bench.press('l');
    expect(await valueOf(/^The list/)).toBe('');
    await bench.press(Key.ESCAPE);
    await closed();
  });

  it('as a question comes back with its page', async () => {
    await bench.open(spur, KEY, '?lens=plan');
    await bench.select('Course dates');
    await (await bench.find('textbox', /needs an answer|Another question/)).sendKeys('Who sets the dates');
    await bench.select('Bursaries');
    expect(await valueOf(/needs an answer|Another question/)).toBe('');
    await bench.select('Course dates');
    expect(await valueOf(/needs an answer|Another question/)).toBe('Who sets the dates');
  });

  it('on a page that somebody else removes meanwhile is offered for keeping, and comes back with the page', async () => {
    await bench.open(spur, KEY, '?lens=write');
    await bench.select('Bursaries');
    await (await bench.find('textbox', /^Text/)).click();
    await bench.press(Key.END);
    await bench.press('Kept to the last word.');
    await elsewhere([{ name: 'page.remove', page: await idOf('Bursaries') }]);
    await bench.untilTree('it is gone', (tree) => !tree.some((row) => row.includes('Bursaries')));
    await bench.click('button', /^(Save my work|Restore mine)/);
    await bench.untilTree('it is back', (tree) => tree.some((row) => row.includes('Bursaries')));
    await bench.select('Bursaries');
    await bench.until('with the words', async () =>
      (await (await bench.find('textbox', /^Text/)).getText()).includes('Kept to the last word.'),
    );
  });

  it('right before the page is closed is there when it is opened again', async () => {
    await bench.open(spur, KEY, '?lens=write&find=Borrowing');
    await bench.select('Borrowing tools');
    await (await bench.find('textbox', /^Text/)).click();
    await bench.press('The key is with Oona. ');
    await bench.open(spur, KEY, '?lens=write&find=Borrowing');
    await bench.select('Borrowing tools');
    await bench.untilText('The key is with Oona.');
  });

  it('into a text that somebody else replaces as a whole can be had again, and is written on in theirs', async () => {
    await bench.open(spur, KEY, '?lens=write');
    await bench.select('Course dates');
    await (await bench.find('textbox', /^Text/)).click();
    await bench.press('Mine. ');
    await bench.until('it is saved', async () => (await bench.text()).includes('Live, edited.'));
    await bench.saved();
    const textHas = (words: string) => async () =>
      (await (await bench.find('textbox', /^Text/)).getText()).includes(words);
    // As somebody does who pastes the text of another page over it.
    const { content } = await exported('How to apply');
    const page = await idOf('Course dates');
    expect(await elsewhere([{ name: 'page.set', page, fields: { content } }])).toBe(200);
    await bench.untilText('This replaced your change.');
    await bench.until('theirs has come in', async () => !(await textHas('Mine.')()));
    await bench.press('And on. ');
    await bench.until('what is written stands in theirs', textHas('And on.'));
    await bench.saved();
    await bench.click('button', 'Restore mine');
    await bench.until('hers is back', textHas('Mine.'));
  });
});

describe('16: what is pasted into a text', () => {
  it('keeps tables and the words of pictures, and says what became of them', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=write&page=pq021');
    await bench.find('textbox', 'Text');
    await bench.driver.executeScript(
      `const [html] = arguments;
      const data = new DataTransfer();
      data.setData('text/html', html);
      const editor = document.querySelector('.text-of-page');
      editor.focus();
      editor.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));`,
      '<p>Tides</p><table><tr><th>Day</th><th>High water</th></tr><tr><td>Monday</td><td>06:12</td></tr></table><p><img src="https://quay.example/x.png" alt="The slip at low water"></p>',
    );
    await bench.untilText('A picture was left out');
    const text = await bench.driver.executeScript<string>(`return document.querySelector('.text-of-page').innerText`);
    const cells = await bench.driver.executeScript<string[]>(
      `return [...document.querySelectorAll('.text-of-page :is(th, td)')].map((one) => one.tagName + ' ' + one.innerText)`,
    );
    expect(cells).toEqual(['TH Day', 'TH High water', 'TD Monday', 'TD 06:12']);
    expect(text).toContain('(Picture: The slip at low water)');
  });
});
