import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { accessibilityFaults } from './support/accessibility.ts';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();
const folder = mkdtempSync(join(tmpdir(), 'spur-e2e-files-'));
const put = (name: string, bytes: Buffer | string): string => {
  const file = join(folder, name);
  writeFileSync(file, bytes);
  return file;
};
const script = <Result>(text: string): Promise<Result> => browser.driver.executeScript<Result>(text);

/** Chooses files from the computer, in the field that a button opens. */
const choose = async (within: string, ...files: string[]): Promise<void> =>
  (await browser.driver.findElement(By.css(`${within} input[type=file]`))).sendKeys(files.join('\n'));

describe('the library beside the tree', () => {
  let photo: string;
  let other: string;
  beforeAll(async () => {
    const made = (colour: string) =>
      sharp({ create: { width: 900, height: 600, channels: 3, background: colour } })
        .jpeg()
        .toBuffer();
    photo = put('cattle_on-the-ramp.jpg', await made('#4477aa'));
    other = put('cattle.jpg', await made('#aa7744'));
  });

  it('takes several files at once, and says what is wrong with one that it does not take', async () => {
    await bench.open(spur, 'tern-sound', '?lens=write&beside=files');
    await choose('aside', photo, put('Rules.txt', 'No cattle before six.'), put('run.sh', '#!/bin/sh\nexit'));
    await bench.find('button', /^Cattle on-the-ramp/);
    await bench.find('button', /^Rules/);
    await bench.until('the third is refused, with the reason', async () =>
      /run\.sh’ is nothing that is known by its bytes/.test(
        await script(`return document.querySelector('aside').innerText`),
      ),
    );
    await bench.click('button', 'Put run.sh aside');
    expect(await accessibilityFaults(browser)).toEqual([]);
  });

  it('asks for words for those who do not see a picture, and lets its middle be moved by the keyboard', async () => {
    await bench.until('its sizes are made', async () =>
      /No words for those who do not see it/.test(await script(`return document.querySelector('aside').innerText`)),
    );
    await bench.click('button', /^Cattle on-the-ramp/);
    await bench.fill(/^What it shows/, 'Four cows walk down the ramp');
    await bench.press(Key.TAB);
    const point = await bench.find('button', /^What stays in sight/);
    await point.sendKeys(Key.ARROW_LEFT, Key.ARROW_UP);
    await bench.find('button', /45 % from the left, 45 % from the top/);
    expect(await script(`return document.querySelector('aside').innerText`)).toContain(
      'Only colleagues can open it: no live page shows it.',
    );
    expect(await accessibilityFaults(browser)).toEqual([]);
  });

  it('puts a picture into a text by keys alone, where the visitors of the page see it', async () => {
    await bench.open(spur, 'tern-sound', '?lens=write&find=Special');
    await bench.select('Special crossings');
    await bench.focusTree();
    await bench.press('d');
    await bench.until('the text has the keyboard', () =>
      script(`return document.activeElement.classList.contains('text-of-page')`),
    );
    await bench.chord(Key.CONTROL, Key.ENTER);
    await bench.until('the list has the keyboard', () =>
      script(`return document.activeElement.placeholder === 'Find a section'`),
    );
    await bench.press('photo', Key.ENTER);
    await bench.until('the choice has the keyboard', () =>
      script(`return document.activeElement.hasAttribute('data-first-choice')`),
    );
    await bench.press(Key.TAB, Key.ENTER);
    await bench.until('the caption has the keyboard', () =>
      script(
        `return document.activeElement.classList.contains('text-of-page') && document.querySelector('figure.picture img') !== null`,
      ),
    );
    await bench.press('On the ramp');
    await bench.saved();
    await bench.click('button', 'Make live…');
    await bench.click('radio', /Everything that waits/);
    await bench.click('button', /^Make .* live/);
    await bench.untilText('made live');
    await bench.until('visitors see it', async () => {
      await browser.driver.get(`${spur.live}/tern-sound/crossings/special-crossings`);
      return script(
        `const image = document.querySelector('figure.picture img'); return image?.alt === 'Four cows walk down the ramp' && image.naturalWidth > 0 && document.querySelector('figcaption').innerText === 'On the ramp'`,
      );
    });
  });

  it('marks the pages that show a file, and replaces it on all of them', async () => {
    await bench.open(spur, 'tern-sound', '?lens=write&beside=files');
    await bench.click('button', /^Cattle on-the-ramp/);
    await bench.untilText('Everyone can open it, through ‘Special crossings’.');
    await bench.untilRow('Special crossings', /shows it/);
    const before = await script<string>(`return document.querySelector('aside img').src`);
    await choose('aside', other);
    await bench.until(
      'the other one shows',
      async () => (await script<string>(`return document.querySelector('aside img').src`)) !== before,
    );
    await bench.click('button', /^Remove the file/);
    expect(await script(`return document.querySelector('aside').innerText`)).toContain(
      '1 page shows it, and will show nothing in its place, live pages at once.',
    );
    await bench.click('button', 'Keep it');
  });
});
