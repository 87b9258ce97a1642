import { By } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();

const live = async () => (await fetch(`${spur.live}/pellow-quay/`)).status;

it('9: a site is deleted by typing its name, and comes back from the list of deleted sites as it was', async () => {
  await bench.driver.get(`${spur.workbench}/sites`);
  const name = 'Pellow Quay School of Boatbuilding';
  await bench.click('button', `Delete ${name}`);
  await bench.untilText('can be brought back');
  expect(await (await bench.find('button', 'Delete the site')).isEnabled()).toBe(false);
  await bench.fill(`Type its name: ${name}`, name);
  await bench.click('button', 'Delete the site');
  await bench.untilText('Deleted sites');
  await bench.until('visitors find nothing', async () => (await live()) === 404);
  expect(await bench.has('link', name)).toBe(false);

  await bench.click('button', 'Bring back…');
  await bench.click('button', 'Bring it back');
  await bench.find('link', name);
  await bench.until('visitors have it again', async () => (await live()) === 200);
  expect(await bench.driver.findElements(By.css('#deleted-sites'))).toEqual([]);
});
