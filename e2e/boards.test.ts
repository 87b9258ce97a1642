import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Browser, openBrowser } from './support/browser.ts';
import { type Spur, startSpur } from './support/spur.ts';
import { Workbench } from './support/workbench.ts';

let spur: Spur;
let browser: Browser;
let bench: Workbench;
beforeAll(async () => {
  spur = await startSpur({ withDemo: true });
  browser = await openBrowser();
  bench = new Workbench(browser.driver);
  await bench.signIn(spur);
});
afterAll(async () => {
  await browser?.close();
  await spur?.stop();
});

/** Where a piece lies on the screen, by its words. */
async function placeOf(name: RegExp): Promise<{ x: number; y: number; width: number }> {
  const { x, y, width } = await (await bench.find('button', name)).getRect();
  return { x: Math.round(x), y: Math.round(y), width: Math.round(width) };
}

describe('a board for the look', () => {
  it('takes notes and colours, which are moved by keys and by the pointer', async () => {
    await bench.open(spur, 'tern-sound', '?lens=plan');
    await bench.click('button', 'Boards');
    await bench.fill('The first board', 'Fog');
    await bench.press(Key.ENTER);
    await bench.untilText('Put pictures, colours, type and notes here.');
    await bench.click('button', 'Note');
    await bench.fill('Note', 'Grey, and one red light.');
    await bench.click('button', 'Colour');
    await bench.fill('Name (optional)', 'Lamp');
    await bench.press(Key.ENTER);
    const lamp = /^Colour: Lamp/;
    await bench.find('button', /^Note: Grey, and one red light/);
    const before = await placeOf(lamp);
    await bench.click('button', lamp);
    await bench.press(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN);
    await bench.until('it lies lower', async () => (await placeOf(lamp)).y > before.y);
    await browser.driver
      .actions()
      .move({ origin: await bench.find('button', lamp) })
      .press()
      .move({ origin: await bench.find('button', lamp), x: 60, y: 0 })
      .release()
      .perform();
    await bench.until('it lies further to the right', async () => (await placeOf(lamp)).x > before.x + 40);
  });

  it('is undone step by step, and keeps what is left', async () => {
    const moved = await placeOf(/^Colour: Lamp/);
    await bench.click('button', 'Undo your last change');
    await bench.until('it is back', async () => (await placeOf(/^Colour: Lamp/)).x < moved.x);
    await bench.click('button', /^Note: Grey/);
    await bench.press(Key.DELETE);
    await bench.until('the note is gone', async () => !(await bench.text()).includes('Grey, and one red light.'));
    await bench.find('button', /^Colour: Lamp/);
  });

  it('takes a picture from the library, and its colours', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=plan&beside=boards/tide');
    await bench.click('button', /^Picture: /);
    await bench.click('button', 'Pick its colours');
    await bench.untilText('on the board.');
    expect(
      (await browser.driver.findElements(By.css('[role=group][aria-label^="The board"] button[aria-label^="Colour"]')))
        .length,
    ).toBeGreaterThan(3);
  });

  it('becomes looks to try on pages of the site, and nothing changes by that', async () => {
    await bench.click('button', 'Try as looks');
    await bench.untilText('Nothing changes until you take one.');
    await bench.find('button', 'Take this look: Suggestion 1');
  });

  it('is seen by those whom the plan was sent to, who say what they think of a piece', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=plan');
    await bench.click('button', 'Share');
    const link = (await (await bench.find('textbox', 'The link for the governors')).getAttribute('value'))!;
    await browser.driver.get(link);
    await bench.click('button', 'Boards');
    await bench.click('button', 'Low tide');
    await bench.click('button', /^Colour: Buoy/);
    await bench.untilText('About the colour ‘Buoy’ on the board ‘Low tide’');
    await bench.fill('What should be different, or what do you want to know?', 'Too loud for me.');
    await bench.click('button', 'Send the comment');
    await bench.fill('Your name', 'Jory Pell');
    await bench.click('button', 'Use this name');
    await bench.untilText('You wrote on');
    await bench.open(spur, 'pellow-quay', '?lens=plan&beside=boards/tide');
    await bench.untilText('Too loud for me.');
    await bench.click('button', 'Settle it');
    await bench.untilText('Settled by Ines Carrow');
  });
});
