import { writeFileSync } from 'node:fs';
import { Key } from 'selenium-webdriver';
import { openBrowser } from './browser.ts';
import { pause } from './screen.ts';
import { startSpur } from './spur.ts';
import { Workbench } from './workbench.ts';

const FOLDER = new URL('../../docs/screenshots/', import.meta.url).pathname;
const spur = await startSpur({ withDemo: true });
const browser = await openBrowser();
const bench = new Workbench(browser.driver);

async function take(name: string): Promise<void> {
  await pause(500);
  writeFileSync(`${FOLDER}${name}.png`, await browser.driver.takeScreenshot(), 'base64');
  console.log(`docs/screenshots/${name}.png`);
}

try {
  await browser.driver.get(`${spur.workbench}/sign-in`);
  await bench.find('textbox', 'Password');
  await take('sign-in');
  await bench.signIn(spur);
  await take('sites');
  await bench.open(spur, 'pellow-quay', '?lens=write&page=pq012');
  await bench.find('textbox', 'Text');
  await take('workbench');
  await bench.open(spur, 'pellow-quay', '?lens=menus&page=pq027');
  await take('menus');
  await bench.open(spur, 'pellow-quay', '?lens=publish&page=pq017&live=differs');
  await take('publish');
  await bench.click('button', /^Make live…/);
  await bench.click('radio', /All that waits/);
  await take('make-live');
  await bench.open(spur, 'pellow-quay', '?lens=write&page=pq030');
  await bench.focusTree();
  await bench.press('t');
  await bench.fill('Find a place by title', 'cour');
  await bench.press(Key.ARROW_DOWN, Key.ARROW_DOWN);
  await take('move');
  await bench.open(spur, 'pellow-quay');
  await bench.click('button', 'History');
  await take('history');
  await browser.prefer('dark');
  await bench.open(spur, 'pellow-quay', '?lens=write&page=pq089');
  await bench.find('textbox', 'Text');
  await take('workbench-dark');
  await browser.prefer('light');
  await browser.driver.get(`${spur.live}/pellow-quay/courses/long-courses/the-year-course`);
  await take('visitors');
  await browser.resize(390, 800);
  await browser.driver.executeScript(`document.querySelector('.fold').open = true`);
  await take('visitors-telephone');
} finally {
  await browser.close();
  await spur.stop();
}
