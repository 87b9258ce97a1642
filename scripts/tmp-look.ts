import { writeFileSync } from 'node:fs';
import { Key } from 'selenium-webdriver';
import { openBrowser } from '../e2e/support/browser.ts';
import { pause } from '../e2e/support/screen.ts';
import { startSpur } from '../e2e/support/spur.ts';
import { Workbench } from '../e2e/support/workbench.ts';
const spur = await startSpur({ withDemo: true });
const browser = await openBrowser();
const bench = new Workbench(browser.driver);
let n = 0;
const take = async (name: string) => {
  await pause(500);
  writeFileSync(`/tmp/look-${name}.png`, await browser.driver.takeScreenshot(), 'base64');
};
try {
  await bench.signIn(spur);
  const script = await import(process.argv[2]!);
  await script.default({ spur, browser, bench, take, Key, pause });
} catch (e) {
  console.error(e);
  await take('fault');
} finally {
  await browser.close();
  await spur.stop();
}
