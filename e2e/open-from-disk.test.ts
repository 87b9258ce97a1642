import { mkdtempSync, rmSync } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { unzipSync } from 'fflate';
import { By, Key, type WebElement } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();
const folder = mkdtempSync(join(tmpdir(), 'spur files '));
const home = pathToFileURL(join(folder, 'index.html')).href;
afterAll(() => rmSync(folder, { recursive: true }));

beforeAll(async () => {
  await bench.driver.manage().window().setRect({ width: 1280, height: 800 });
  await bench.open(spur, 'pellow-quay');
  const [cookie] = await bench.driver.manage().getCookies();
  const answer = await fetch(`${spur.workbench}/api/sites/pellow-quay/static-site?opens=files`, {
    headers: { Cookie: `${cookie!.name}=${cookie!.value}` },
  });
  for (const [path, bytes] of Object.entries(unzipSync(new Uint8Array(await answer.arrayBuffer())))) {
    await mkdir(dirname(join(folder, path)), { recursive: true });
    await writeFile(join(folder, path), bytes);
  }
});

const says = async (selector: string) => (await bench.driver.findElement(By.css(selector))).getText();
/** With the pointer: the driver takes what stands in a closed fold for out of sight, and wide pages show it. */
const click = (element: WebElement) => bench.driver.actions().move({ origin: element }).click().perform();
const search = async (words: string) => {
  const field = await bench.driver.findElement(By.css('main input[type=search], header input[type=search]'));
  await field.clear();
  await field.sendKeys(words, Key.ENTER);
  await bench.until(`‘${words}’ was looked for`, async () => (await says('main')).includes(`‘${words}’`));
  return says('[role=status]');
};

it('13: a site on a disk opens, and its menus lead from page to page, without a server', async () => {
  await bench.driver.get(home);
  await click(await bench.driver.findElement(By.css('header nav .entries summary')));
  const links = await bench.driver.findElements(By.css('header nav .entries details[open] a'));
  const words = await bench.driver.executeScript<string>('return arguments[0].textContent', links.at(-1));
  await click(links.at(-1)!);
  await bench.until('the page opened', async () => (await says('h1')) === words);
  expect(await bench.driver.getCurrentUrl()).toMatch(/^file:.*\/index\.html$/);
});

it('13: its pages are found by their words, also with a typing mistake, and open from there', async () => {
  await bench.driver.get(home);
  expect(await search('courses')).toMatch(/^\d+ pages with ‘courses’/);
  expect(await search('zzyzx')).toBe('No page contains ‘zzyzx’. Try fewer or different words.');
  expect(await search('cuorses')).toMatch(/similar words:$/);
  const first = await bench.driver.findElement(By.css('.results a'));
  const title = await first.getText();
  await first.click();
  await bench.until('the page opened', async () => (await says('h1')) === title);
});

it('13: what is typed into the field is text, whatever it is', async () => {
  await bench.driver.get(home);
  const words = `<img src=x onerror="document.title='hit'">`;
  expect(await search(words)).toBe(`No page contains ‘${words}’. Try fewer or different words.`);
  expect(await bench.driver.getTitle()).not.toBe('hit');
});
