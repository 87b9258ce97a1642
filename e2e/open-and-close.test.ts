import { By, Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';
import { DEMO_PASSWORD } from './support/workbench.ts';

const { spur, browser, bench } = await signedIn();

const statusOf = async (path: string): Promise<number> =>
  (await fetch(spur.live + path, { redirect: 'manual' })).status;

describe('a branch', () => {
  it('is kept for an audience that was just named, and what changes is said of each page, with the reason', async () => {
    await bench.open(spur, 'tern-sound', '?lens=access');
    await bench.click('button', 'Audiences');
    await bench.fill('The first audience', 'Crew');
    await bench.click('button', 'Add the audience');
    await bench.find('button', 'Remove the audience ‘Crew’');
    await bench.click('button', 'Close audiences');
    await bench.select('Boats');
    await bench.click('button', 'Crew: Boats, Opens');
    await bench.click('menuitem', 'Only Crew');
    await bench.untilRow('Boats', /Closed.*Opens/);
    await bench.untilRow('Sandpiper', /Closed.*Opens/);
    await bench.select('Sandpiper');
    await bench.untilText('Blocked by ‘Boats’: only Crew.');
    await bench.saved();
  });

  it('is shut for visitors with the release, and open again with the next', async () => {
    expect(await statusOf('/tern-sound/boats')).toBe(200);
    const makeLive = async () => {
      await bench.click('button', /^Make live…/);
      await bench.click('radio', /Everything that waits/);
      await bench.click('button', /^Make \d+ pages? live/);
      await bench.untilNoText('Everything that waits');
    };
    await makeLive();
    await bench.until('visitors do not get it', async () => (await statusOf('/tern-sound/boats')) === 404);
    expect(await (await fetch(`${spur.live}/tern-sound/sitemap.xml`)).text()).not.toContain('/boats');
    await bench.select('Boats');
    await bench.click('button', 'Everyone: Boats, Closed');
    await bench.click('menuitem', 'As the page above');
    await bench.untilRow('Boats', /Opens.*Opens/);
    await bench.saved();
    await makeLive();
    await bench.until('visitors get it again', async () => (await statusOf('/tern-sound/boats')) === 200);
  });
});

describe('a visitor', () => {
  it('is given an account, signs in where the lock is, and lands on the page that was asked for', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access');
    await bench.click('button', 'Visitors');
    await bench.click('button', 'New visitor…');
    await bench.fill('Name', 'Ulla Storm');
    await bench.fill('Mail address', 'ulla@pellow-quay.example');
    await bench.fill('First password', DEMO_PASSWORD);
    const form = await bench.find('button', 'Create the account');
    await bench.driver.executeScript(
      `[...arguments[0].form.querySelectorAll('input[type=checkbox]')].find((one) => one.labels[0].textContent === 'Staff').click()`,
      form,
    );
    await form.click();
    await bench.untilText('ulla@pellow-quay.example');

    await browser.driver.get(`${spur.live}/pellow-quay/staff-handbook/safety`);
    await bench.untilText('‘Safety’ is not open to everyone.');
    await bench.fill('Mail address', 'ulla@pellow-quay.example');
    await bench.fill('Password', 'wrong-password');
    await bench.press(Key.ENTER);
    await bench.untilText('do not match');
    await bench.fill('Password', DEMO_PASSWORD);
    await bench.press(Key.ENTER);
    await bench.untilText('The red book is in each shed.');
    expect(await browser.driver.getCurrentUrl()).toBe(`${spur.live}/pellow-quay/staff-handbook/safety`);
    await bench.click('button', 'Sign out');
    await bench.until('the way in is there again', async () => bench.has('link', 'Sign in'));
    expect(await statusOf('/pellow-quay/staff-handbook/safety')).toBe(401);
  });
});

describe('somebody new', () => {
  it('joins by a link and a letter, signs in, and lands on the page that was asked for', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access');
    await bench.click('button', 'Visitors');
    await bench.click('tab', 'Joining links');
    await bench.fill('At most (people)', '1');
    await bench.click('button', 'Make a joining link');
    const link = (await (await bench.find('textbox', 'The link that joins Students')).getAttribute('value'))!;

    await browser.driver.get(`${link}?to=/students/timetable`);
    await bench.untilText('Join Students');
    await bench.fill('Mail address', 'kit@home.example');
    await bench.click('button', 'Send me the mail');
    await bench.untilText('Check your mail');

    await browser.driver.get(`${spur.workbench}/outbox`);
    await bench.untilText('Join Students at Pellow Quay School of Boatbuilding');
    const letter = /http:\/\/\S+~letter\/\S+/.exec(await bench.text())![0];
    await browser.driver.get(letter);
    await bench.fill('Your name', 'Kit Marlow');
    await bench.fill(/^A password/, DEMO_PASSWORD);
    await bench.click('button', 'Join');
    await bench.untilText('Forgotten your password?');
    await bench.fill('Password', DEMO_PASSWORD);
    await bench.press(Key.ENTER);
    await bench.untilText('Sign out');
    expect(await browser.driver.getCurrentUrl()).toBe(`${spur.live}/pellow-quay/students/timetable`);
    expect(await statusOf(new URL(link).pathname)).toBe(410);
    await bench.click('button', 'Sign out');
  });

  it('finds by search what is open, and not what is kept for others', async () => {
    await browser.driver.get(`${spur.live}/pellow-quay/`);
    await bench.fill('Search this site', 'handbok');
    await bench.press(Key.ENTER);
    await bench.untilText('Search');
    expect(await bench.text()).not.toContain('The red book');
    await bench.fill('Search this site', 'splicng');
    await bench.press(Key.ENTER);
    await bench.untilText('with similar words');
    expect(await bench.text()).toContain('Wednesday: rope and canvas');
  });
});

describe('the moment', () => {
  it('is chosen on the line of the weeks ahead, and the matrix and the reasons are those of then', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access');
    await bench.select('Bursaries');
    await bench.untilRow('Bursaries', /Opens Opens/);
    await bench.click('button', /^Look at .*‘Bursaries’ closes$/);
    await bench.untilRow('Bursaries', /Closed Closed/);
    await bench.untilText('Blocked by the page itself: until');
    await bench.click('button', 'Back to now');
    await bench.untilRow('Bursaries', /Opens Opens/);
  });
});

describe('what is kept for some', () => {
  const makeLive = async () => {
    await bench.saved();
    await bench.click('button', /^Make live…/);
    await bench.click('radio', /Everything that waits/);
    await bench.click('button', /^Make \d+ pages? live/);
    await bench.untilNoText('Everything that waits');
  };

  it('is said before it is chosen: who would lose the page', async () => {
    await bench.open(spur, 'tern-sound', '?lens=access');
    await bench.select('Boats');
    await bench.click('button', 'Crew: Boats, Opens');
    await bench.press(Key.ARROW_DOWN, Key.ARROW_DOWN);
    await bench.until('the strip says to whom they close', async () =>
      /\d+ pages close to everyone/.test(await bench.strip()),
    );
    await bench.press(Key.ESCAPE);
    await bench.until('the strip is of now', async () => (await bench.strip()).includes('Open to everyone'));
    await bench.untilRow('Boats', /Opens.*Opens/);
  });

  it('takes the rule of a label, wherever the page stands', async () => {
    await bench.click('button', 'Labels');
    await bench.fill('The first label', 'Crew matters');
    await bench.click('button', 'Add the label');
    await bench.find('button', 'Remove the label ‘Crew matters’');
    await bench.click('checkbox', 'Crew');
    await bench.click('button', 'Close labels and kinds');
    await bench.select('Boats');
    await bench.click('checkbox', 'Crew matters');
    await bench.untilText('Blocked by the page itself: labelled ‘Crew matters’: only Crew.');
    await bench.untilRow('Sandpiper', /Closed.*Opens/);
    await bench.click('checkbox', 'Crew matters');
    await bench.untilRow('Sandpiper', /Opens.*Opens/);
  });

  it('takes the rule of its kind, which machines are told of too', async () => {
    await bench.click('button', /^Labels/);
    await bench.click('button', /^Crew matters/);
    await bench.choose('What it says of pages', /about a place/);
    await bench.click('button', 'Close labels and kinds');
    await bench.focusTree();
    await bench.press('2');
    await bench.select('Boats');
    await bench.choose('Kind', /^Crew matters$/);
    await bench.untilRow('Boats', /Crew matters/);
    await bench.focusTree();
    await bench.press('3');
    await bench.untilText('Blocked by the page itself: of the kind ‘Crew matters’: only Crew.');
    await bench.untilRow('Sandpiper', /Closed.*Opens/);
    await bench.click('button', /^Labels/);
    await bench.click('button', /^Crew matters/);
    await bench.click('checkbox', 'Crew');
    await bench.click('button', 'Close labels and kinds');
    await bench.untilRow('Sandpiper', /Opens.*Opens/);
    await makeLive();
    await bench.until('the page says what it is about', async () =>
      (await (await fetch(`${spur.live}/tern-sound/boats`)).text()).includes('"@type":"Place"'),
    );
  });

  it('asks visitors for a passphrase once, for the branch', async () => {
    await bench.fill('Passphrase', 'wind and tide');
    await bench.click('button', 'Ask for this passphrase');
    await bench.untilRow('Sandpiper', /Asks Asks/);
    await makeLive();
    await bench.until('visitors are asked', async () => (await statusOf('/tern-sound/boats/sandpiper')) === 401);
    await browser.driver.get(`${spur.live}/tern-sound/boats/sandpiper`);
    await bench.fill('Passphrase', 'wind and rain');
    await bench.press(Key.ENTER);
    await bench.untilText('This is not the passphrase.');
    await bench.fill('Passphrase', 'wind and tide');
    await bench.press(Key.ENTER);
    await bench.until('the page is open', async () =>
      (await browser.driver.getCurrentUrl()).endsWith('/tern-sound/boats/sandpiper'),
    );
    await bench.untilNoText('Passphrase');
    await browser.driver.get(`${spur.live}/tern-sound/boats`);
    await bench.untilNoText('Passphrase');
  });

  it('is left out of the text for everybody else', async () => {
    await bench.open(spur, 'tern-sound', '?lens=write&find=Sandpiper');
    await bench.select('Sandpiper');
    const text = await bench.find('textbox', 'Text');
    await text.sendKeys(Key.chord(Key.CONTROL, Key.END), Key.ENTER, 'The spare key hangs in the wheelhouse.');
    await bench.click('button', 'Keep the selected paragraphs for some audiences');
    await bench.untilText('For Crew only');
    await bench.saved();
    await makeLive();
    const search = async () => (await fetch(`${spur.live}/tern-sound/search?q=wheelhouse`)).text();
    expect(await search()).toContain('No page contains');
    await browser.driver.get(`${spur.live}/tern-sound/boats/sandpiper`);
    expect(await bench.text()).not.toContain('spare key');
    await browser.driver.get(`${spur.workbench}/sites/tern-sound/walk?from=/boats/sandpiper`);
    await (await bench.find('combobox', 'Walk as')).sendKeys('Crew');
    await bench.click('checkbox', 'With passphrases');
    await bench.until('the crew has it', async () => {
      await browser.driver.switchTo().defaultContent();
      await browser.driver.switchTo().frame(0);
      const words = await bench.text();
      await browser.driver.switchTo().defaultContent();
      return words.includes('The spare key hangs in the wheelhouse.');
    });
  });
});

describe('the directory', () => {
  it('is looked at, and then keeps the accounts in step', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access');
    await bench.click('button', 'Visitors');
    await bench.click('tab', 'Directory');
    await bench.click('button', 'See what changes');
    await bench.untilText('Ansel Roe');
    await bench.click('button', /^Synchronise \d+ accounts$/);
    await bench.untilText('by Ines Carrow: 4 new');
    await bench.click('tab', 'Accounts');
    await bench.fill('Find by name or mail address', 'Ansel');
    await bench.untilText('from the directory');
  });
});

describe('the search engine’s eye', () => {
  it('reads the live site and says that what it would index is what is intended', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access');
    await bench.click('button', 'Engine’s eye');
    await bench.click('button', 'Read the live site');
    await bench.untilText('As intended: all');
  });
});

describe('a walk', () => {
  /** What stands in one of the frames. */
  const inFrame = async <Result>(at: number, work: () => Promise<Result>): Promise<Result> => {
    const frames = await browser.driver.findElements(By.css('iframe'));
    await browser.driver.switchTo().frame(frames[at]!);
    try {
      return await work();
    } finally {
      await browser.driver.switchTo().defaultContent();
    }
  };
  const untilFrame = (at: number, words: string) =>
    bench.until(`frame ${at} says ‘${words}’`, () =>
      inFrame(at, async () => (await bench.text()).includes(words)).catch(() => false),
    );

  it('shows two audiences the same page beside each other, each with the reason, and goes on in step', async () => {
    await browser.driver.get(`${spur.workbench}/sites/pellow-quay/walk?from=/staff-handbook`);
    await bench.click('checkbox', 'Add a second walk');
    const right = await browser.driver.findElement(By.css('section[aria-label="The walk on the right"]'));
    for (const one of await (await bench.find('combobox', 'Walk as', right)).findElements(By.css('option')))
      if ((await one.getText()) === 'Staff') await one.click();
    await untilFrame(0, 'Blocked by the page itself: only Staff.');
    await untilFrame(1, 'Kept by the office.');
    // ChromeDriver computes no names within a frame of another origin.
    await inFrame(1, async () => {
      const link = await browser.driver.findElement(By.linkText('Ordering timber'));
      await browser.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', link);
      await link.click();
    });
    await untilFrame(1, 'Ask Bram first.');
    await untilFrame(0, 'Blocked by ‘Staff handbook’: only Staff.');
    expect(await statusOf('/pellow-quay/staff-handbook')).toBe(401);
  });

  it('comes after comparing, which names the pages that differ and the rule', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access');
    await bench.click('button', 'Compare');
    await bench.choose('One', /^Students$/);
    await bench.choose('The other', /^Governors$/);
    await bench.untilText('Governors: blocked by ‘Students’: only Staff and Students.');
    await bench.untilText('Students alone: ');
    await bench.click('button', 'Saw room rules');
    await bench.untilText('/students/saw-room-rules');
    await bench.untilRow('Saw room rules', /Students/);
  });
});

it('a page can be for visitors who are not signed in alone, and the strip says so', async () => {
  await bench.open(spur, 'pellow-quay', '?lens=access');
  await bench.select('Course dates');
  await bench.click('button', 'Everyone: Course dates, Opens');
  await bench.click('menuitem', 'Only visitors who are not signed in');
  await bench.untilRow('Course dates', /Opens.*Closed.*Closed.*Closed/);
  await bench.untilText('Open to visitors who are not signed in');
  await bench.saved();
  await bench.click('button', 'Undo your last change');
  await bench.untilRow('Course dates', /Opens.*Opens.*Opens.*Opens/);
});
