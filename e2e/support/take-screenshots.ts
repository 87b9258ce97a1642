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

/** Has a colleague write in the text of a page, in a browser of their own. */
async function writeBeside(page: string): Promise<{ endsHere: () => Promise<void> }> {
  const other = await openBrowser();
  const colleague = new Workbench(other.driver);
  await colleague.signIn(spur, 'marek@pellow-quay.example');
  await other.driver.get(page);
  await colleague.find('textbox', 'Text');
  await pause(1500);
  await (await other.driver.findElement(By.css('.text-of-page p'))).click();
  // What is typed and taken back leaves the page as it was.
  await colleague.press(Key.END, 's', Key.BACK_SPACE);
  await pause(1500);
  return { endsHere: other.close };
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
  const { endsHere } = await writeBeside(await browser.driver.getCurrentUrl());
  await take('desk');
  await endsHere();
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
  await bench.open(spur, 'pellow-quay', '?lens=plan&page=pq003&beside=for-you');
  await bench.untilText('Waiting for your approval');
  await take('for-you');
  await bench.open(spur, 'pellow-quay', '?lens=publish&page=pq121&beside=proposals');
  await bench.click('button', /^Online talks/);
  await bench.untilText('What visitors would notice');
  await take('proposal');
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
  await bench.open(spur, 'pellow-quay', '?lens=access&beside=colleagues');
  await bench.click('button', /^Mira Sand/);
  await bench.untilText('30 pages in branches');
  await take('colleague');
  await bench.open(spur, 'pellow-quay', '?lens=access&beside=labels/course');
  await bench.click('button', /^Teachers Pages/);
  const fields = await browser.driver.findElement(By.css('#kind-fields'));
  await browser.driver.executeScript('arguments[0].scrollIntoView()', fields);
  await take('kind');
  await bench.open(spur, 'pellow-quay', '?lens=plan&beside=sketches/year');
  await bench.find('img', /^Variant Facts first/);
  await browser.driver.executeScript(
    `document.getElementById('variants').scrollIntoView(); [...document.querySelectorAll('aside ul')].at(-1)?.scrollTo(0, 0)`,
  );
  await take('sketch');
  await bench.open(spur, 'pellow-quay', '?lens=plan&beside=boards/tar');
  await bench.click('button', /^Colour: Shed door/);
  await pause(1500);
  await take('board');
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
  await browser.driver.get(`${spur.workbench}/sites/tern-sound?lens=write&view=desk&beside=look`);
  await bench.untilText('Colour of links and buttons');
  await pause(2500);
  await take('look');
} finally {
  await browser.close();
  await spur.stop();
}
