import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { pause } from './support/screen.ts';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();
const { driver } = browser;
/** Nobody fills in a form in less. */
const QUICKEST_MS = 2_700;

const addField = async (name: string, type: string) => {
  await bench.fill('New field', name);
  await bench.choose('Type of field', new RegExp(`^${type}$`));
  await bench.click('button', 'Add');
  await bench.find('textbox', 'Help');
};
const close = (name: string) => bench.click('button', new RegExp(`^${name.replace('?', '\\?')} `));
/** Whether the field of a label shows. */
const shows = (label: string) =>
  driver.executeScript<boolean>(
    `return [...document.querySelectorAll('form.answer label')].some((one) => one.innerText.startsWith(arguments[0]) && one.checkVisibility());`,
    label,
  );
const faults = () =>
  driver.executeScript<string[]>(
    `return [...document.querySelectorAll('.faults li, .faults > p:first-child')].map((one) => one.innerText.trim());`,
  );
const openForm = async () => {
  await driver.get(`${spur.live}/tern-sound/crossings/special-crossings`);
  await pause(QUICKEST_MS);
};

describe('a manager', () => {
  it('makes a form beside the tree, with a field that is asked for only sometimes', async () => {
    await bench.open(spur, 'tern-sound', '?lens=write&beside=forms');
    await bench.fill('The first form', 'Lost property');
    await bench.press(Key.ENTER);
    await bench.untilText('Add the fields that visitors fill in.');
    await addField('Your name', 'Short text');
    await bench.click('checkbox', 'Required');
    await close('Your name');
    await addField('Where was it?', 'Choice');
    await bench.fill('Choices', 'On a ferry\nAt the quay');
    await bench.press(Key.TAB);
    await close('Where was it?');
    await addField('Which ferry?', 'Short text');
    await bench.choose('Show this field', /is ‘On a ferry’/);
    await bench.click('checkbox', 'Required');
    await close('Which ferry?');
    await bench.fill('Message shown instead of the form', 'We look for it.');
    await bench.press(Key.TAB);
    await bench.untilText('It is not on any page yet.');
    await bench.saved();
  });

  it('puts it into the text of a page, and makes both live', async () => {
    await bench.open(spur, 'tern-sound', `?lens=write&find=${encodeURIComponent('Special crossings')}`);
    await bench.select('Special crossings');
    await bench.focusTree();
    await bench.press('d');
    await bench.until('the text has the keyboard', () =>
      driver.executeScript<boolean>(`return document.activeElement.classList.contains('text-of-page')`),
    );
    await bench.chord(Key.CONTROL, Key.ENTER);
    await bench.until('the list has the keyboard', () =>
      driver.executeScript<boolean>(`return document.activeElement.placeholder === 'Find a section'`),
    );
    await bench.press('survey', Key.ENTER);
    await bench.choose('Which form', /^Lost property$/);
    await bench.untilText('Which ferry?');
    await bench.saved();
    await bench.click('button', /^Make live…/);
    await bench.click('radio', /Everything that waits/);
    await bench.click('button', /^Make \d+ pages? live$/);
    await bench.untilText('made live.');
  });
});

describe('a visitor', () => {
  it('is asked for what the answer before makes necessary, and told what is missing', async () => {
    await openForm();
    expect([await shows('Your name'), await shows('Which ferry?')]).toEqual([true, false]);
    await bench.choose('Where was it?', /On a ferry/);
    await bench.until('the ferry is asked for', () => shows('Which ferry?'));
    await bench.choose('Where was it?', /At the quay/);
    await bench.until('it is not asked for any more', async () => !(await shows('Which ferry?')));
    await bench.fill(/^Your name/, 'Wren');
    await bench.click('button', 'Send');
    await bench.untilText('We look for it.');
    expect(new URL(await driver.getCurrentUrl()).pathname).toBe('/tern-sound/crossings/special-crossings');
  });

  it('sends it without scripts too, and gets back what they wrote where something is wrong', async () => {
    await browser.runScripts(false);
    try {
      await openForm();
      expect(await shows('Which ferry?')).toBe(true);
      expect(await bench.text()).toContain('Only if ‘Where was it?’ is ‘On a ferry’.');
      await bench.choose('Where was it?', /On a ferry/);
      await bench.fill(/^Your name/, 'Bram');
      await bench.click('button', 'Send');
      await bench.until('it says what is missing', async () => (await faults()).length > 0);
      expect(await faults()).toEqual([
        'Your answer has not been sent yet. Correct one field:',
        'Fill in ‘Which ferry?’.',
      ]);
      expect(await (await bench.find('textbox', /^Your name/)).getAttribute('value')).toBe('Bram');
      await bench.fill(/^Which ferry\?/, 'The Tern');
      await bench.click('button', 'Send');
      await bench.untilText('We look for it.');
    } finally {
      await browser.runScripts(true);
    }
  });
});

it('the manager finds what came, deals with it, and notes something', async () => {
  await bench.open(spur, 'tern-sound', '?lens=write');
  await bench.click('button', /^Answers \(?2 new/);
  await bench.find('button', /^Wren/);
  await bench.click('button', /^Bram/);
  await bench.untilText('Delete for good…');
  await bench.untilText('The Tern');
  await bench.choose('State', /^Done$/);
  await bench.fill('Note', 'Sent by the noon boat.');
  await bench.press(Key.TAB);
  await bench.click('button', 'All answers');
  await bench.until('it is done', async () =>
    /Done · with a note/.test(await (await bench.find('button', /^Bram/)).getText()),
  );
  await bench.find('button', /^Answers \(?1 new/);
});
