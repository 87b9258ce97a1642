import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { accessibilityFaults } from './support/accessibility.ts';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();
/** The look that a new site has. */
const FIRST_LOOK = {
  colour: '#0e6470',
  accent: null,
  pair: 'quay',
  size: 'usual',
  scale: 'usual',
  weight: 'usual',
  width: 'usual',
  room: 'usual',
  corners: 'soft',
  lines: 'fine',
  header: 'plain',
  footer: 'plain',
};
const variable = (name: string) =>
  bench.driver.executeScript<string>(
    `return getComputedStyle(document.documentElement).getPropertyValue('${name}').trim()`,
  );
/** What the header of the page on the desk stands on, which is in a shadow tree. */
const deskHeader = () =>
  bench.driver.executeScript<string>(
    `const head = document.querySelector('[data-page-frame]')?.shadowRoot?.querySelector('.head');
    return head ? getComputedStyle(head).backgroundColor : '';`,
  );

/** Goes into a frame of the screen, if it is there. */
async function isInFrame(at: number): Promise<boolean> {
  await browser.driver.switchTo().defaultContent();
  const frames = await browser.driver.findElements({ css: 'iframe' });
  if (!frames[at]) return false;
  await browser.driver.switchTo().frame(frames[at]);
  return true;
}

describe('the look of a site', () => {
  it('is decided beside a page that shows it at once, and says where a shade had to be another', async () => {
    await bench.driver.get(`${spur.workbench}/sites/pellow-quay?lens=write&page=pq008&view=desk&beside=look`);
    await bench.until('the page is on the desk', async () => (await deskHeader()) !== '');
    await bench.choose('Header', /^Strong$/);
    await bench.until('its header has the colour', async () => (await deskHeader()) === 'rgb(14, 100, 112)');
    const field = await bench.fill('Colour of the organisation', 'e8b4');
    await bench.untilText('A colour is six signs of 0–9 and a–f');
    await field.sendKeys('00', Key.ENTER);
    await bench.until('its header has the other colour', async () => (await deskHeader()) === 'rgb(232, 180, 0)');
    await bench.untilText('In 2 places links are shown in another shade');
    await bench.click('radio', /^Fraunces and Figtree/);
    await bench.until('its type is the other one', () =>
      bench.driver.executeScript<boolean>(
        `return getComputedStyle(document.querySelector('.text-of-page')).fontFamily.includes('Figtree')`,
      ),
    );
    await bench.saved();
  });

  it('is suggested from the colours of a picture, tried beside the page, and taken', async () => {
    await bench.click('button', 'From a picture…');
    await bench.click('button', /^Frames on the stocks/);
    await bench.until('its colours are found', () =>
      bench.driver.executeScript<boolean>(
        `return document.querySelectorAll('[aria-label="Colours of the picture"] li').length > 1`,
      ),
    );
    const before = await deskHeader();
    await bench.click('button', /^Try Suggestion 2/);
    await bench.until('the desk shows it', async () => (await deskHeader()) !== before);
    await bench.click('button', 'Back to the site’s own');
    await bench.until('the desk shows the site’s own again', async () => (await deskHeader()) === before);
    await bench.click('button', /^Try Suggestion 1/);
    await bench.click('button', 'Take this look');
    await bench.saved();
    await bench.until('it is the site’s own', async () => (await deskHeader()) !== before);
    await bench.click('button', 'Undo your last change');
    await bench.until('undo gives the one before back', async () => (await deskHeader()) === before);
  });

  it('takes a logo of the library and CSS of one’s own, which stays out of the workbench', async () => {
    const logo = () =>
      bench.driver.executeScript<string>(
        `return document.querySelector('[data-page-frame]').shadowRoot.querySelector('.head .logo')?.src ?? ''`,
      );
    await bench.until('the header has the sign of the school', async () => (await logo()) !== '');
    await bench.click('button', 'Remove: Logo on dark grounds');
    await bench.click('button', 'Remove: Logo');
    await bench.until('it has none', async () => (await logo()) === '');
    await bench.click('button', 'Choose: Logo');
    await bench.click('button', /^Sign of the school(?!, pale)/);
    await bench.until('it has it again', async () => (await logo()) !== '');
    const before = await deskHeader();
    await bench.click('button', 'From the logo');
    await bench.click('button', /^Try Suggestion 1/);
    await bench.until(
      'a look of its colours is tried, with the logo',
      async () => (await deskHeader()) !== before && (await logo()) !== '',
    );
    await bench.click('button', 'Back to the site’s own');
    await bench.driver.executeScript(
      `[...document.querySelectorAll('summary')].find((one) => one.textContent === 'Your own CSS').click()`,
    );
    const field = await bench.fill('CSS for visitors’ pages', '.head { colr: red; padding-left: 123px }');
    await bench.untilText('Line 1: There is no property ‘colr’.');
    await field.sendKeys(Key.TAB);
    await bench.saved();
    const padding = `const head = (document.querySelector('[data-page-frame]')?.shadowRoot ?? document).querySelector('.head');
      return head ? getComputedStyle(head).paddingLeft : ''`;
    expect(await bench.driver.executeScript(padding)).not.toBe('123px');
    await bench.driver.get(`${spur.workbench}/sites/pellow-quay/looks`);
    await bench.until('a walk has it', async () => {
      if (!(await isInFrame(0))) return false;
      return (await bench.driver.executeScript(padding)) === '123px';
    });
    await browser.driver.switchTo().defaultContent();
    await bench.driver.get(`${spur.workbench}/sites/pellow-quay?lens=write&page=pq008&view=desk&beside=look`);
    await bench.until('the page is on the desk', async () => (await deskHeader()) !== '');
  });

  it('is compared with others on one page of the site, and taken there', async () => {
    const before = await deskHeader();
    await bench.click('button', 'Suggest three looks');
    await bench.click('button', 'Side by side');
    await bench.find('button', 'Take this look: Suggestion 2');
    expect(await bench.has('button', 'Take this look: Suggestion 3')).toBe(false);
    await bench.click('checkbox', 'Suggestion 2');
    await bench.click('checkbox', 'Suggestion 3');
    await bench.choose('Page', /^\s*Apply$/);
    await bench.choose('Screens', /^Dark screens$/);
    const seen = new Set<string>();
    for (const at of [0, 1, 2]) {
      await bench.until('the page shows, as on a dark screen', async () => {
        // Another width or screen is another frame.
        if (!(await isInFrame(at))) return false;
        return browser.driver.executeScript<boolean>(
          `return document.querySelector('h1')?.textContent === 'Apply' && getComputedStyle(document.documentElement).colorScheme === 'dark'`,
        );
      });
      seen.add((await Promise.all(['--accent', '--text', '--radius', '--h1'].map(variable))).join());
      await browser.driver.switchTo().defaultContent();
    }
    expect(await browser.driver.findElements({ css: 'iframe' })).toHaveLength(3);
    expect(seen.size).toBe(3);
    await bench.click('button', 'Take this look: Suggestion 3');
    await bench.saved();
    await bench.driver.get(`${spur.workbench}/sites/pellow-quay?lens=write&page=pq008&view=desk&beside=look`);
    await bench.until('the page is on the desk', async () => (await deskHeader()) !== '');
    expect(await deskHeader()).not.toBe(before);
    await bench.click('button', 'Undo your last change');
    await bench.until('undo gives the one before back', async () => (await deskHeader()) === before);
    await bench.saved();
  });

  it.each([
    ['as it is at first', FIRST_LOOK],
    ['in yellow', { ...FIRST_LOOK, colour: '#ffe600', header: 'strong', footer: 'tinted', lines: 'strong' }],
    [
      'in grey with neon links',
      { ...FIRST_LOOK, colour: '#8a8a8a', accent: '#39ff14', header: 'dark', pair: 'museum' },
    ],
  ])('leaves everything readable that can stand on pages, in each scheme: %s', async (_, look) => {
    for (const screen of ['light', 'dark']) {
      await bench.driver.get(`${spur.workbench}/sites`);
      const address = await bench.driver.executeAsyncScript<string>(
        `const [body, done] = arguments;
        fetch('/api/sites/pellow-quay/walks', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body })
          .then((answer) => answer.json()).then(({ address }) => done(address));`,
        JSON.stringify({ isDraft: true, who: { audiences: ['everyone'] }, at: null, look, screen }),
      );
      await bench.driver.get(`${address}~sample`);
      expect(await accessibilityFaults(browser, 'in light')).toEqual([]);
    }
  });

  it('goes live with a release', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.click('button', /^Make live…/);
    await bench.untilText('look');
    await bench.driver.executeScript(
      `return fetch('/api/sites/pellow-quay/releases', { method: 'POST', headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ pages: [], retire: [], settings: ['look'] }) })`,
    );
    await bench.driver.get(`${spur.live}/pellow-quay/`);
    await bench.until('visitors have it', async () => {
      await bench.driver.navigate().refresh();
      return (await variable('--text')).includes('Figtree');
    });
    expect(await variable('--accent')).not.toBe('#e8b400');
    expect(
      await bench.driver.executeScript(`return getComputedStyle(document.querySelector('.head')).backgroundColor`),
    ).toBe('rgb(232, 180, 0)');
  });
});
