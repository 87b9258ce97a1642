import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { accessibilityFaults } from './support/accessibility.ts';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();

const open = (path: string) => async () => {
  await bench.goTo(spur, path);
  await bench.untilText('Saved');
};

const DIALOGS: [string, () => Promise<void>][] = [
  [
    'the goals',
    async () => {
      await open('/sites/pellow-quay?lens=plan')();
      await bench.click('button', /^Goals/);
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
    'what a visitor can open',
    async () => {
      await open('/sites/pellow-quay?lens=access')();
      await bench.click('button', 'Visitors');
      await bench.click('button', /^Bram Calloway/);
      await bench.untilText('of them not open to everyone');
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
    'the choice of filters',
    async () => {
      await open('/sites/pellow-quay?view=sheet')();
      await bench.click('button', 'Filter');
    },
  ],
  [
    'the releases, with one to be taken back',
    async () => {
      await open('/sites/pellow-quay?lens=publish')();
      await bench.click('button', 'Releases');
      await bench.click('button', /The autumn sale is over/);
      await bench.untilText('1 page marked in the tree.');
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
];

describe('in light and in dark, axe finds nothing on', () => {
  it.each(DIALOGS)('%s', async (_, show) => {
    await show();
    expect(await accessibilityFaults(browser)).toEqual([]);
  });
});
