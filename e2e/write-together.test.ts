import { By, Key, type WebElement } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { bothSignedIn } from './support/signed-in.ts';
import type { Workbench } from './support/workbench.ts';

const { spur, browsers, ines, marek } = await bothSignedIn();
for (const who of [ines, marek]) await who.open(spur, 'pellow-quay', '?lens=write&page=pq012');

const textOf = (who: Workbench, name = 'Text'): Promise<WebElement> => who.find('textbox', name);
/** What stands in the text, without what says who is where. */
const written = async (who: Workbench, name?: string): Promise<string> =>
  (await who.driver.executeScript<string>(
    `return [...arguments[0].children].map((part) => part.textContent).join(' / ')`,
    await textOf(who, name),
  )) ?? '';
const first = async (who: Workbench): Promise<string> => (await written(who)).split(' / ')[0]!;

/** Puts the cursor at the beginning or the end of the first line. */
async function goTo(who: Workbench, end: 'start' | 'end'): Promise<void> {
  await (await (await textOf(who)).findElement(By.css('p'))).click();
  await who.press(Key.HOME);
  await who.chord(Key.CONTROL, Key.HOME);
  // To the end of the first line: the paragraph has several beside the tree.
  if (end === 'end') await who.press(Key.END);
}

describe('two people in one paragraph', () => {
  it('write at once, see each other there, and both have the letters of both', async () => {
    await ines.until('her text is there', async () => (await written(ines)) !== '');
    await marek.until('his text is there', async () => (await written(marek)) !== '');
    const before = await first(ines);
    // Merely to open a text changes nothing, and is told to nobody.
    const standing = `return fetch('/api/sites/pellow-quay/texts/page/pq012/joint', { method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ tab: 'x', base: null, after: 0, update: null, caret: null, save: false }) })
      .then((answer) => answer.json()).then(({ seq }) => seq);`;
    expect(await ines.driver.executeScript(standing)).toBe(0);
    await goTo(ines, 'start');
    await goTo(marek, 'end');
    await Promise.all([ines.press(...'Ines was here. '), marek.press(...' So was Marek.')]);
    const hasBoth = async (who: Workbench) => {
      const text = await first(who);
      return text.startsWith('Ines was here. ') && text.includes(' So was Marek.');
    };
    await ines.until('she has both', () => hasBoth(ines));
    await marek.until('he has both', () => hasBoth(marek));
    // Each letter is there, once.
    expect((await first(ines)).replace('Ines was here. ', '').replace(' So was Marek.', '')).toBe(before);
    expect(await first(marek)).toBe(await first(ines));
    const beside = `return document.querySelector('.text-of-page [data-writers]')?.dataset.writers ?? ''`;
    await ines.until('she sees him there', async () => (await ines.driver.executeScript(beside)) === 'Marek Holt');
    await marek.until('he sees her there', async () => (await marek.driver.executeScript(beside)) === 'Ines Carrow');
    expect(await ines.text()).not.toContain('Somebody else is writing here too');
  });

  it('undo what they wrote themselves, and nothing else', async () => {
    await ines.press(...'Twice. ');
    await marek.until('he has it', async () => (await first(marek)).includes('Twice. '));
    await marek.press(...' Again.');
    await ines.until('she has it', async () => (await first(ines)).includes(' Again.'));
    await ines.chord(Key.CONTROL, 'z');
    await marek.until('hers is gone, his stays', async () => {
      const text = await first(marek);
      return !text.includes('Twice') && text.includes(' Again.');
    });
  });

  it('write on while one is cut off, and lose nothing when they meet again', async () => {
    await browsers[1].connect(false);
    await marek.press(...' Marek alone.');
    await ines.press(...'Ines alone. ');
    await ines.saved();
    expect(await first(ines)).not.toContain('Marek alone.');
    await browsers[1].connect(true);
    await ines.until('she has what he wrote', async () => (await first(ines)).includes(' Marek alone.'));
    await marek.until('he has what she wrote', async () => (await first(marek)).includes('Ines alone. '));
    expect(await first(marek)).toBe(await first(ines));
  });

  it('leave it saved in the page, with both in the history', async () => {
    const text = await first(ines);
    for (const who of [ines, marek]) await who.select('Courses');
    for (const who of [ines, marek]) await who.saved();
    await ines.driver.navigate().refresh();
    await ines.open(spur, 'pellow-quay', '?lens=write&page=pq012');
    await ines.until('it is there again', async () => (await first(ines)) === text);
    const words = await ines.driver.executeScript<string[]>(`
      return fetch('/api/sites/pellow-quay/history?by=Marek%20Holt').then((answer) => answer.json())
        .then(({ entries }) => entries.map(({ words, by }) => by + ' ' + words));`);
    expect(words.join('\n')).toMatch(/with (Marek Holt|Ines Carrow)/);
  });
});

describe('two people in another text', () => {
  it.each([
    ['Notes', '?lens=plan&page=pq012'],
    ['What it says', '?lens=write&beside=shared/firstday'],
  ])('write at once there too: %s', async (name, query) => {
    for (const who of [ines, marek]) await who.openAnew(spur, 'pellow-quay', query);
    for (const who of [ines, marek]) await (await textOf(who, name)).click();
    await ines.chord(Key.CONTROL, Key.HOME);
    await marek.chord(Key.CONTROL, Key.END);
    await Promise.all([ines.press(...'Hers. '), marek.press(...' His.')]);
    const hasBoth = async (who: Workbench) => {
      const text = await written(who, name);
      return text.includes('Hers. ') && text.includes(' His.');
    };
    await ines.until('she has both', () => hasBoth(ines));
    await marek.until('he has both', () => hasBoth(marek));
    for (const who of [ines, marek]) await who.focusTree();
    for (const who of [ines, marek]) await who.saved();
    await ines.openAnew(spur, 'pellow-quay', query);
    await ines.until('it is there again', () => hasBoth(ines));
  });
});
