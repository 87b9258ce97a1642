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
  await bench.untilText('moved ‘Sharpening day’ into');
  await (await bench.find('slider', 'The tree as it was')).sendKeys(...Array.from({ length: 7 }, () => Key.ARROW_LEFT));
  await bench.untilText('The tree as it was.');
  await bench.click('button', /^Show/);
  await take('history');
  await bench.open(spur, 'pellow-quay', '?state=draft,edited&page=pq017');
  await take('filter');
  await bench.open(spur, 'pellow-quay', '?page=pq012');
  await bench.select('Course dates');
  await bench.select('Compare the courses', Key.SHIFT);
  const pointOf = async (title: RegExp, down: number) => {
    const row = await (await bench.find('row', title)).getRect();
    return { x: 130, y: Math.round(row.y + row.height * down) };
  };
  const from = await pointOf(/^Course dates/, 0.5);
  const to = await pointOf(/^Entry requirements/, 0.96);
  await browser.driver
    .actions()
    .move(from)
    .press()
    .move({ x: 100, y: from.y + 20 })
    .move({ x: 40, y: to.y, duration: 200 })
    .perform();
  await take('drag');
  await browser.driver.actions().sendKeys(Key.ESCAPE).release().perform();
  await bench.open(spur, 'pellow-quay', '?page=pq016');
  await bench.focusTree();
  await bench.press('l');
  await bench.fill(
    'The list',
    '# Summer school\n- First week\n  - Tools\n  - Planing\n- Second week\n  1. Rivets\n  2. Oars\n~~~',
  );
  await take('paste');
  await bench.press(Key.ESCAPE);
  await bench.open(spur, 'pellow-quay', '?view=split&page=pq012');
  await take('map');
  await bench.open(spur, 'pellow-quay', '?view=map&page=pq002');
  await bench.focusTree();
  await bench.press('0');
  await take('map-far');
  await browser.prefer('dark');
  await bench.open(spur, 'pellow-quay', '?lens=write&page=pq089');
  await bench.find('textbox', 'Text');
  await take('workbench-dark');
  await browser.prefer('light');
  await browser.driver.get(`${spur.live}/pellow-quay/courses/long-courses/the-year-course`);
  await take('visitors');
  await browser.resize(390, 800);
  await bench.open(spur, 'pellow-quay', '?view=sheet&page=pq012');
  await take('workbench-telephone');
  await browser.driver.get(`${spur.live}/pellow-quay/courses/long-courses/the-year-course`);
  await browser.driver.executeScript(`document.querySelector('.fold').open = true`);
  await take('visitors-telephone');
} finally {
  await browser.close();
  await spur.stop();
}
