import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { accessibilityFaults } from './support/accessibility.ts';
import { pause } from './support/screen.ts';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();
/** To the shared plan of the demo. */
let link = '';

const open = (path: string) => async () => {
  await bench.goTo(spur, path);
  await bench.until('the screen is there', () =>
    browser.driver.executeScript<boolean>(`return document.querySelector('h1') !== null`),
  );
  await pause(700);
};
const visit = (path: string) => async () => browser.driver.get(`${spur.live}/pellow-quay${path}`);
const LENSES = ['plan', 'write', 'access', 'menus', 'publish', 'checks'] as const;
const SIZES = [
  [820, 600],
  [640, 400],
  [390, 800],
] as const;
const VIEWS: [string, () => Promise<void>][] = [
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
  ['a sketch in two variants', open('/sites/pellow-quay?lens=plan&beside=sketches/year')],
  [
    'a board with a colour chosen',
    async () => {
      await open('/sites/pellow-quay?lens=plan&beside=boards/tar')();
      await bench.click('button', /^Colour: Shed door/);
    },
  ],
  ['the plan for paper', open('/sites/pellow-quay?lens=plan&beside=plan-pdf')],
  [
    'a colleague with roles, and a form for another one',
    async () => {
      await open('/sites/pellow-quay?lens=access&beside=colleagues')();
      await bench.click('button', 'Invite a colleague…');
      await bench.untilText('Role on the whole site');
    },
  ],
  [
    'the roles of one colleague',
    async () => {
      await open('/sites/pellow-quay?lens=access&beside=colleagues')();
      await bench.click('button', /^Mira Sand/);
      await bench.untilText('Role on the whole site');
    },
  ],
  ['what concerns somebody', open('/sites/pellow-quay?beside=for-you')],
  [
    'comments on a page',
    async () => {
      await open('/sites/pellow-quay?beside=comments')();
      await bench.click('button', /^The year course/);
      await bench.untilText('Settle it');
    },
  ],
  ['which branches need approval', open('/sites/pellow-quay?lens=publish&beside=approval')],
  [
    'a proposal',
    async () => {
      await open('/sites/pellow-quay?lens=publish&beside=proposals')();
      await bench.click('button', /^Online talks/);
      await bench.untilText('What visitors would notice');
    },
  ],
  ['pages to propose', open('/sites/pellow-quay?lens=publish&beside=proposing')],
  ['the security of a site', open('/sites/pellow-quay?lens=access&beside=security')],
  ['one’s own account', open('/account')],
  ['a kind with its fields', open('/sites/pellow-quay?lens=access&beside=labels/course')],
  ['fields as columns', open('/sites/pellow-quay?lens=write&kind=course')],
  [
    'a form with a field',
    async () => {
      await open('/sites/pellow-quay?lens=write&beside=forms/application')();
      await bench.click('button', /^Course Pages/);
      await bench.find('combobox', 'Show this field');
    },
  ],
  [
    'an answer',
    async () => {
      await open('/sites/pellow-quay?lens=write&beside=answers')();
      await bench.click('button', /^Tamsin Orchard/);
      await bench.untilText('Delete for good');
    },
  ],
  ['the look of a site', open('/sites/pellow-quay?lens=menus&beside=look')],
  ['a site with strong colours', async () => browser.driver.get(`${spur.live}/tern-sound/`)],
  ['a form as visitors have it', visit('/visit/guided-tours')],
  ['a list with filters', visit('/courses/course-dates')],
  ['a calendar month', visit('/visit')],
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
  ['the Write lens', open('/sites/pellow-quay?lens=write&page=pq012')],
  ['the Access lens', open('/sites/pellow-quay?lens=access&page=pq004')],
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
    'the history',
    async () => {
      await open('/sites/pellow-quay')();
      await bench.click('button', 'History');
    },
  ],
  ['the map', open('/sites/pellow-quay?view=map&page=pq012')],
  ['rows and map beside each other', open('/sites/pellow-quay?view=split&page=pq012')],
  ['a filter', open('/sites/pellow-quay?view=sheet&state=draft,edited')],
  ['layouts beside the tree', open('/sites/pellow-quay?lens=menus&beside=layouts')],
  [
    'a layout, and the rows that it touches',
    async () => {
      await open('/sites/pellow-quay?lens=menus&beside=layouts')();
      await bench.click('button', /^Handbook/);
      await bench.click('checkbox', 'Only these');
      await bench.untilText('Marked: ‘Handbook’');
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
    'the tree as it was',
    async () => {
      await open('/sites/pellow-quay')();
      await bench.click('button', 'History');
      await (await bench.find('slider', 'The tree as it was')).sendKeys(Key.HOME);
      await bench.untilText('The tree as it was.');
    },
  ],
  ['a visitors’ page', visit('/courses/long-courses/the-year-course')],
  ['the sign-in page for visitors', visit('/staff-handbook')],
  ['the not-found page', visit('/courses/evening-clases')],
  ['the search of the site', visit('/search?q=splicng')],
  ['the way to a new password', visit('/~password')],
];

describe('in light, in dark and in forced colours, axe finds nothing on', () => {
  it.each(VIEWS)('%s', async (_, show) => {
    await show();
    expect(await accessibilityFaults(browser)).toEqual([]);
  });

  it.each(SIZES.flatMap(([width, height]) => LENSES.map((lens) => [lens, width, height] as const)))(
    'the %s lens at %i × %i',
    async (lens, width, height) => {
      await browser.resize(width, height);
      await open(`/sites/pellow-quay?lens=${lens}&page=pq012`)();
      expect(await accessibilityFaults(browser, 'in light')).toEqual([]);
      const overflow = await browser.driver.executeScript(
        'return document.documentElement.scrollWidth - window.innerWidth',
      );
      expect(overflow).toBeLessThanOrEqual(0);
    },
  );

  it('what a lens offers on a telephone, and the side sheet there', async () => {
    await browser.resize(390, 800);
    await open('/sites/pellow-quay?lens=publish&page=pq012')();
    await bench.click('button', /^Lens:/);
    expect(await accessibilityFaults(browser)).toEqual([]);
    await bench.press(Key.ESCAPE);
    await bench.click('button', 'Page');
    await bench.find('button', 'Back to the tree');
    expect(await accessibilityFaults(browser)).toEqual([]);
    await browser.resize(1280, 800);
  });

  it('the sign-in page', async () => {
    await browser.driver.manage().deleteAllCookies();
    await open('/sign-in')();
    expect(await accessibilityFaults(browser)).toEqual([]);
  });
});
