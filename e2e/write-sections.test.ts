import { By, Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { BUTTON_IN_NOTE, SHOWS_ITSELF } from '#server/testing/every-section.ts';
import { accessibilityFaults } from './support/accessibility.ts';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();

/** Inserts a section by keys alone: the list opens where the writing is, part of a name finds it. */
async function insert(name: string): Promise<void> {
  await bench.chord(Key.CONTROL, Key.ENTER);
  await bench.until('the list has the keyboard', () =>
    browser.driver.executeScript<boolean>(`return document.activeElement.placeholder === 'Find a section'`),
  );
  await bench.press(name, Key.ENTER);
  await bench.until('the text has it again', () =>
    browser.driver.executeScript<boolean>(`return document.activeElement.classList.contains('text-of-page')`),
  );
}
/** Opens the desk of a page by keys; the text has the keyboard then. */
async function openDesk(title: string): Promise<void> {
  await bench.open(spur, 'tern-sound', `?lens=write&find=${encodeURIComponent(title)}`);
  await bench.select(title);
  await bench.focusTree();
  await bench.press('d');
  await bench.until('the text has the keyboard', () =>
    browser.driver.executeScript<boolean>(`return document.activeElement.classList.contains('text-of-page')`),
  );
}
const sections = () =>
  browser.driver.executeScript<string[]>(
    `return [...document.querySelector('.text-of-page').children].map((one) => one.dataset.section ?? one.querySelector('[aria-label]')?.ariaLabel ?? one.firstElementChild?.tagName ?? one.tagName)`,
  );

describe('the desk', () => {
  it('opens and closes with one key; the text has the keyboard, the tree keeps to its titles', async () => {
    await openDesk('Special crossings');
    expect(await browser.driver.executeScript(`return document.querySelectorAll('[role=columnheader]').length`)).toBe(
      1,
    );
    expect(new URL(await browser.driver.getCurrentUrl()).searchParams.get('view')).toBe('desk');
  });

  it('takes sections of ten types by the keyboard alone, each as it is inserted', async () => {
    await bench.press('All of them by arrangement.');
    await insert('warning');
    await bench.press('Ask two weeks before.', Key.ARROW_DOWN);
    await insert('accordion');
    await bench.press('May cattle travel with cars?', Key.ENTER, 'No, they cross alone.');
    await insert('table');
    await bench.press('What', Key.TAB, 'Price', Key.TAB, 'Hours', Key.TAB, 'A wedding', Key.TAB, '400');
    await insert('button');
    await bench.press('Ask the office');
    await insert('columns');
    await bench.press('By day');
    await insert('sidebar');
    await bench.press('The late boat takes no cattle.');
    await insert('testimonial');
    await bench.press('It rained, and nobody minded.');
    await insert('list of pages');
    await insert('divider');
    await insert('code');
    await bench.press('06:10');
    await bench.until('all are there, in order', async () =>
      (await sections())
        .join(' ')
        .startsWith('P note fold TABLE button columns beside quotation List of pages HR CODE'),
    );
    await bench.saved();
    expect(await accessibilityFaults(browser)).toEqual([]);
  });

  it('comes back from the clipboard with every section as it was', async () => {
    const before = await sections();
    await browser.driver.executeScript(`document.querySelector('.text-of-page').focus()`);
    await bench.chord(Key.CONTROL, 'a');
    await bench.chord(Key.CONTROL, 'x');
    await bench.until('nothing is left', async () => (await sections()).length < 3);
    await bench.chord(Key.CONTROL, 'v');
    await bench.until('all stand there again', async () => (await sections()).join(' ').startsWith(before.join(' ')));
    await bench.saved();
  });

  it('sets what a section has, and moves it by keys', async () => {
    const button = () => browser.driver.findElement(By.css('.text-of-page [data-section=button]'));
    await button().click();
    await bench.choose('Leads to', /^People/);
    await bench.until('it leads there', async () =>
      browser.driver.executeScript<boolean>(
        `return document.querySelector('.text-of-page [data-section=button] a')?.getAttribute('href').startsWith('page:') === true`,
      ),
    );
    await button().click();
    await bench.chord(Key.ALT, Key.ARROW_UP);
    await bench.until('it stands before the table', async () =>
      (await sections()).join(' ').startsWith('P note fold button TABLE'),
    );
    await bench.chord(Key.ALT, Key.ARROW_DOWN);
    await bench.until('and after it again', async () =>
      (await sections()).join(' ').startsWith('P note fold TABLE button'),
    );
    await bench.click('button', 'Remove the section');
    await bench.until('it is gone', async () => !(await sections()).includes('button'));
    await bench.chord(Key.CONTROL, 'z');
    await bench.until('and there again', async () => (await sections()).includes('button'));
    await bench.saved();
  });

  it('turns a section into another one with all that it says, and lets it be dragged elsewhere', async () => {
    const clickNote = async () => {
      const note = await browser.driver.findElement(By.css('.text-of-page .note p'));
      await browser.driver.executeScript(`arguments[0].scrollIntoView({ block: 'center' })`, note);
      await note.click();
    };
    await clickNote();
    await bench.click('button', 'Turn into');
    await bench.click('menuitem', 'Fold');
    await bench.until('it is a fold', async () => (await sections()).join(' ').startsWith('P fold fold TABLE'));
    await bench.chord(Key.CONTROL, 'z');
    await bench.until('it is a note again', async () => (await sections()).join(' ').startsWith('P note fold TABLE'));
    await clickNote();
    const handle = await bench.find('button', 'Drag the section to another place');
    const place = await browser.driver.findElement(By.css('.text-of-page [data-section=fold] > p:last-child'));
    const { height } = await place.getRect();
    await browser.driver
      .actions({ async: true })
      .move({ origin: handle })
      .press()
      .move({ origin: handle, x: 6, y: 6 })
      .move({ origin: place, y: Math.round(height / 2) + 14, duration: 300 })
      .pause(200)
      .release()
      .perform();
    await bench.until('it stands behind the fold', async () =>
      (await sections()).join(' ').startsWith('P fold note TABLE'),
    );
    await bench.chord(Key.CONTROL, 'z');
    await bench.until('and before it again', async () => (await sections()).join(' ').startsWith('P note fold TABLE'));
    await bench.saved();
  });

  it('lets be typed over, and deleted, what is selected from one section into another', async () => {
    const text = () =>
      browser.driver.executeScript<string>(`return document.querySelector('.text-of-page').textContent`);
    const before = await text();
    const ways: [how: () => Promise<void>, left: RegExp][] = [
      [() => bench.press('Z'), /AsZ.?cattle travel/],
      [() => bench.press(Key.DELETE), /As.?cattle travel/],
      [() => bench.press(Key.ENTER), /As.?cattle travel/],
      [() => bench.chord(Key.CONTROL, 'x'), /As.?cattle travel/],
    ];
    for (const [how, left] of ways) {
      const note = await browser.driver.findElement(By.css('.text-of-page .note p'));
      await browser.driver.executeScript(`arguments[0].scrollIntoView({ block: 'center' })`, note);
      await note.click();
      await browser.driver.executeScript(
        `const [note] = arguments;
        const question = document.querySelector('.text-of-page [data-section=foldQuestion]');
        getSelection().setBaseAndExtent(note.firstChild, 2, question.firstChild, 4);`,
        note,
      );
      await how();
      await bench.until('it is gone', async () => !(await text()).includes('May cattle'));
      expect((await sections()).join(' ')).toMatch(/^P note fold TABLE/);
      expect(await text()).toMatch(left);
      await bench.until('it is there again', async () => {
        await bench.chord(Key.CONTROL, 'z');
        return (await text()) === before;
      });
    }
  });

  it('has the page around the text, in its layout, at three widths', async () => {
    const inFrame = (what: string) =>
      browser.driver.executeScript<string>(
        `const root = document.querySelector('[data-page-frame]').shadowRoot; return String(${what})`,
      );
    await bench.until('the heading of the page stands above the text', async () =>
      /Special crossings/.test(await inFrame(`root.querySelector('h1')?.textContent`)),
    );
    expect(
      await inFrame(`root.querySelector('slot').closest('[inert]') === null && root.querySelector('header').inert`),
    ).toBe('true');
    for (const [name, width] of [
      ['As on a telephone', '390'],
      ['As on a tablet', '768'],
    ] as const) {
      await bench.click('button', name);
      await bench.until(`it is ${width} wide`, async () => (await inFrame(`root.host.clientWidth`)) === width);
    }
    await bench.click('button', 'As on a desktop');
    await bench.untilText('words ·');
  });

  it('says on visitors’ pages what was written, on a telephone too', async () => {
    await bench.click('button', 'All columns');
    await bench.click('button', 'Make live…');
    await bench.click('radio', /Everything that waits/);
    await bench.click('button', /^Make .* live/);
    await bench.untilText('made live');
    await browser.resize(390, 800);
    await bench.until('it is live', async () => {
      await browser.driver.get(`${spur.live}/tern-sound/crossings/special-crossings`);
      return (await bench.text()).includes('Ask two weeks before.');
    });
    const question = await browser.driver.findElement(By.css('main summary'));
    expect(await question.getText()).toBe('May cattle travel with cars?');
    expect(await bench.text()).not.toContain('No, they cross alone.');
    await question.click();
    await bench.untilText('No, they cross alone.');
    expect(await browser.driver.executeScript(`return document.documentElement.scrollWidth <= window.innerWidth`)).toBe(
      true,
    );
    expect(await accessibilityFaults(browser)).toEqual([]);
    await browser.resize(1280, 800);
  });

  it('keeps a section once for many pages, by keys alone, and says which pages it changes', async () => {
    await openDesk('Special crossings');
    await bench.untilText('Ask two weeks before.');
    await (await browser.driver.findElement(By.css('.text-of-page .note p'))).click();
    await bench.click('button', 'Turn into');
    await bench.click('menuitem', 'Shared section');
    await bench.untilText('Shared section: Ask two weeks before.');
    await openDesk('Complaints');
    await insert('two weeks');
    await bench.untilText('Shared section: Ask two weeks before.');
    await bench.click('button', 'Write in it…');
    await bench.untilText('What is written here changes 2 pages');
    await bench.click('textbox', 'What it says');
    await bench.chord(Key.CONTROL, Key.END);
    await bench.press(' Or ring the office.');
    await bench.untilText('pages marked in the tree');
    await bench.saved();
    expect(await accessibilityFaults(browser)).toEqual([]);
    // What it says stands on the page that was open before, too.
    await bench.until('both pages say it', async () =>
      (await browser.driver.executeScript<string>(`return document.querySelector('.as-visitors').innerText`)).includes(
        'Or ring the office.',
      ),
    );
    await bench.open(spur, 'tern-sound', '?lens=write&find=Special');
    await bench.select('Special crossings');
    await bench.untilText('Or ring the office.');
  });

  it('shows a shared section that names itself once, and offers none in the place of what stands within another', async () => {
    const operations = [
      { name: 'shared.add', shared: 'self', title: 'Itself', content: SHOWS_ITSELF.id },
      {
        name: 'page.add',
        page: 'itself',
        place: { parent: null },
        title: { en: 'By itself' },
        content: BUTTON_IN_NOTE.id,
      },
    ];
    await bench.open(spur, 'tern-sound');
    const status = await browser.driver.executeAsyncScript(
      `const [body, done] = arguments;
      fetch('/api/sites/tern-sound/operations', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body }).then((answer) => done(answer.status));`,
      JSON.stringify({ operations, contents: [SHOWS_ITSELF, BUTTON_IN_NOTE] }),
    );
    expect(status).toBe(200);
    await openDesk('By itself');
    await bench.untilText('A shared section shows nothing within another.');
    await (await browser.driver.findElement(By.css('.text-of-page .note p'))).click();
    await bench.find('button', 'Turn into');
    await (await browser.driver.findElement(By.css('.text-of-page .note .button'))).click();
    await bench.find('combobox', 'Leads to');
    expect(await bench.has('button', 'Turn into')).toBe(false);
  });

  it('shows an outside frame only when it is asked for, of hosts that are allowed, and cleans HTML', async () => {
    await openDesk('Complaints');
    await bench.chord(Key.CONTROL, Key.END);
    await insert('embed');
    await bench.fill(
      'Address of the frame',
      '<iframe width="560" src="https://player.example/film?a=1&amp;b=2"></iframe>',
    );
    await bench.fill('What it shows', 'The ramp in a storm');
    await bench.click('button', 'Allow frames of player.example');
    await bench.untilText('Frames of player.example are allowed.');
    await (await browser.driver.findElement(By.css('.text-of-page .outside figcaption'))).click();
    await insert('HTML');
    await bench.fill('HTML', '<p>Ring <kbd>1</kbd></p><script>alert(1)</script>');
    await bench.untilText('Left out of it: <script>.');
    expect(await accessibilityFaults(browser)).toEqual([]);
    // What is typed a moment before is made live with the rest.
    await bench.fill('HTML', '<p>Ring <kbd>2</kbd></p>');
    await bench.click('button', 'Make live…');
    await bench.click('radio', /Everything that waits/);
    await bench.click('button', /^Make .* live/);
    await bench.untilText('made live');
    const frames = () =>
      browser.driver.executeScript<string[][]>(
        `return [...document.querySelectorAll('iframe')].map((one) => [one.src, one.title, one.getAttribute('sandbox').includes('allow-top-navigation') ? 'may lead away' : 'stays'])`,
      );
    await bench.until('it is live', async () => {
      await browser.driver.get(`${spur.live}/tern-sound/complaints`);
      return (await bench.text()).includes('Show here: The ramp in a storm');
    });
    expect(await bench.text()).toContain('Ring 2');
    expect(await frames()).toEqual([]);
    expect(await accessibilityFaults(browser)).toEqual([]);
    await bench.click('link', 'Show here: The ramp in a storm');
    await bench.until('the frame stands in its place', async () => (await frames()).length === 1);
    expect(await frames()).toEqual([['https://player.example/film?a=1&b=2', 'The ramp in a storm', 'stays']]);
  });

  it('finds words in all texts, shows in the tree what would change, and takes it back in one step', async () => {
    await bench.open(spur, 'tern-sound', '?lens=write');
    await bench.click('button', 'Replace');
    await bench.fill('Find', 'boat');
    await bench.fill('Replace with', 'ferry');
    await bench.untilText('which the tree marks.');
    const button = async () => (await bench.find('button', /^Replace in \d+ places? on \d+ pages?/)).getText();
    const all = await button();
    await (await browser.driver.findElement(By.css('[aria-label="Found"] input[type=checkbox]'))).click();
    await bench.until('one page is left out', async () => (await button()) !== all);
    expect(await accessibilityFaults(browser)).toEqual([]);
    await bench.click('button', /^Replace in /);
    await bench.untilText('Undo takes all of it back.');
    await bench.untilText('on 1 page, which the tree marks.');
    await bench.focusTree();
    await bench.chord(Key.CONTROL, 'z');
    await bench.until('all are there again', async () => (await button()) === all);
  });
});
