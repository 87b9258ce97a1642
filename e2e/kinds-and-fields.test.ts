import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();
/** The id of the kind that is made. */
let key = '';

/** The cell of a row, by the name of its column: the button that can be pressed to change it. */
const cell = async (column: string, title: string) => bench.find('button', new RegExp(`^${column}: ${title}, `));
const typeInCell = async (column: string, title: string, text: string) => {
  await (await cell(column, title)).click();
  const field = await bench.find('textbox', `${column} of ${title}`);
  await field.sendKeys(text, Key.ENTER);
};
const addField = async (name: string, holds: string) => {
  await bench.fill('New field', name);
  await bench.choose('Type of field', new RegExp(`^${holds}$`));
  await bench.click('button', 'Add');
  await bench.find('button', new RegExp(`^${name} ${holds}`));
};
const text = (css: string) =>
  bench.driver.executeScript<string[]>(
    `return [...document.querySelectorAll(arguments[0])].map((one) => one.innerText.replace(/\\s+/g, ' ').trim());`,
    css,
  );

describe('somebody who keeps the same things of many pages', () => {
  it('makes a kind with fields beside the tree', async () => {
    await bench.open(spur, 'tern-sound', '?lens=access&beside=labels');
    await bench.fill('The first label', 'Ferry');
    await bench.press(Key.ENTER);
    await bench.choose('What it says of pages', /of its own/);
    await addField('Seats', 'Number');
    await addField('In service since', 'Day');
    await addField('Skipper', 'Short text');
    expect(await text('ol[aria-label="Fields"] > li button[aria-expanded] .font-medium')).toEqual([
      'Seats',
      'In service since',
      'Skipper',
    ]);
    await bench.click('button', 'Move Skipper up');
    await bench.until('it stands before', async () =>
      (await text('ol[aria-label="Fields"] > li button[aria-expanded] .font-medium'))
        .join()
        .endsWith('Skipper,In service since'),
    );
  });

  it('gives it to pages, and fills them in cell by cell in columns that the filter by the kind brings', async () => {
    key = new URL(await bench.driver.getCurrentUrl()).searchParams.get('beside')!.split('/')[1]!;
    const [first, second] = (await bench.tree()).map((one) => one.trim()).slice(2, 4) as [string, string];
    await bench.select(first);
    await bench.click('button', `Give ‘${first}’ this label`);
    await bench.untilText('1 page marked in the tree');
    await bench.select(second);
    await bench.click('button', `Give ‘${second}’ this label`);
    await bench.untilText('2 pages marked in the tree');
    await bench.open(spur, 'tern-sound', `?lens=write&kind=${key}`);
    await typeInCell('Seats', first, '1,200');
    await bench.until('the first ferry has its seats', async () => (await bench.row(first)).includes('1,200'));
    await typeInCell('In service since', second, '5 march 2019');
    await bench.until('the second ferry has its day', async () => (await bench.row(second)).includes('5 March 2019'));

    // What the field cannot hold stays as it was typed, and says what is wrong with it.
    await typeInCell('Seats', second, 'many');
    await bench.untilText('That does not fit ‘Seats’. Type a number');
    const field = await bench.find('textbox', `Seats of ${second}`);
    expect(await field.getAttribute('value')).toBe('many');
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), '80', Key.ENTER);
    await bench.until('the second ferry has its seats', async () => /\b80\b/.test(await bench.row(second)));
  });

  it('is told what another type makes of what pages say, before it is changed; undo gives it back', async () => {
    await bench.open(spur, 'tern-sound', `?lens=access&beside=labels/${key}`);
    await bench.click('button', /^In service since/);
    const choices = async () =>
      (await bench.driver.executeScript<string>(`return document.body.innerText`)).replace(/\s+/g, ' ');
    const types = await bench.driver.executeScript<HTMLSelectElement>(
      `return [...document.querySelectorAll('ol[aria-label="Fields"] select')].find((one) => one.labels[0].textContent === 'Type')`,
    );
    await (types as never as { sendKeys: (keys: string) => Promise<void> }).sendKeys('Number');
    await bench.until('it says what becomes of it', async () =>
      /1 page has a value here\. None of it can be read as: number/.test(await choices()),
    );
    expect(await choices()).toContain('‘2019-03-05’');
    await bench.click('button', 'Change it');
    await bench.find('button', /^In service since Number/);
    await bench.chord(Key.CONTROL, 'z');
    await bench.find('button', /^In service since Day/);
  });
});

describe('a visitor of the school', () => {
  it('finds the courses that are still to come, month by month, and from a course its teachers and back', async () => {
    await bench.driver.get(`${spur.live}/pellow-quay/courses/course-dates`);
    const headings = await text('main .listed .group');
    expect(headings.length).toBeGreaterThan(3);
    expect((await text('main .listed th[scope=col]')).slice(0, 5)).toEqual([
      'Page',
      'Dates',
      'Price',
      'Places left',
      'Level',
    ]);
    await bench.click('link', 'Oars and paddles');
    await bench.until('the course is there', async () => (await text('h1')).includes('Oars and paddles'));
    expect(await text('main > .fields dt')).toEqual(['Dates', 'Price', 'Places left', 'Level', 'Teachers']);
    await bench.driver.executeScript(`document.querySelector('main > .fields a').click()`);
    await bench.until('the teacher is there', async () => (await text('h1')).includes('Ines Carrow'));
    expect(await text('main .named-by li')).toContain('Oars and paddles');
  });

  it('filters the list by what it offers, and has all of it again', async () => {
    await bench.driver.get(`${spur.live}/pellow-quay/courses/course-dates`);
    const levels = () => text('main .listed tbody td:last-child');
    const all = (await levels()).length;
    await bench.choose('Level', /^For beginners$/);
    await bench.click('button', 'Show');
    await bench.until('fewer are listed', async () => (await levels()).length < all);
    expect(new Set(await levels())).toEqual(new Set(['For beginners']));
    expect(await text('main .listed [role=status]')).toEqual([`${(await levels()).length} entries`]);
    await bench.click('link', 'Show all');
    await bench.until('all are listed', async () => (await levels()).length === all);
  });
});

it('somebody who writes puts a value of another page into a text, and it says what that page says', async () => {
  await bench.open(spur, 'pellow-quay', `?lens=write&find=${encodeURIComponent('Compare the courses')}`);
  await bench.select('Compare the courses');
  await bench.focusTree();
  await bench.press('d');
  await bench.until('the text has the keyboard', () =>
    bench.driver.executeScript<boolean>(`return document.activeElement.classList.contains('text-of-page')`),
  );
  await bench.press('It costs ');
  await bench.click('button', 'Insert a field value');
  await bench.untilText('This page has no fields that visitors see.');
  await bench.choose('Page', /^Lofting/);
  await bench.choose('Field', /^Price$/);
  await bench.click('button', 'Insert it');
  await bench.until('the text says it', async () => (await text('.text-of-page p'))[0]!.startsWith('It costs £'));
  await bench.saved();
});

describe('the outline of a kind', () => {
  it('is what its pages begin with, and what they follow until somebody writes on them', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access&beside=labels/course');
    await bench.untilText('2 pages follow it. 12 pages keep their own text.');
    const outline = await bench.find('textbox', 'Outline of Course');
    await outline.click();
    await outline.sendKeys(Key.chord(Key.CONTROL, Key.END), ' A pencil is enough.');
    await bench.until('the pages differ from what is live', async () => (await bench.text()).includes('17 differ'));
    await bench.saved();
    await bench.open(spur, 'pellow-quay', '?lens=write');
    await bench.select('Evening classes');
    await bench.press(Key.ARROW_RIGHT);
    await bench.select('Thursday: open bench');
    await bench.untilText('This is the outline of ‘Course’.');
    const text = await bench.find('textbox', 'Text');
    await bench.until('it follows the outline', async () => (await text.getText()).includes('A pencil is enough.'));
    await text.click();
    await text.sendKeys(Key.chord(Key.CONTROL, Key.END), ' Bring a question too.');
    await bench.untilText('It differs from the outline of ‘Course’.');
    await bench.click('button', 'Replace it with the outline');
    await bench.untilText('This is the outline of ‘Course’.');
    await bench.saved();
  });

  it('has a place for the fields of each page, and for a value within a sentence', async () => {
    await bench.open(spur, 'tern-sound', `?lens=access&beside=labels/${key}`);
    await bench.click('button', 'Write an outline');
    const outline = await bench.find('textbox', 'Outline of Ferry');
    await outline.click();
    await outline.sendKeys('Carries ');
    await bench.click('button', 'Insert a field value');
    await bench.choose('Field', /^Seats$/);
    await bench.click('button', 'Insert it');
    await outline.sendKeys(' people.', Key.chord(Key.CONTROL, Key.ENTER));
    await bench.press('Fields of the page', Key.ENTER);
    await bench.until('the places are there', () =>
      bench.driver.executeScript<boolean>(
        `return /Carries Seats\\s? people/.test(document.querySelector('[aria-label="Outline of Ferry"] .text-of-page').innerText)
          && document.querySelector('[aria-label="Outline of Ferry"] dl')?.innerText.includes('Skipper')`,
      ),
    );
  });
});
