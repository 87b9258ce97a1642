import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();

describe('the practice page', () => {
  it('is where somebody who writes in another branch may make, move and rename pages', async () => {
    await bench.signInAs(spur, 'kofi@words.example');
    await bench.open(spur, 'pellow-quay', '?lens=publish&find=Write%20and%20arrange');
    await bench.select('Write and arrange');
    await bench.untilRow('Write and arrange', /Practice/);
    await bench.focusTree();
    await bench.press(Key.F2);
    await browser.driver.actions().sendKeys(Key.chord(Key.CONTROL, 'a'), 'Mine now', Key.ENTER).perform();
    await bench.saved();
    await bench.open(spur, 'pellow-quay', '?find=Mine%20now');
    await bench.untilTree('it has the title', (tree) => tree.some((row) => row.includes('Mine now')));
  });

  it('is cleared by whoever practises, and comes back by undo', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=write&find=Practice%20page');
    await bench.select('Practice page');
    await bench.untilText('It never goes live, and whoever writes on the site may change it.');
    await bench.click('button', 'Clear the practice page');
    await bench.untilText('The practice page is as it was at the beginning.');
    await bench.saved();
    await bench.open(spur, 'pellow-quay', '?find=Write%20and%20arrange');
    await bench.untilTree('the exercise is there again', (tree) =>
      tree.some((row) => row.includes('Write and arrange')),
    );
    await bench.click('button', 'Undo your last change');
    await bench.open(spur, 'pellow-quay', '?find=Mine%20now');
    await bench.untilTree('it is as it was', (tree) => tree.some((row) => row.includes('Mine now')));
  });

  it('never goes live, however it is asked for', async () => {
    await bench.signInAs(spur);
    await bench.open(spur, 'pellow-quay', '?lens=publish&find=Practice%20page');
    await bench.select('Practice page');
    expect(await bench.has('button', 'Make this page live…')).toBe(false);
  });

  it('comes with every new site, and is no page of it yet', async () => {
    await browser.driver.get(`${spur.workbench}/sites`);
    await bench.click('button', 'New site');
    await bench.fill('Name', 'Rope walk');
    await bench.press(Key.ENTER);
    await bench.untilText('Add the first page');
    await bench.click('button', /^Add the first page/);
    await browser.driver.actions().sendKeys('Welcome', Key.ENTER, Key.ESCAPE).perform();
    await bench.untilTree(
      'the first page stands before it',
      (tree) => tree[0] === 'Welcome' && tree[1] === 'Practice page',
    );
    await bench.untilRow('Welcome', /^Welcome/);
  });
});
