import { By, Key, Origin, type WebDriver } from 'selenium-webdriver';
import type chrome from 'selenium-webdriver/chrome.js';
import { openBrowser } from '../e2e/support/browser.ts';
import type { Result } from './measure.ts';

/** A frame must not wait longer than this for the main thread (the long-task limit of the web's performance APIs). */
export const MAX_TASK_MS = 50;
/** A frame at 60 a second. */
const FRAME_MS = 1000 / 60;

interface BrowserBench {
  readonly origin: string;
  readonly site: string;
  readonly email: string;
  readonly password: string;
  readonly size: number;
  readonly aims: BrowserAims;
}

/** In milliseconds: what is to be there so long after it was asked for. */
export interface BrowserAims {
  readonly firstRows: number;
  /** What is filtered while somebody types. */
  readonly filter: number;
  readonly map: number;
}

/** How the workbench bears a large site, in headless Chromium: long tasks, filtering, the map. */
export async function benchBrowser(asked: BrowserBench): Promise<Result[]> {
  const { driver, close } = await openBrowser();
  const results: Result[] = [];
  const pages = `${asked.size.toLocaleString('en')} pages`;
  const add = (what: string, milliseconds: number, limit: number, words?: string) =>
    results.push({
      what: `${what}, ${pages}`,
      ours: words ?? `${milliseconds < 10 ? milliseconds.toFixed(1) : milliseconds.toFixed(0)} ms`,
      limit: Number.isNaN(limit) ? '–' : `${limit.toFixed(limit < 20 ? 1 : 0)} ms`,
      ratio: milliseconds / limit,
      aim: Number.isNaN(limit) ? 'none set' : '≤ 1',
      isMet: Number.isNaN(limit) || milliseconds <= limit,
    });
  const during = async (what: string, work: () => Promise<void>) => {
    await pause(700);
    await driver.executeScript('window.tasks.length = 0');
    await work();
    await pause(700);
    const tasks = await driver.executeScript<number[]>('return window.tasks');
    const longest = Math.max(0, ...tasks);
    const words = longest === 0 ? 'none over 50 ms' : `${longest.toFixed(0)} ms (${tasks.length} over 50 ms)`;
    add(`Longest main-thread task while ${what}`, longest, MAX_TASK_MS, words);
  };
  const focus = () => driver.executeScript(`document.querySelector('[data-tree-view]').focus()`);
  const open = async (view: 'sheet' | 'map', sign: string) => {
    await driver.get(`${asked.origin}/sites/${asked.site}?view=${view}`);
    await wait(async () => (await driver.findElements(By.css(sign))).length > 0);
    await watchTasks(driver);
  };
  try {
    await driver.manage().setTimeouts({ script: 60_000 });
    await signIn(driver, asked);
    await noteFirstRows(driver);
    await open('sheet', '[role=row][aria-level]');
    add(
      'Navigation to the first rows of the tree, the server reading the site first',
      await driver.executeScript<number>('return window.firstRows'),
      Number.NaN,
    );
    await open('sheet', '[role=row][aria-level]');
    add(
      'Navigation to the first rows of the tree',
      await driver.executeScript<number>('return window.firstRows'),
      asked.aims.firstRows,
    );
    await pause(3000);
    const bytes = await driver.executeScript<number>('return performance.memory.usedJSHeapSize');
    add('Memory of the page in megabytes', bytes / 1e6, Number.NaN, `${(bytes / 1e6).toFixed(0)} MB`);

    // The first three levels are open, so that there are rows to scroll through.
    await open('map', '[role=treeitem]');
    await openLevels(driver, 3);
    await driver.actions().sendKeys(Key.ESCAPE).perform();
    await focus();
    await driver.actions().sendKeys('m').perform();
    await wait(async () => (await driver.findElements(By.css('[role=row][aria-level]'))).length > 0);
    await during('scrolling', async () => {
      for (let step = 0; step < 40; step++) await wheel(driver);
    });
    await during('renaming a page in the tree', async () => {
      await focus();
      await driver.actions().sendKeys(Key.HOME, Key.ARROW_DOWN, Key.F2).perform();
      for (const letter of 'A title that is typed') await driver.actions().sendKeys(letter).perform();
      await driver.actions().sendKeys(Key.ENTER).perform();
    });
    await during('adding pages', async () => {
      await focus();
      await driver.actions().sendKeys('n').perform();
      for (const title of ['One', 'Two', 'Three']) await driver.actions().sendKeys(title, Key.ENTER).perform();
      await driver.actions().sendKeys(Key.ESCAPE).perform();
    });
    await during('typing a slug, with what changes shown', async () => {
      const slug = await driver.findElement(By.xpath("//label[text()='Slug']/following-sibling::input"));
      for (const letter of 'typed') await slug.sendKeys(letter);
      await slug.sendKeys(Key.ESCAPE);
    });
    await during('moving a branch down and up', async () => {
      await focus();
      await driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ARROW_DOWN).keyUp(Key.CONTROL).perform();
      await pause(300);
      await driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ARROW_UP).keyUp(Key.CONTROL).perform();
    });
    await focus();
    await driver.actions().sendKeys('4').perform();
    const press = async (sign: By) => {
      await wait(async () => (await driver.findElements(sign)).length > 0);
      await driver.findElement(sign).click();
    };
    // The first layout is that of all pages which name no other: all rows are marked.
    await press(By.xpath("//button[starts-with(normalize-space(), 'Layouts')]"));
    await during('opening a layout and marking all rows', () => press(By.css('button[data-give]')));
    await during('showing the marked rows alone', () => press(By.xpath("//label[normalize-space()='Only these']")));
    await driver.executeScript('history.go(-1)');
    add(
      'A filter as it is typed, from the letter to the rows',
      Math.max(...(await filterTimes(driver))),
      asked.aims.filter,
    );

    await open('map', '[role=treeitem]');
    add('The map with all levels open, from asking to its rails', await openLevels(driver, Infinity), asked.aims.map);
    const frames = await panTimes(driver);
    add('Script time of the longest frame while the map is moved', Math.max(...frames), FRAME_MS);
    add('Script time of a frame while the map is moved, mean', mean(frames), FRAME_MS);
    await during('renaming a page in the map with all levels open', async () => {
      await focus();
      await driver.actions().sendKeys(Key.F2).perform();
      for (const letter of 'Another title') await driver.actions().sendKeys(letter).perform();
      await driver.actions().sendKeys(Key.ENTER).perform();
    });
    return results;
  } finally {
    await close();
  }
}

/** Has each page note, in `window.firstRows`, when its first rows were there. Asking whether they are would wait for what comes after them. */
const noteFirstRows = (driver: chrome.Driver): Promise<unknown> =>
  driver.sendAndGetDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
    source: `new MutationObserver((_, observer) => {
      if (!document.querySelector('[role=row][aria-level]')) return;
      window.firstRows = performance.now();
      observer.disconnect();
    }).observe(document, { childList: true, subtree: true });`,
  });

/** Notes from now on, in `window.tasks`, how long each task takes that is over 50 ms. */
export const watchTasks = (driver: WebDriver): Promise<void> =>
  driver.executeScript(`
    window.tasks = [];
    new PerformanceObserver((list) => window.tasks.push(...list.getEntries().map((entry) => entry.duration))).observe({ type: 'longtask' });`);

export async function signIn(
  driver: WebDriver,
  { origin, email, password }: Pick<BrowserBench, 'origin' | 'email' | 'password'>,
): Promise<void> {
  await driver.get(`${origin}/sign-in`);
  await wait(() => driver.findElements(By.css('input')).then((found) => found.length >= 2));
  const [mail, secret] = await driver.findElements(By.css('input'));
  await mail!.sendKeys(email);
  await secret!.sendKeys(password, Key.ENTER);
  await wait(() => driver.getCurrentUrl().then((url) => url.endsWith('/sites')));
}

/** Opens the first levels by the map's own choice; gives the milliseconds until the rails have changed. */
const openLevels = (driver: WebDriver, levels: number): Promise<number> =>
  driver.executeAsyncScript(
    `
    const [levels, done] = arguments;
    const list = document.querySelector('[aria-label="Open to level"]');
    const world = document.querySelector('[role=tree] svg > g');
    const began = performance.now();
    const seen = () => world.querySelector('path')?.getAttribute('d')?.length ?? 0;
    const before = seen();
    const look = () => {
      if (seen() !== before || performance.now() - began > 20000) done(performance.now() - began);
      else requestAnimationFrame(look);
    };
    Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(list, list.options[Math.min(levels, list.options.length - 1)].value);
    list.dispatchEvent(new Event('change', { bubbles: true }));
    requestAnimationFrame(look);`,
    Number.isFinite(levels) ? levels : 1000,
  );

/** Types words into the find field; gives the milliseconds from each letter to the rows that it leaves. */
const filterTimes = (driver: WebDriver): Promise<number[]> =>
  driver.executeAsyncScript(`
    const done = arguments[0];
    const field = document.getElementById('find-field');
    const grid = document.querySelector('[role=treegrid]');
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
    const times = [];
    const words = ['b', 'be', 'bench', 'b', 'ti', 'tide'];
    const next = () => {
      const word = words.shift();
      if (word === undefined) return done(times);
      const before = grid.getAttribute('aria-rowcount');
      const began = performance.now();
      const look = () => {
        const passed = performance.now() - began;
        if (grid.getAttribute('aria-rowcount') === before && passed < 3000) return requestAnimationFrame(look);
        times.push(passed);
        setTimeout(next, 500);
      };
      set.call(field, word);
      field.dispatchEvent(new Event('input', { bubbles: true }));
      requestAnimationFrame(look);
    };
    next();`);

/** Moves the map by the pointer for two seconds of frames; gives the milliseconds of script that each frame takes. */
const panTimes = (driver: WebDriver): Promise<number[]> =>
  driver.executeAsyncScript(`
    const done = arguments[0];
    const svg = document.querySelector('[role=tree] svg');
    const box = svg.getBoundingClientRect();
    const at = (type, x, y, target) =>
      target.dispatchEvent(new MouseEvent(type, { clientX: x, clientY: y, bubbles: true, cancelable: true, view: window, button: 0 }));
    let [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
    at('mousedown', x, y, svg);
    const times = [];
    const frame = async () => {
      const began = performance.now();
      x += Math.sin(times.length / 9) * 22;
      y -= 14;
      at('mousemove', x, y, window);
      for (let n = 0; n < 4; n++) await null;
      times.push(performance.now() - began);
      if (times.length < 120) requestAnimationFrame(frame);
      else {
        at('mouseup', x, y, window);
        done(times);
      }
    };
    requestAnimationFrame(frame);`);

const mean = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0) / values.length;

/** One turn of the wheel over the tree. */
const wheel = (driver: WebDriver): Promise<void> =>
  // The types of the driver's package do not know the wheel yet.
  (
    driver.actions() as unknown as {
      scroll(x: number, y: number, byX: number, byY: number, origin: string): { perform(): Promise<void> };
    }
  )
    .scroll(300, 400, 0, 600, Origin.VIEWPORT)
    .perform();

export const pause = (time: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, time));

export async function wait(holds: () => Promise<boolean>): Promise<void> {
  for (const end = Date.now() + 60_000; Date.now() < end; await pause(50)) if (await holds()) return;
  throw new Error('The workbench did not open within 60 seconds.');
}
