import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Browser, openBrowser } from './support/browser.ts';
import { type Spur, startSpur } from './support/spur.ts';
import { Workbench } from './support/workbench.ts';

let spur: Spur;
let browser: Browser;
let manager: Workbench;
/** Somebody in a browser of their own, who has no account. */
let theirs: Browser;
let guest: Workbench;
beforeAll(async () => {
  spur = await startSpur({ withDemo: true });
  [browser, theirs] = await Promise.all([openBrowser(), openBrowser()]);
  manager = new Workbench(browser.driver);
  guest = new Workbench(theirs.driver);
  await manager.signIn(spur);
});
afterAll(async () => {
  await Promise.all([browser?.close(), theirs?.close()]);
  await spur?.stop();
});

describe('a plan that is shared for comment', () => {
  let link = '';

  it('is made a link with a passphrase, and somebody is invited by mail', async () => {
    await manager.open(spur, 'tern-sound', '?lens=plan');
    await manager.click('button', 'Share');
    await manager.fill('For whom', 'the skippers');
    await manager.fill('Passphrase (optional)', 'slack water');
    await manager.fill('Invite by mail (optional)', 'ulla@tern-sound.example, nobody');
    await manager.click('button', 'Make the link');
    await manager.untilText('‘nobody’ is not a mail address');
    await manager.fill('Invite by mail (optional)', 'ulla@tern-sound.example');
    await manager.click('button', 'Make the link');
    link = (await (await manager.find('textbox', 'The link for the skippers')).getAttribute('value'))!;
    await browser.driver.get(`${spur.workbench}/outbox`);
    await manager.untilText('Ines Carrow asks what you think of the plan for Tern Sound Ferry Office');
    await manager.find('link', link);
  });

  it('is looked at and commented without an account, under a name', async () => {
    await theirs.driver.get(link);
    await guest.fill('Passphrase', 'high water');
    await guest.press(Key.ENTER);
    await guest.untilText('Capitals and spaces count.');
    await guest.fill('Passphrase', 'slack water');
    await guest.press(Key.ENTER);
    await guest.untilText('The plan for Tern Sound Ferry Office');
    await guest.select('Crossings');
    await guest.click('button', 'Change');
    await guest.fill('Your name', 'Ulla Storm');
    await guest.fill('Mail address (optional)', 'ulla@tern-sound.example');
    await guest.click('button', 'Use this name');
    await guest.untilText('1 of ');
    await guest.fill('What should be different, or what do you want to know?', 'Where do the winter times stand?');
    await guest.click('radio', 'A question');
    await guest.click('button', 'Ask');
    await guest.untilText('You asked on');
    await guest.click('button', 'Agreed: Boats');
    await guest.untilText('2 of ');
    for (const words of ['New page', 'Make live…', 'Import and export'])
      expect(await guest.text()).not.toContain(words);
  });

  it('goes on to the next page without a verdict, and shows the same as a map', async () => {
    await guest.select('Crossings');
    await guest.click('button', 'Next');
    await guest.until('the page after has no verdict', async () =>
      (await guest.text()).includes('You have not answered yet.'),
    );
    await guest.click('button', 'As a map');
    await guest.find('treeitem', /Crossings.*you: change/);
    await guest.click('button', 'As rows');
  });

  it('shows the manager what was said, by page and by branch; an answer comes back, also by mail', async () => {
    await manager.open(spur, 'tern-sound', '?lens=plan');
    await manager.select('Crossings');
    await manager.untilText('Where do the winter times stand?');
    await manager.untilRow('Crossings', /\b2 open\b/);
    const answer = await manager.find('textbox', 'Answer');
    await answer.sendKeys('On the timetable, from October on.', Key.TAB);
    await guest.select('Crossings');
    await guest.untilText('On the timetable, from October on.');
    await manager.click('button', 'Settle all 2 here');
    await manager.untilText('settled by Ines Carrow');
    await manager.untilRow('Crossings', /Settled/);
    await manager.untilRow('Boats', /Agreed/);
    await browser.driver.get(`${spur.workbench}/outbox`);
    await manager.untilText('Ines Carrow has answered you about ‘Crossings’');
    await manager.untilText('> Where do the winter times stand?');
  });

  it('is told to the manager as it is said, and filtered by', async () => {
    await manager.open(spur, 'tern-sound', '?lens=plan');
    await guest.click('button', 'Unsure: Boats');
    await manager.untilRow('Boats', /\b1 open\b/);
    await manager.click('button', 'Filter');
    await manager.click('checkbox', 'To settle');
    await manager.press(Key.ESCAPE);
    await manager.untilTree(
      'only what waits, and what stands above',
      (tree) => tree.some((row) => row.trim() === 'Boats') && !tree.some((row) => row.trim() === 'Crossings'),
    );
    await manager.click('button', 'Clear');
  });

  it('is proposed another title and another place for a page, which the manager accepts with one press', async () => {
    await guest.select('Boats');
    await guest.click('radio', 'Another title or place');
    expect(await (await guest.find('button', 'Propose it')).isEnabled()).toBe(false);
    await guest.fill('Title', 'Our four boats');
    await guest.fill('Place', 'crossin');
    await guest.press(Key.ENTER);
    await guest.click('button', 'Propose it');
    await guest.untilText('Proposal: the title ‘Our four boats’ and a place inside ‘Crossings’');
    await manager.select('Boats');
    await manager.untilText('Ulla Storm proposed this on');
    await manager.click('button', 'Accept');
    await manager.untilTree(
      'the page has the title and the place',
      (tree) => tree.findIndex((row) => row.trim() === 'Our four boats') > tree.indexOf('Crossings'),
    );
    await manager.untilText('Accepted by Ines Carrow');
    await guest.untilText('accepted by Ines Carrow');
    await guest.find('row', /^Our four boats\b/);
    await manager.click('button', 'Undo your last change');
    await manager.untilTree('the page is as it was', (tree) => tree.some((row) => row.trim() === 'Boats'));
  });

  it('is withdrawn, and the guest’s page is closed by itself', async () => {
    await manager.click('button', 'Share');
    await manager.click('button', 'Withdraw…');
    await manager.click('button', 'Withdraw the link');
    await manager.untilText('Withdrawn · made by Ines Carrow');
    await guest.untilText('This link was withdrawn');
    expect(await guest.text()).not.toContain('Crossings');
  });
});
