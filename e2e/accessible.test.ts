import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Browser, openBrowser } from './support/browser.ts';
import { type Spur, startSpur } from './support/spur.ts';
import { pause } from './support/screen.ts';
import { Workbench } from './support/workbench.ts';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
let spur: Spur;
let browser: Browser;
let bench: Workbench;
/** To the shared plan of the demo. */
let link = '';
beforeAll(async () => {
  spur = await startSpur({ withDemo: true });
  browser = await openBrowser();
  bench = new Workbench(browser.driver);
});
afterAll(async () => {
  await browser?.close();
  await spur?.stop();
});

const ALL_RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
/** What can be otherwise in the dark. */
const RULES_OF_COLOUR = { type: 'rule', values: ['color-contrast'] };

/** What axe finds by those rules, WCAG 2.2 A and AA and its best practices where it is all, as one line a fault. */
async function faults(rules: unknown): Promise<string[]> {
  // Away from whatever shows a tooltip.
  await browser.driver.actions().move({ x: 1, y: 1 }).perform();
  await pause(350);
  await browser.driver.executeScript(AXE);
  return browser.driver.executeAsyncScript(
    `const [rules, done] = arguments;
    axe.run(document, { runOnly: rules }).then((found) =>
      done(found.violations.flatMap((rule) => rule.nodes.map((node) => rule.id + ': ' + node.html.slice(0, 160) + ' | ' + (node.failureSummary || '').split('\\n')[1]))));`,
    rules,
  );
}

const open = (path: string) => async () => {
  await browser.driver.get(spur.workbench + path);
  await pause(700);
};
const visit = (path: string) => async () => browser.driver.get(`${spur.live}/pellow-quay${path}`);
const SIGNED_IN: [string, () => Promise<void>][] = [
  ['the sites', open('/sites')],
  ['the Plan lens, with what others say', open('/sites/pellow-quay?lens=plan&page=pq004')],
  ['the schedule', open('/sites/pellow-quay?lens=plan&view=schedule')],
  [
    'the carry-over',
    async () => {
      await open('/sites/pellow-quay?lens=plan&view=carry-over')();
      await bench.untilText('old pages settled');
      await (await bench.find('row', /^Long courses/)).click();
    },
  ],
  [
    'the goals',
    async () => {
      await open('/sites/pellow-quay?lens=plan')();
      await bench.click('button', /^Goals/);
    },
  ],
  [
    'the links of a plan',
    async () => {
      await open('/sites/pellow-quay?lens=plan')();
      await bench.click('button', 'Share');
      link = (await (await bench.find('textbox', 'The link for the governors')).getAttribute('value'))!;
      await bench.click('button', 'Invite by mail…');
      await bench.fill('Mail addresses', 'petra@pellow-quay.example');
      await bench.click('button', 'Send the invitation');
      await bench.untilText('The invitation is sent.');
      await bench.click('button', 'Make a link…');
    },
  ],
  ['the outbox', open('/outbox')],
  [
    'a shared plan',
    async () => {
      await browser.driver.get(`${link}?page=pq004`);
      await bench.untilText('Petra Vane wrote on');
    },
  ],
  [
    'the question for a guest’s name',
    async () => {
      await browser.driver.get(`${link}?view=map`);
      await bench.click('button', 'Agreed');
      await bench.untilText('What is your name?');
    },
  ],
  [
    'a link that leads nowhere',
    async () => {
      await browser.driver.get(`${link}x`);
      await bench.untilText('This link leads nowhere');
    },
  ],
  [
    'a starter',
    async () => {
      await open('/sites/pellow-quay?lens=plan')();
      await bench.click('button', 'Import and export');
      await bench.click('menuitem', 'Begin from a starter…');
      await bench.untilText('Which pages');
    },
  ],
  [
    'what an import would change',
    async () => {
      await open('/sites/pellow-quay?lens=plan')();
      await bench.click('button', 'Import and export');
      await bench.click('menuitem', 'Import pages…');
      await bench.click('radio', 'Text');
      await bench.fill('The text', 'title,parent\nNew shed,/workshops');
      await bench.click('button', 'See what changes');
      await bench.untilText('pages were read');
    },
  ],
  [
    'the old site',
    async () => {
      await open('/sites/pellow-quay?lens=plan&view=carry-over')();
      await bench.click('button', 'Old site…');
    },
  ],
  ['the Write lens', open('/sites/pellow-quay?lens=write&page=pq012')],
  ['the Access lens', open('/sites/pellow-quay?lens=access&page=pq004')],
  [
    'the audiences',
    async () => {
      await open('/sites/pellow-quay?lens=access')();
      await bench.click('button', /^Audiences/);
    },
  ],
  [
    'the visitors',
    async () => {
      await open('/sites/pellow-quay?lens=access')();
      await bench.click('button', 'Visitors');
      await bench.untilText('Bram Calloway');
      await bench.click('button', 'New visitor…');
    },
  ],
  [
    'the joining links',
    async () => {
      await open('/sites/pellow-quay?lens=access')();
      await bench.click('button', 'Visitors');
      await bench.click('tab', 'Joining links');
      await bench.click('button', 'Make a joining link');
      await bench.find('textbox', /^The link that joins/);
    },
  ],
  [
    'the search engine’s eye',
    async () => {
      await open('/sites/pellow-quay?lens=access')();
      await bench.click('button', 'Engine’s eye');
      await bench.click('button', 'Read the live site');
      await bench.untilText('addresses read');
    },
  ],
  [
    'a comparison of two audiences',
    async () => {
      await open('/sites/pellow-quay?lens=access')();
      await bench.click('button', 'Compare');
      await bench.untilText('can open it.');
    },
  ],
  [
    'two walks beside each other',
    async () => {
      await open('/sites/pellow-quay/walk')();
      await bench.click('checkbox', 'Add a second walk');
    },
  ],
  ['the Menus lens', open('/sites/pellow-quay?lens=menus&page=pq002')],
  ['the Publish lens', open('/sites/pellow-quay?lens=publish&page=pq017')],
  [
    'a find in the tree',
    async () => {
      await open('/sites/pellow-quay')();
      await bench.fill('Find by title, address or text', 'marig');
    },
  ],
  [
    'the move dialog',
    async () => {
      await open('/sites/pellow-quay?page=pq012')();
      await bench.focusTree();
      await bench.press('t', Key.ARROW_DOWN);
    },
  ],
  [
    'the release dialog',
    async () => {
      await open('/sites/pellow-quay?lens=publish')();
      await bench.click('button', /^Make live…/);
    },
  ],
  [
    'the history',
    async () => {
      await open('/sites/pellow-quay')();
      await bench.click('button', 'History');
    },
  ],
  ['the map', open('/sites/pellow-quay?view=map&page=pq012')],
  ['rows and map beside each other', open('/sites/pellow-quay?view=split&page=pq012')],
  ['a filter', open('/sites/pellow-quay?view=sheet&state=draft,edited')],
  [
    'the choice of filters',
    async () => {
      await open('/sites/pellow-quay?view=sheet')();
      await bench.click('button', 'Filter');
    },
  ],
  [
    'the Checks lens',
    async () => {
      await open('/sites/pellow-quay?lens=checks')();
      await bench.select('Visit');
      await bench.untilText('was removed');
    },
  ],
  [
    'the releases, with one to be taken back',
    async () => {
      await open('/sites/pellow-quay?lens=publish')();
      await bench.click('button', 'Releases');
      await bench.click('button', /^Take back release/);
      await bench.untilText('becomes what visitors had before');
    },
  ],
  [
    'the redirects',
    async () => {
      await open('/sites/pellow-quay?lens=publish')();
      await bench.click('button', /not found/);
      await bench.untilText('Waiting for a release');
    },
  ],
  [
    'the addresses that were not found',
    async () => {
      await open('/sites/pellow-quay?lens=publish')();
      await bench.click('button', /not found/);
      await bench.click('button', /^Not found/);
      await bench.untilText('has nearly the same name');
    },
  ],
  [
    'the list before opening',
    async () => {
      await open('/sites/pellow-quay?lens=publish')();
      await bench.click('button', 'Open to visitors');
      await bench.find('textbox', 'What visitors will read');
    },
  ],
  [
    'two texts beside each other',
    async () => {
      await open('/sites/pellow-quay?lens=publish')();
      await bench.select('Visit');
      await bench.click('button', 'Compare the texts…');
      await bench.untilText('2 paragraphs differ');
    },
  ],
  [
    'the columns',
    async () => {
      await open('/sites/pellow-quay')();
      await bench.click('button', 'Columns');
    },
  ],
  [
    'the tree as it was',
    async () => {
      await open('/sites/pellow-quay')();
      await bench.click('button', 'History');
      await (await bench.find('slider', 'The tree as it was')).sendKeys(Key.HOME);
      await bench.untilText('The tree as it was.');
    },
  ],
  [
    'the dialog for a list',
    async () => {
      await open('/sites/pellow-quay')();
      await bench.focusTree();
      await bench.press('l');
      await bench.fill('The list', '- One\n  - Two\n%%%');
    },
  ],
  [
    'the dialog for fields of several pages',
    async () => {
      await open('/sites/pellow-quay')();
      await bench.select('Courses');
      await bench.select('Apply', Key.CONTROL);
      await bench.click('button', 'Set fields…');
    },
  ],
  [
    'the dialog for taking the map along',
    async () => {
      await open('/sites/pellow-quay?view=map')();
      await bench.click('button', 'Export the map…');
    },
  ],
  [
    'the removed pages',
    async () => {
      await open('/sites/pellow-quay')();
      await bench.click('button', 'Removed pages');
    },
  ],
  [
    'the keys',
    async () => {
      await open('/sites/pellow-quay')();
      await bench.focusTree();
      await bench.press('?');
    },
  ],
  [
    'the commands',
    async () => {
      await open('/sites/pellow-quay')();
      await bench.chord(Key.CONTROL, 'k');
    },
  ],
  ['a visitors’ page', visit('/courses/long-courses/the-year-course')],
  ['the sign-in page for visitors', visit('/staff-handbook')],
  ['the not-found page', visit('/courses/evening-clases')],
  ['the search of the site', visit('/search?q=splicng')],
  ['the way to a new password', visit('/~password')],
];

/** What axe finds on what shows, in light and in dark. */
async function faultsInBoth(): Promise<string[]> {
  const found: string[] = [];
  for (const scheme of ['light', 'dark'] as const) {
    await browser.prefer(scheme);
    found.push(
      ...(await faults(scheme === 'light' ? ALL_RULES : RULES_OF_COLOUR)).map((fault) => `in ${scheme}: ${fault}`),
    );
  }
  await browser.prefer('light');
  return found;
}

describe('in light and in dark, axe finds nothing on', () => {
  it('the sign-in page', async () => {
    await open('/sign-in')();
    expect(await faultsInBoth()).toEqual([]);
    await bench.signIn(spur);
  });
  it.each(SIGNED_IN)('%s', async (_, show) => {
    await show();
    expect(await faultsInBoth()).toEqual([]);
  });
  it('the workbench at 390 pixels', async () => {
    await browser.resize(390, 800);
    await open('/sites/pellow-quay')();
    expect(await faultsInBoth()).toEqual([]);
    const overflow = await browser.driver.executeScript(
      'return document.documentElement.scrollWidth - window.innerWidth',
    );
    expect(overflow).toBeLessThanOrEqual(0);
    await browser.resize(1280, 800);
  });
});
