import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();
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

  it('goes live with a release, and is undone like any other edit', async () => {
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
