import { By, Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();
await bench.askNoApproval('pellow-quay');

const valueOf = async (name: string): Promise<string> =>
  (await (await bench.find('textbox', name)).getAttribute('value')) ?? '';
const typed = async (name: string, text: string) => {
  const field = await bench.find('textbox', name);
  await bench.driver.executeScript('arguments[0].focus(); arguments[0].select()', field);
  // One key after the other, as people type.
  await bench.press(...text, Key.ENTER);
};

describe('4: a day', () => {
  it('is typed as people write it, and nothing is taken away while they do', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=plan');
    await bench.select('Course dates');
    await typed('Due', '5 March 2027');
    await bench.until('it is read', async () => (await valueOf('Due')).includes('2027'));
    const written = await valueOf('Due');
    await typed('Due', '2028-11-30');
    await bench.until('another one is', async () => (await valueOf('Due')).includes('2028'));
    await typed('Due', written);
    await bench.until('as it is written it is read', async () => (await valueOf('Due')) === written);
    await bench.saved();
    await bench.untilRow('Course dates', /5 Mar/);
  });

  it('that is none stays as it was typed, with what is wrong', async () => {
    await typed('Due', '31 April 2027');
    await bench.untilText('This is no day. Type it like');
    expect(await valueOf('Due')).toBe('31 April 2027');
    await bench.untilRow('Course dates', /5 Mar/);
    await typed('Due', ' ');
    await bench.untilNoText('This is no day');
    await bench.until('there is none', async () => (await valueOf('Due')) === '');
  });

  it('is chosen in a calendar, also where something else was typed', async () => {
    await typed('Due', 'soon');
    await bench.untilText('This is no day');
    await bench.click('button', 'Choose a day: Due');
    const day = await bench.driver.findElement(By.css('[role=grid] td:not([data-outside]) button'));
    await day.click();
    await bench.until('it stands there', async () => /\d/.test(await valueOf('Due')));
    await bench.untilNoText('This is no day');
  });

  it('and a time are typed for a release', async () => {
    await bench.click('button', /^Make live…/);
    // The foot of the sheet stays in sight: what is behind it is scrolled to, as by a wheel.
    await bench.driver.executeScript(
      `arguments[0].scrollIntoView({ block: 'center' })`,
      await bench.find('radio', 'Later'),
    );
    await bench.click('radio', 'Later');
    await typed('Day and time', '5 March 2031');
    await typed('Day and time, time', '6.30 pm');
    await bench.until('the time is read', async () => (await valueOf('Day and time, time')) === '18:30');
    await bench.until('it can be set', async () => (await bench.find('button', /^Set: Make/)).isEnabled());
    await bench.press(Key.ESCAPE);
  });
});
