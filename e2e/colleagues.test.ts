import { Key } from 'selenium-webdriver';
import { Secret, TOTP } from 'otpauth';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Browser, openBrowser } from './support/browser.ts';
import { type Spur, startSpur } from './support/spur.ts';
import { DEMO_PASSWORD, Workbench } from './support/workbench.ts';

let spur: Spur;
let browser: Browser;
let bench: Workbench;
beforeAll(async () => {
  spur = await startSpur({ withDemo: true });
  browser = await openBrowser();
  bench = new Workbench(browser.driver);
  await bench.signIn(spur);
});
afterAll(async () => {
  await browser?.close();
  await spur?.stop();
});

const signOut = async () => {
  await bench.click('button', /^Ines Carrow|^Mira Sand|^Nora Field/);
  await bench.click('menuitem', /^Sign out/);
  await bench.find('button', 'Sign in');
};
const isEnabled = async (name: string | RegExp) => (await bench.find('textbox', name)).isEnabled();

describe('a colleague', () => {
  it('is invited by mail with a role in a branch, and takes the invitation up', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access&beside=colleagues');
    await bench.select('Visit');
    await bench.click('button', 'Invite a colleague…');
    await bench.fill('Name', 'Nora Field');
    await bench.fill('Mail address', 'nora@pellow-quay.example');
    await bench.click('button', 'Send the invitation');
    await bench.untilText('Has not taken up the invitation yet.');
    await bench.untilRow('Visit', /Writer, given here/);
    await bench.untilRow('Apply', /Reader, on the whole site/);
    await browser.driver.get(`${spur.workbench}/outbox`);
    await bench.untilText('invites you to work on Pellow Quay School of Boatbuilding');
    const link = /http\S+join#[\w-]+/.exec(await bench.text())![0];
    await signOut();
    await browser.driver.get(link);
    await bench.untilText('Welcome to Pellow Quay School of Boatbuilding');
    await bench.fill('Password', 'password12');
    await bench.click('button', 'Begin');
    await bench.untilText('among those that are tried first');
    await bench.fill('Password', 'three-planks-and-a-rivet');
    await bench.click('button', 'Begin');
    await bench.untilText('110 live');
    expect(await bench.text()).not.toContain('Tern Sound');
    await browser.driver.get(`${spur.workbench}/account`);
    await bench.untilText('You took up the invitation.');
    await browser.driver.get(link);
    await bench.untilText('It was used already');
  });

  it('writes in their branch, and is told why not elsewhere', async () => {
    await browser.driver.get(`${spur.workbench}/sites/pellow-quay?lens=write`);
    await bench.untilText('Workshops');
    await bench.select('Visit');
    await bench.fill('Description', 'Come by boat.');
    await bench.press(Key.TAB);
    await bench.saved();
    expect(await isEnabled('Title')).toBe(false);
    await bench.select('Apply');
    await bench.until('the description is closed', async () => !(await isEnabled('Description')));
    await bench.untilText('At ‘Apply’ your role is Reader.');
    await bench.focusTree();
    await bench.press('n');
    await bench.untilText('This needs the permission ‘Shape the tree’. On the whole site your role is Reader.');
    await browser.driver.get(`${spur.workbench}/sites/tern-sound`);
    await bench.untilText('tern-sound');
    expect(await bench.text()).toMatch(/There is no site/);
    await browser.driver.get(`${spur.workbench}/sites`);
    await signOut();
  });

  it('is seen through their eyes, where nothing is changed', async () => {
    await bench.signIn(spur);
    await bench.open(spur, 'pellow-quay', '?lens=access&beside=colleagues');
    await bench.click('button', /^Mira Sand/);
    await bench.click('button', 'See the workbench as Mira Sand');
    await bench.untilText('The workbench as Mira Sand sees it');
    await bench.select('Apply');
    await bench.focusTree();
    await bench.press(']');
    await bench.untilText('At ‘Apply’ your role is Reader.');
    await bench.select('Long courses');
    await bench.focusTree();
    await bench.chord(Key.CONTROL, Key.ARROW_DOWN);
    await bench.untilText('You see the workbench as Mira Sand: nothing was changed.');
    // Nor is anything written, or said, that does not pass through the tree.
    await bench.press('2');
    await bench.click('button', /^Close /);
    await bench.until('the text is there to be read', () =>
      browser.driver.executeScript<boolean>(
        `return document.querySelector('.text-of-page')?.getAttribute('contenteditable') === 'false'`,
      ),
    );
    expect(await bench.has('button', 'Bold')).toBe(false);
    await bench.fill(/^Comment on/, 'Hers or mine?');
    await bench.chord(Key.CONTROL, Key.ENTER);
    await bench.untilText('You see the workbench as Mira Sand: nothing was changed.');
    await bench.click('button', 'Back to yourself');
    await bench.untilNoText('The workbench as Mira Sand sees it');
  });

  it('comes from the organisation’s directory, with the role of a group', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access&beside=colleagues');
    await bench.click('button', 'From the organisation’s directory');
    await bench.untilText('Writer in ‘Courses’');
    await bench.click('button', /^Governors \d+ people/);
    await bench.choose('Role on the whole site', /^Reader$/);
    await bench.click('button', 'See what changes');
    await bench.untilText('petra@pellow-quay.example');
    expect(await bench.text()).toMatch(/Sunniva Pell sunniva@pellow-quay\.example\s+becomes Writer in ‘Courses’/);
    expect(await bench.text()).toMatch(/Petra Vane petra@pellow-quay\.example\s+becomes Reader on the whole site/);
    await bench.untilText('the directory looks after them from now on');
    await bench.click('button', /^Synchronise \d+ colleagues$/);
    await bench.untilText('by Ines Carrow: 4 new, 1 changed.');
    await bench.open(spur, 'pellow-quay', '?lens=access&beside=colleagues');
    await bench.click('button', /^Tobias Wren/);
    await bench.untilText('From the organisation’s directory: the role for the whole site and ‘Courses’.');
    await bench.click('button', 'Remove the role in ‘Courses’');
    await bench.untilText('comes from a group of the organisation’s directory and would come back');
  });

  it('hands over the pages that they own, and the branches where they decide', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access&beside=colleagues');
    const rules = `fetch('/api/sites/pellow-quay/approval').then((answer) => answer.json()).then(({ rules }) => rules)`;
    const idOf = (name: string): Promise<string> =>
      browser.driver.executeScript(`return fetch('/api/sites/pellow-quay/colleagues').then((answer) => answer.json())
        .then(({ colleagues }) => colleagues.find(({ name }) => name === '${name}').id);`);
    const [oona, mira] = [await idOf('Oona Trask'), await idOf('Mira Sand')];
    await browser.driver.executeScript(`return fetch('/api/sites/pellow-quay/approval/rules', {
      method: 'PUT', headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ page: 'pq012', by: { people: ['${oona}'] }, count: 1 }) });`);
    await browser.driver.executeScript(`return fetch('/api/sites/pellow-quay/pages/pq012/threads', {
      method: 'POST', headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ id: crypto.randomUUID(), text: 'Is the price right, @Oona Trask?', about: null }) });`);
    await bench.click('button', /^Oona Trask/);
    await bench.untilText('Asked, or is asked, in');
    await bench.untilText('Decides what goes live in ‘Short courses’');
    await bench.untilText('Owner of');
    await bench.choose('Hand it over to', /^Mira Sand$/);
    await bench.untilText('Handed over to Mira Sand.');
    await bench.untilNoText('Owner of');
    await bench.untilNoText('Asked, or is asked, in');
    await bench.saved();
    const [rule] = await browser.driver.executeScript<{ by: unknown }[]>(
      `return ${rules}.then((all) => all.filter(({ page }) => page === 'pq012'));`,
    );
    expect(rule!.by).toEqual({ people: [mira] });
    await bench.click('button', 'All colleagues');
    await bench.click('button', /^Mira Sand/);
    await bench.untilText('Decides what goes live in ‘Short courses’');
    await bench.untilText('Asked, or is asked, in');
  });

  it('is suspended, and out at once', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=access&beside=colleagues');
    await bench.click('button', /^Nora Field/);
    await bench.click('button', 'Suspend');
    await bench.untilText('Suspended: cannot open this site.');
    await signOut();
    await bench.fill('Mail address', 'nora@pellow-quay.example');
    await bench.fill('Password', 'three-planks-and-a-rivet');
    await bench.press(Key.ENTER);
    await bench.untilText('No site is open to you');
    await signOut();
  });
});

describe('somebody with a role in a branch alone', () => {
  it('reads what stands there, and sees the tree around it', async () => {
    await bench.signInAs(spur, 'kofi@words.example');
    await browser.driver.get(`${spur.workbench}/sites/pellow-quay?lens=write`);
    await bench.untilText('Workshops');
    await bench.select('Apply');
    await bench.untilText('This needs the permission ‘Read’. At ‘Apply’ you have no role.');
    expect(await bench.text()).not.toContain('Applying takes an hour');
    await bench.fill('Find by title, address or text', 'Boats built');
    await bench.select('Boats built');
    await bench.find('textbox', 'Text');
    await browser.driver.get(`${spur.workbench}/sites/pellow-quay?beside=files`);
    await bench.untilText('Find by name');
    expect(await bench.text()).not.toContain('Application form');
  });
});

describe('what a move does to colleagues', () => {
  it('is said before it is made', async () => {
    await bench.signInAs(spur);
    await bench.open(spur, 'pellow-quay');
    await bench.select('Course dates');
    await bench.click('button', 'Move to…');
    await bench.fill('Find a place by title', 'Apply');
    await bench.untilText('Mira Sand may do less on 1 page');
    await bench.press(Key.ESCAPE);
  });
});

describe('an account', () => {
  /** Passkeys belong to hosts with a name. */
  const named = () => spur.workbench.replace('127.0.0.1', 'localhost');
  const signInAt = async (origin: string, email: string) => {
    await browser.driver.get(origin);
    await browser.driver.manage().deleteAllCookies();
    await browser.driver.get(`${origin}/sign-in`);
    await bench.fill('Mail address', email);
    await bench.fill('Password', DEMO_PASSWORD);
    await bench.press(Key.ENTER);
  };

  it('signs in with a passkey, once it has one', async () => {
    await browser.addAuthenticator();
    await signInAt(named(), 'mira@pellow-quay.example');
    await bench.untilText('Sites');
    await browser.driver.get(`${named()}/account`);
    await bench.fill('Add a passkey', 'Desk in the loft');
    await bench.click('button', 'Add…');
    await bench.fill('Your password', 'not the password');
    await bench.press(Key.ENTER);
    await bench.untilText('The current password does not match.');
    await bench.fill('Your password', DEMO_PASSWORD);
    await bench.press(Key.ENTER);
    await bench.untilText('Desk in the loft');
    await bench.untilText('You added the passkey ‘Desk in the loft’.');
    await signOut();
    await bench.click('button', 'Use a passkey');
    await bench.untilText('Sites');
    await bench.find('button', /^Mira Sand/);
    await browser.driver.get(`${named()}/account`);
    await bench.click('button', /^Remove Desk in the loft/);
    await bench.fill('Your password', DEMO_PASSWORD);
    await bench.press(Key.ENTER);
    await bench.until('it is gone', async () => !(await bench.has('button', /^Remove Desk/)));
    await signOut();
    await bench.click('button', 'Use a passkey');
    await bench.untilText('This passkey is not known here');
  });

  it('asks for a code of an authenticator, or for a recovery code, once each', async () => {
    await signInAt(spur.workbench, 'mira@pellow-quay.example');
    await bench.untilText('Sites');
    await browser.driver.get(`${spur.workbench}/account`);
    await bench.click('button', 'Set up one-time codes…');
    await bench.fill('Your password', DEMO_PASSWORD);
    await bench.press(Key.ENTER);
    await bench.untilText('or type this key into it');
    const secret = /into it:\s+([A-Z2-7 ]{30,})/.exec(await bench.text())![1]!.replaceAll(/\s/g, '');
    const totp = new TOTP({ secret: Secret.fromBase32(secret) });
    const first = totp.generate();
    await bench.fill('The code that it shows', first);
    await bench.press(Key.ENTER);
    await bench.untilText('I have kept them');
    const [recovery] = /\b[a-z2-9]{5}-[a-z2-9]{5}\b/.exec(await bench.text())!;
    await bench.click('button', 'I have kept them');
    await signOut();
    await signInAt(spur.workbench, 'mira@pellow-quay.example');
    await bench.untilText('One more step');
    await bench.fill('Code', first);
    await bench.press(Key.ENTER);
    await bench.untilText('The code is wrong, has been used or has run out.');
    await bench.fill('Code', recovery);
    await bench.press(Key.ENTER);
    await bench.untilText('Sites');
    await browser.driver.get(`${spur.workbench}/account`);
    await bench.untilText('9 recovery codes are left.');
    await bench.untilText('You failed to sign in.');
  });

  it('signs in through the organisation, where it was invited', async () => {
    await browser.driver.get(`${spur.workbench}/account`);
    await signOut();
    await bench.click('link', /^Sign in with the school/);
    await bench.untilText('Who are you?');
    await bench.fill('Mail address', 'teo@pellow-quay.example');
    await bench.click('button', 'Go on');
    await bench.untilText('110 live');
    await bench.find('button', /^Teo Brandt/);
    // The provider knows for a minute who was there.
    await browser.driver.manage().deleteAllCookies();
    await browser.driver.get(`${spur.workbench}/sign-in`);
    await bench.click('link', /^Sign in with the school/);
    await bench.untilText('Who are you?');
    await bench.fill('Mail address', 'nobody@elsewhere.example');
    await bench.click('button', 'Go on');
    await bench.untilText('Ask for an invitation to a site.');
  });
});
