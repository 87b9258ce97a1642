import { Key, type WebElement } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { pause } from './support/screen.ts';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn(true);

/** What a choice says that stands in a box. */
const chosenOption = async (label: string): Promise<string> =>
  browser.driver.executeScript('return arguments[0].selectedOptions[0].text', await bench.find('combobox', label));

/** Drags by small steps, as a hand does. */
async function drag(from: WebElement, to: WebElement): Promise<void> {
  const actions = browser.driver.actions({ async: true });
  await actions
    .move({ origin: from })
    .press()
    .move({ origin: from, x: 12, y: 6, duration: 60 })
    .move({ origin: to, duration: 250 })
    .pause(150)
    .release()
    .perform();
}

describe('planning', () => {
  it('is done in the rows: a choice, a name and a day, for one page and for several at once', async () => {
    await bench.open(spur, 'tern-sound', '?lens=plan');
    await bench.select('Boats');
    await bench.click('button', 'Readiness: Boats, Not started');
    await bench.click('menuitem', 'In review');
    await bench.untilRow('Boats', /In review/);
    await bench.click('button', 'Owner: Boats, –');
    await bench.press(...'Ulla Storm', Key.ENTER);
    await bench.untilRow('Boats', /Ulla Storm/);
    await bench.click('button', 'Origin: Boats, –');
    await bench.click('menuitem', 'New');
    await bench.untilRow('Boats', /New/);

    await bench.select('Crossings');
    await bench.select('Boats', Key.SHIFT);
    await bench.click('button', 'Set fields…');
    await bench.click('checkbox', 'Give all the same owner');
    await bench.fill('Owner', 'Per Lund');
    await bench.choose('Importance', /^1/);
    await bench.click('button', /^Set \d+ pages$/);
    await bench.untilRow('Crossings', /Per Lund/);
    await bench.untilRow('Boats', /Per Lund/);
    await bench.saved();
  });

  it('says what the site is for, and which pages serve that', async () => {
    await bench.open(spur, 'tern-sound', '?lens=plan');
    await bench.click('button', 'Goals');
    await bench.fill('The first goal', 'Nobody misses the last boat');
    await bench.click('button', 'Add the goal');
    await bench.fill('For whom', 'Islanders');
    await bench.untilText('It touches no page.');
    await bench.click('button', 'Close goals of the site');
    await bench.select('Crossings');
    await bench.click('checkbox', /^Nobody misses the last boat/);
    await bench.saved();
    await bench.click('button', 'Goals (1)');
    await bench.untilText('1 page serves it');
    await bench.untilText('serve no goal.');
    await bench.click('button', 'Show them in the tree');
    await bench.untilText('In the plan: Serves no goal');
    await bench.click('button', 'Close goals of the site');
    await bench.click('button', 'Clear');
  });

  it('asks, answers and settles questions, which are counted in the branch above and at the lens', async () => {
    await bench.open(spur, 'tern-sound', '?lens=plan');
    await bench.select('Sandpiper');
    await bench.fill('What needs an answer?', 'How many cars?');
    await bench.click('button', 'Ask');
    await bench.untilText('Ines Carrow asked');
    await bench.untilRow('Boats', /1 below/);
    await bench.find('button', /^Plan 1/);
    await bench.fill('Answer', 'Twelve.');
    await bench.press(Key.TAB);
    await bench.click('button', 'Settle');
    await bench.untilText('Settled by Ines Carrow.');
    await bench.until('the count is gone', async () => !/below/.test(await bench.row('Boats')));
  });

  it('shows the same in the map, in words', async () => {
    await bench.open(spur, 'tern-sound', '?lens=plan&view=map');
    await bench.find('treeitem', /Boats.*New · in review · importance \d · Per Lund/);
  });
});

describe('a starter', () => {
  it('begins a branch with the pages that were chosen, renamed on the way', async () => {
    await bench.open(spur, 'tern-sound', '?lens=plan');
    await bench.select('Sandpiper');
    await bench.click('button', 'Import and export');
    await bench.click('menuitem', 'Begin from a starter…');
    await bench.choose('Starter', /^Small organisation/);
    await bench.click('checkbox', 'Take Home');
    await bench.click('checkbox', 'Take Legal');
    await bench.fill('Title of Dates', 'When she sails');
    await bench.click('button', /^Add \d+ pages$/);
    await bench.untilTree('they stand inside', (tree) => tree.includes('    When she sails'));
    expect(await bench.tree()).not.toContain('    Legal');
    await bench.saved();
  });
});

describe('imported pages', () => {
  it('are shown as what changes, and imported in part', async () => {
    await bench.open(spur, 'tern-sound', '?lens=plan');
    await bench.click('button', 'Import and export');
    await bench.click('menuitem', 'Import pages…');
    await bench.click('radio', 'Text');
    await bench.fill(
      'The text',
      'title,parent,owner\nTide tables,/crossings,Per Lund\nLost and found,/crossings,\nx,y,z',
    );
    await bench.click('button', 'See what changes');
    await bench.untilText('line 4: There is no parent page ‘y’');
    await bench.fill('The text', 'title,parent,owner\nTide tables,/crossings,Per Lund\nLost and found,/crossings,');
    await bench.click('button', 'See what changes');
    await bench.untilText('Added (2)');
    await bench.click('checkbox', /^Lost and found/);
    await bench.click('button', 'Make 1 change');
    await bench.untilTree('the one that was chosen stands there', (tree) => tree.includes('  Tide tables'));
    expect(await bench.tree()).not.toContain('  Lost and found');
    await bench.untilRow('Tide tables', /Per Lund/);
  });
});

describe('the old site', () => {
  it('gives a planned page its text as a draft, with its pictures and documents, and links to planned pages', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=plan');
    await bench.click('button', 'Carry-over');
    await bench.untilText('old pages settled');
    await (await bench.find('row', /^Year course/)).click();
    await bench.click('button', 'Accept ‘Term by term’');
    await bench.click('button', 'Take over its text');
    await bench.untilText('at the end of the draft of ‘Term by term’ now, with 2 files in the library.');
    await bench.saved();
    await bench.open(spur, 'pellow-quay', '?lens=write&find=Term+by+term');
    await bench.select('Term by term');
    await bench.until('the picture and the document stand in the text', () =>
      browser.driver.executeScript<boolean>(
        `const text = document.querySelector('.text-of-page');
        return text?.querySelector('.picture:last-of-type img')?.naturalWidth > 0 && text.innerText.includes('Prospectus of the year course')
          && [...text.querySelectorAll('img')].some((one) => one.alt === 'A hull with its frames standing')`,
      ),
    );
    // A live page shows the very same document: its former address leads there.
    const former = await fetch(`${spur.live}/pellow-quay/downloads/prospectus.pdf`, { redirect: 'manual' });
    expect([former.status, former.headers.get('location')]).toEqual([
      301,
      expect.stringMatching(/~files\/\w+\/.*\.pdf$/),
    ]);
  });

  it('is read page by page, with progress, and its pages are matched with the plan', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=plan');
    await bench.click('button', 'Carry-over');
    await bench.click('button', 'Old site…');
    await bench.click('button', 'Forget the old site…');
    await bench.click('button', /^Forget \d+ addresses$/);
    await bench.untilText('Import its addresses');
    await bench.fill('Start at', `${spur.formerSite}/`);
    await bench.fill('At most pages', '24');
    await bench.click('button', 'Read the old site');
    await bench.untilText('It stopped at 24 pages, as it was told to.');
    await bench.click('button', 'Close the old site');
    await bench.until('what was accepted before is settled still, and the rest is proposed', async () => {
      const text = await bench.text();
      return /\b[1-9]\d* of 24 old pages settled/.test(text) && /Accept [1-9]\d* from/.test(text);
    });
  });

  it('is gone through branch by branch, and an old page is found for a planned one by part of its name', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=plan');
    await bench.click('button', 'Carry-over');
    await bench.untilText('of 24 old pages settled');
    await bench.find('option', /^Pellow Quay School/);
    await bench.choose('Show', /^Branch by branch/);
    await bench.choose('Section', /^Courses: \d+ of \d+/);
    await bench.until(
      'other branches are out of sight',
      async () => !(await bench.has('option', /^Pellow Quay School/)),
    );
    await bench.find('option', /^Long courses/);
    await bench.click('button', 'The next section');
    await bench.until('it goes on to the next branch', async () => /^Apply:/.test(await chosenOption('Section')));
    await bench.choose('Show', /^Section by section of the old site/);
    await bench.until('the folders of the old site are gone through', async () =>
      /: \d+ of \d+$/.test(await chosenOption('Section')),
    );
    await bench.choose('Show', /^Everything/);
    await (await bench.find('option', /no source yet/)).click();
    await bench.fill('It comes from', 'html');
    await bench.press(Key.ENTER);
    await bench.untilText('Taken over by');
    await bench.click('button', 'Remove again');
    await bench.until('it has no place again', async () => !(await bench.has('button', 'Remove again')));
  });

  it('says which page is accepted', async () => {
    await bench.click('row', /\d+ %/);
    const accept = await bench.find('button', /^Accept ‘.+’ for ‘.+’$/);
    const [, planned] = /^Accept ‘(.+?)’ for/.exec((await accept.getAttribute('aria-label'))!)!;
    await bench.find('button', `Accept ‘${planned}’`);
    await accept.click();
    await bench.untilText('Taken over by');
  });

  it('becomes redirects: imported, matched, corrected, accepted, exported', async () => {
    await bench.open(spur, 'tern-sound', '?lens=plan');
    await bench.click('button', 'Carry-over');
    await bench.click('button', 'Import the old site…');
    await bench.click('radio', 'A list');
    await bench.driver.executeScript(
      `const field = document.querySelector('aside textarea');
       Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value').set.call(field, arguments[0]);
       field.dispatchEvent(new Event('input', { bubbles: true }));`,
      [
        'https://old.tern.example/timetable_summer.html\tSummer timetable',
        'https://old.tern.example/boats.php?b=1\tTern',
        'https://old.tern.example/lost.html\tLost and found',
        'https://old.tern.example/guestbook.html\tGuestbook',
        'not an address',
      ].join('\n'),
    );
    await bench.click('button', 'Preview');
    await bench.untilText('4 found: 4 new, 0 known already.');
    await bench.untilText('1 line was not understood');
    await bench.click('button', 'Import 4 addresses');
    await bench.untilText('Imported 4 new addresses');
    await bench.click('button', 'Close the old site');
    await bench.untilText('0 of 4 old pages settled');
    await bench.click('button', /^Accept [1-3] from/);
    await bench.until('the sure ones are settled', async () => /[1-3] of 4 old pages settled/.test(await bench.text()));

    // Corrected by dragging: the right page takes it over, whatever was proposed.
    await (await bench.find('row', /^Lost and found/)).click();
    await bench.restOf('option', /^Lost property/);
    await drag(await bench.find('row', /^Lost and found/), await bench.find('option', /^Lost property/));
    await bench.untilText('‘Lost property’ takes it over.');
    await (await bench.find('row', /^Guestbook/)).click();
    await bench.click('button', 'Let it go: permanently gone');
    await bench.untilText('Let go: visitors are told that it no longer exists.');
    await bench.saved();
    await pause(300);

    const csv = await browser.driver.executeAsyncScript<string>(
      `fetch('/api/sites/tern-sound/exports/redirects.csv').then((answer) => answer.text()).then(arguments[0])`,
    );
    const lines = csv.trim().split('\r\n');
    expect(lines[0]).toBe('old_address,new_address,status');
    expect(lines).toContain('https://old.tern.example/guestbook.html,,410');
    expect(csv).toMatch(/lost\.html,http:\S+\/lost-property,301/);
    expect(csv).toMatch(/timetable_summer\.html,http:\S+\/summer-timetable,301/);
  });
});
