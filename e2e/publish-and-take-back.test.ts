import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();
await bench.askNoApproval('pellow-quay');

/** What visitors get at an address of the school: the status, and where it leads. */
async function visit(path: string): Promise<string> {
  const { status, headers } = await fetch(`${spur.live}/pellow-quay${path}`, { redirect: 'manual' });
  const to = headers.get('location')?.replace('/pellow-quay', '');
  return to === undefined ? String(status) : `${status} ${to}`;
}
const untilVisit = async (path: string, answer: string) => {
  let last = '';
  await bench
    .until(`visitors get ${answer} at ${path}`, async () => (last = await visit(path)) === answer)
    .catch((fault: Error) => {
      throw new Error(`${fault.message} They get ${last}.`);
    });
};
const tick = async (name: string | RegExp, wanted: boolean) => {
  const box = await bench.find('checkbox', name);
  if ((await box.isSelected()) !== wanted) await box.click();
};

describe('a part of what differs', () => {
  it('goes live under a name, with what has to come along explained and what visitors notice told before', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.untilText('Settings that differ');
    await bench.select('Online talks');
    await bench.press(Key.ARROW_RIGHT);
    await bench.untilTree('the branch is open', (tree) => tree.some((one) => one.trim() === 'Reading a boat'));
    await bench.select('Reading a boat');
    await bench.click('button', 'Make this page live…');
    await bench.untilText('Online talks stands above ‘Reading a boat’');
    await tick('Redirects', false);
    await bench.fill('Name of the release', 'First talk');
    await bench.click('button', 'Make 2 pages live');
    await bench.untilText('2 pages made live.');
    await untilVisit('/courses/online-talks/reading-a-boat', '200');
    expect(await visit('/prospectus')).toBe('404');
    await bench.untilText('Settings that differ');
  });

  it('can be the settings alone', async () => {
    await bench.click('button', /^Make live…/);
    await bench.click('radio', 'Site settings only');
    await bench.click('button', 'Make the redirects live');
    await bench.untilText('Visitors have the redirects now.');
    await untilVisit('/prospectus', '301 /apply/how-to-apply');
    await bench.untilNoText('Settings that differ');
  });

  it('is taken back from the list of releases, and visitors who have its address are led on', async () => {
    await bench.click('button', /^Releases/);
    await bench.click('button', /First talk/);
    await bench.untilText('2 pages marked in the tree.');
    await bench.untilRow('Online talks', /came/);
    await bench.click('button', 'Take back release 3…');
    await bench.untilText('2 pages become what visitors had before');
    await bench.untilRow('Online talks', /as it was before/);
    await bench.click('button', 'Take back release 3');
    await bench.untilText('Release 3 is taken back, by release 5.');
    await bench.click('button', 'All releases');
    await bench.untilText('Release 3 taken back');
    await untilVisit('/courses/online-talks/reading-a-boat', '301 /courses');
    await bench.press(Key.ESCAPE);
  });
});

describe('addresses', () => {
  const setSlug = async (title: string, slug: string) => {
    await bench.select(title);
    await bench.until('the side sheet shows the page', async () => {
      const field = await bench.find('textbox', 'Title');
      return (await field.getAttribute('value')) === title;
    });
    await bench.fill(/^Slug/, slug);
    await bench.press(Key.ENTER);
    await bench.until('the strip has the address', async () => (await bench.strip()).includes(`/${slug}`));
    await bench.saved();
  };

  it('of two pages are swapped, and each former one leads to its page', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=write');
    await setSlug('Apply', 'between');
    await setSlug('Visit', 'apply');
    await setSlug('Apply', 'visit');
    await bench.select('Visit');
    await bench.click('button', /^Make live…/);
    await bench.untilText('still has the address that is needed by');
    await bench.click('button', 'Make 2 pages live');
    await bench.untilText('2 pages made live.');
    await bench.until('the pages are swapped', async () =>
      /<h1>Visit<\/h1>/.test(await (await fetch(`${spur.live}/pellow-quay/apply`)).text()),
    );
    await untilVisit('/apply/bursaries', '301 /visit/bursaries');
    await untilVisit('/visit/open-saturdays', '301 /apply/open-saturdays');
  });

  it('that were not found are settled by one click', async () => {
    await untilVisit('/courses/evening-clases', '404');
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.click('button', /not found/);
    await bench.click('button', /^Not found/);
    await bench.untilText('has nearly the same name');
    await bench.press(Key.ESCAPE);
    // The not-found page offers the same to visitors.
    await bench.driver.get(`${spur.live}/pellow-quay/courses/evening-clases`);
    await bench.untilText('You may be looking for');
    await bench.click('link', 'Evening classes');
    expect(await bench.driver.getCurrentUrl()).toBe(`${spur.live}/pellow-quay/courses/evening-classes`);
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.click('button', /not found/);
    await bench.click('button', /^Not found/);
    await bench.click('button', 'Redirect it there: /courses/evening-clases to ‘Evening classes’');
    await bench.untilText('leads to ‘Evening classes’ with the next release');
    await bench.press(Key.ESCAPE);
    await bench.click('button', /^Make live…/);
    await bench.click('radio', 'Site settings only');
    await bench.click('button', 'Make the redirects live');
    await untilVisit('/courses/evening-clases', '301 /courses/evening-classes');
  });
});

it('a text is compared with what visitors have, the words marked that differ', async () => {
  await bench.open(spur, 'pellow-quay', '?lens=write&page=pq008');
  const editor = await bench.find('textbox', 'Text');
  await editor.sendKeys(Key.chord(Key.CONTROL, Key.HOME), 'Marvellous ');
  await bench.until('it is saved', async () => (await bench.text()).includes('Live, edited.'));
  await bench.open(spur, 'pellow-quay', '?lens=publish&page=pq008');
  await bench.click('button', 'Compare the texts…');
  await bench.untilText('1 paragraph differs');
  const marks = await bench.driver.executeScript<string[]>(
    `return [...document.querySelectorAll('aside ins')].map((one) => one.textContent.trim())`,
  );
  expect(marks).toEqual(['Marvellous']);
});

describe('links that do not lead where they should', () => {
  it('are counted, listed page by page, and mended by linking to a heading that is there', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=checks');
    await bench.select('Visit');
    await bench.untilText('no longer has that heading');
    await bench.untilText('‘Plain Jane’ was removed.');
    await bench.untilText('3 links do not work.');
    await bench.open(spur, 'pellow-quay', '?lens=write');
    await bench.select('How to find us');
    let editor = await bench.find('textbox', 'Text');
    await editor.sendKeys(Key.chord(Key.CONTROL, Key.END), Key.ENTER, 'By bicycle');
    await bench.click('button', 'Heading');
    await bench.until('it is saved', async () => (await bench.text()).includes('Live, edited.'));
    await bench.select('Course dates');
    editor = await bench.find('textbox', 'Text');
    await editor.sendKeys(Key.chord(Key.CONTROL, 'a'));
    await bench.click('button', 'Make a link');
    await bench.choose('Page', /How to find us/);
    await bench.choose('Where on the page', /^By bicycle/);
    await bench.click('button', 'Link them');
    await bench.until('it is saved', async () => (await bench.text()).includes('Live, edited.'));
    await bench.open(spur, 'pellow-quay', '?lens=checks');
    await bench.untilText('2 links do not work.');
    await bench.select('Course dates');
    await bench.untilText('They all lead where they should.');
  });

  it('lead outside too: those are asked in the background, and what does not answer is told', async () => {
    await bench.click('button', 'Check outside addresses');
    await bench.untilText('2 outside addresses were checked on');
    await bench.click('button', 'Tide tables');
    await bench.untilText('Link elsewhere, or remove the link.');
  });

  it('are told before a release that would break them', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.click('button', /^Make live…/);
    await bench.click('radio', /Everything that waits/);
    await bench.untilText('‘Visit’ to ‘Student council’: hidden');
    await bench.press(Key.ESCAPE);
  });
});

describe('what pages lack', () => {
  it('is told page by page, can be filtered by, and is gone once it is there', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=checks&lacks=no%20text');
    await bench.untilTree('only pages without text and those above are left', (tree) => {
      const titles = tree.map((row) => row.trim());
      return titles.includes('Machines') && !titles.includes('Course dates');
    });
    await bench.select('Machines');
    await bench.untilText('It has no text, and lists no pages.');
    await bench.click('button', 'Thank you for applying');
    await bench.untilText('No menu, list or text leads to it.');
    await bench.open(spur, 'pellow-quay', '?lens=write&find=machines');
    await bench.select('Machines');
    await (await bench.find('textbox', 'Text')).sendKeys('Ask before you switch one on.');
    await bench.until('it is saved', async () => (await bench.text()).includes('Live, edited.'));
    await bench.open(spur, 'pellow-quay', '?lens=checks&find=machines');
    await bench.select('Machines');
    await bench.untilText('It has everything it needs.');
  });

  it('is told before a release that would bring it to visitors', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.select('Course dates');
    await bench.focusTree();
    await bench.press('n');
    await bench.press(...'Lathes', Key.ENTER, Key.ESCAPE);
    await bench.saved();
    await bench.click('button', /^Make live…/);
    await bench.click('radio', /Everything that waits/);
    await bench.untilText('‘Lathes’: it is empty');
    await bench.press(Key.ESCAPE);
  });
});

it('a site is closed for works and opened again', async () => {
  await bench.open(spur, 'pellow-quay', '?lens=publish');
  await bench.click('button', 'Open to visitors');
  await bench.fill('What visitors will read', 'We are moving house.');
  await bench.click('button', 'Close the site for works');
  await untilVisit('/', '503');
  await bench.click('button', 'Open the site again');
  await untilVisit('/', '200');
});
