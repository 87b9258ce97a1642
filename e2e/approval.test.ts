import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();

const [INES, MIRA] = ['ines@pellow-quay.example', 'mira@pellow-quay.example'];

describe('a branch that needs approval', () => {
  it('is chosen beside the tree, with who approves', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish&beside=approval');
    await bench.untilText('‘Online talks’ and below');
    await bench.select('Evening classes');
    await bench.click('button', 'Ask for approval of a branch…');
    await bench.untilText('Who decides');
    await bench.click('button', 'Ask for approval');
    await bench.untilText('‘Evening classes’ and below');
    await bench.untilRow('Evening classes', /one Publisher/);
  });

  it('goes live only when it was proposed, and approved as it is', async () => {
    await bench.signInAs(spur, MIRA);
    await bench.open(spur, 'pellow-quay', '?lens=write');
    await bench.select('Evening classes');
    await bench.fill('Description', 'From seven to nine, by the stove.');
    await bench.press('\uE004');
    await bench.saved();
    await bench.click('button', 'Propose…');
    await bench.untilText('Approved by one Publisher.');
    await bench.fill('Note (optional)', 'For the autumn leaflet');
    await bench.click('button', 'Propose 1 page');
    await bench.untilText('Approvals: 0 of 1, from one Publisher');

    await bench.signInAs(spur, INES);
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.select('Evening classes');
    await bench.click('button', 'Make this page live…');
    await bench.untilText('One page needs approval first');
    expect(await (await bench.find('button', 'Make 1 page live')).isEnabled()).toBe(false);
    await bench.click('button', 'See the proposals');
    await bench.click('button', /^Evening classes Waits for you/);
    await bench.untilText('For the autumn leaflet');
    await bench.fill('What you want to say', 'Say which months.');
    await bench.click('button', 'Return it');
    await bench.untilText('Ines Carrow returned it');
  });

  it('is returned with reasons, proposed again, approved, and made live', async () => {
    await bench.signInAs(spur, MIRA);
    await bench.open(spur, 'pellow-quay', '?lens=write&beside=for-you');
    await bench.untilText('Ines Carrow returns your proposal');
    await bench.untilText('Say which months.');
    await bench.open(spur, 'pellow-quay', '?lens=write&beside=proposals');
    await bench.click('button', /^Evening classes/);
    await bench.click('button', 'Propose it again');
    await bench.untilText('Proposed again.');

    await bench.signInAs(spur, INES);
    await bench.open(spur, 'pellow-quay', '?beside=for-you');
    await bench.untilText('Waiting for your approval');
    await bench.open(spur, 'pellow-quay', '?lens=publish&beside=proposals');
    await bench.click('button', /^Evening classes Waits for you/);
    await bench.untilText('What visitors would notice');
    await bench.click('button', 'Approve 1 page');
    await bench.untilText('Approvals: 1 of 1');
    await bench.click('button', 'Make this page live…');
    await bench.click('button', 'Make 1 page live');
    await bench.untilText('1 page made live.');
    await bench.untilRow('Evening classes', /Live/);
  });

  it('is made live without approval by a manager, with a reason that stays', async () => {
    await bench.open(spur, 'pellow-quay', '?lens=publish');
    await bench.select('Online talks');
    await bench.click('button', 'Make this page live…');
    await bench.fill('Or make them live without it. Why?', 'The leaflet is printed');
    await bench.fill('Name of the release', 'In time for the leaflet');
    await bench.click('button', 'Make 1 page live');
    await bench.untilText('1 page made live.');
    await bench.open(spur, 'pellow-quay', '?lens=publish&beside=releases');
    await bench.click('button', /In time for the leaflet/);
    await bench.untilText('Made live without approval: The leaflet is printed');
  });
});
