import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { By, Key } from 'selenium-webdriver';
import { openBrowser } from './browser.ts';
import { pause } from './screen.ts';
import { startSpur } from './spur.ts';
import { Workbench } from './workbench.ts';

const FOLDER = fileURLToPath(new URL('../../docs/screenshots/', import.meta.url));
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
  await bench.signIn(spur);
  await bench.open(spur, 'pellow-quay', '?lens=write&page=pq012');
  await bench.find('textbox', 'Text');
  await take('workbench');
  await bench.open(spur, 'pellow-quay', '?lens=write');
  await bench.select('How to find us');
  await bench.click('button', 'Write at the desk');
  await bench.untilText('minute to read');
  await pause(2500);
  await take('desk');
  await browser.prefer('dark');
  await bench.click('button', 'As on a telephone');
  await take('desk-telephone');
  await browser.prefer('light');
  await bench.open(spur, 'pellow-quay', '?lens=write&beside=files');
  await bench.click('button', /^Frames on the stocks/);
  await bench.untilText('Everyone can open it');
  await pause(1000);
  await take('library');
  await bench.open(spur, 'pellow-quay', '?lens=plan&page=pq002');
  await bench.untilText('Goals it serves');
  await take('plan');
  await bench.click('button', 'Carry-over');
  await bench.find('button', /^Accept [1-9]/);
  await (await bench.find('row', /^Year course/)).click();
  await take('carry-over');
  await bench.open(spur, 'pellow-quay', '?lens=plan');
  await bench.click('button', 'Share');
  const link = (await (await bench.find('textbox', 'The link for the governors')).getAttribute('value'))!;
  await browser.driver.get(`${link}?page=pq004`);
  await bench.untilText('Petra Vane wrote on');
  await bench.click('button', 'Agreed: Courses');
  await bench.fill('Your name', 'Jory Pell');
  await bench.click('button', 'Use this name');
  await bench.untilText('1 of');
  await bench.click('button', 'Unsure: Evening classes');
  await bench.untilText('2 of');
  await bench.click('button', 'Agreed: Course dates');
  await bench.untilText('3 of');
  await bench.select('The year course');
  await take('shared-plan');
  await bench.open(spur, 'pellow-quay', '?lens=menus&page=pq012');
  await bench.choose('Menu', /^Footer menu/);
  await bench.untilText('3 differences from the tree');
  const proposals = await browser.driver.findElement(By.css('section[aria-label="One menu"]'));
  await browser.driver.executeScript('arguments[0].scrollIntoView()', proposals);
  await take('menus');
  await bench.click('button', /^Layouts/);
  await bench.click('button', /^Handbook/);
  await bench.untilText('marked in the tree');
  await bench.click('checkbox', 'Only these');
  await bench.untilText('Marked: ‘Handbook’');
  await take('layouts');
  await bench.open(spur, 'pellow-quay', '?lens=publish&page=pq017&live=differs');
  await take('publish');
  await bench.click('button', /^Make live…/);
  await bench.click('radio', /Everything that waits/);
  const effects = await browser.driver.findElement(By.css('section[aria-labelledby="lead"]'));
  await browser.driver.executeScript('arguments[0].scrollIntoView()', effects);
  await take('make-live');
  await bench.press(Key.ESCAPE);
  await bench.open(spur, 'pellow-quay', '?lens=access&page=pq089');
  await bench.untilText('Blocked by the page itself');
  await take('access');
  await browser.driver.get(`${spur.workbench}/sites/pellow-quay/walk?from=/staff-handbook`);
  await bench.click('checkbox', 'Add a second walk');
  const right = await browser.driver.findElement(By.css('section[aria-label="The walk on the right"]'));
  for (const one of await (await bench.find('combobox', 'Walk as', right)).findElements(By.css('option')))
    if ((await one.getText()) === 'Staff') await one.click();
  await pause(1500);
  await take('walk');
  await bench.open(spur, 'pellow-quay');
  await bench.click('button', 'History');
  await bench.untilText('moved ‘Sharpening day’ into');
  const slider = await bench.find('slider', 'The tree as it was');
  for (let step = 0; step < 9; step++) {
    await slider.sendKeys(Key.ARROW_LEFT);
    await pause(250);
  }
  await bench.untilText('The tree as it was.');
  await bench.click('button', /^Show/);
  await take('history');
  await bench.open(spur, 'pellow-quay', '?page=pq012');
  await bench.select('Course dates');
  await bench.select('Compare the courses', Key.SHIFT);
  const pointOf = async (title: RegExp, down: number) => {
    const row = await bench.restOf('row', title);
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
  await bench.open(spur, 'pellow-quay', '?view=split&page=pq012');
  await take('map');
  await browser.prefer('dark');
  await bench.open(spur, 'pellow-quay', '?lens=checks');
  await bench.select('Visit');
  await bench.click('button', 'Check outside addresses');
  await bench.untilText('were checked on');
  await take('checks');
  await browser.prefer('light');
  await browser.driver.get(`${spur.live}/pellow-quay/courses/long-courses/the-year-course`);
  await take('visitors');
  await browser.resize(390, 800);
  await browser.driver.get(`${spur.live}/pellow-quay/courses/short-courses/build-a-canoe`);
  await (await browser.driver.findElement(By.css('.fold > summary'))).click();
  await (await browser.driver.findElement(By.css('.entries details > summary'))).click();
  await take('visitors-telephone');
} finally {
  await browser.close();
  await spur.stop();
}
