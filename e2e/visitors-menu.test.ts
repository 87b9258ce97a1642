import { By, Key } from 'selenium-webdriver';
import { beforeAll, describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench, browser } = await signedIn();
const openMenus = () =>
  browser.driver.executeScript<number>(`return document.querySelectorAll('.menu details[name][open]').length`);
/** With the pointer: the driver takes what stands in a closed fold for hidden, though it shows on wide screens. */
const click = async (at: number) =>
  browser.driver
    .actions()
    .move({ origin: await summary(at) })
    .click()
    .perform();
const summary = async (at: number) => (await browser.driver.findElements(By.css('.entries details > summary')))[at]!;
const untilOpen = (count: number) => bench.until(`${count} are open`, async () => (await openMenus()) === count);

describe('16: what drops down from the menu of the header', () => {
  beforeAll(async () => browser.driver.get(`${spur.live}/pellow-quay/courses`));

  it('closes by Escape, with the keyboard on what opened it', async () => {
    await click(1);
    await untilOpen(1);
    await bench.press(Key.TAB, Key.ESCAPE);
    await untilOpen(0);
    expect(await browser.driver.executeScript('return document.activeElement === arguments[0]', await summary(1))).toBe(
      true,
    );
  });

  it('closes by a click elsewhere, and not by one in the menu', async () => {
    await click(0);
    await untilOpen(1);
    await click(2);
    await untilOpen(1);
    await browser.driver.actions().move({ x: 1200, y: 700 }).click().perform();
    await untilOpen(0);
  });
});
