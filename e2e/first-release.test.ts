import { expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();

const post = (path: string, body: object) =>
  bench.driver.executeAsyncScript(
    `const [path, body, done] = arguments; fetch(path, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body }).then((answer) => done(answer.status))`,
    path,
    JSON.stringify(body),
  );
const add = (page: string, title: string, parent: string | null = null) => ({
  name: 'page.add',
  page,
  place: { parent },
  title: { en: title },
});
const visitorGets = async (path: string) => (await fetch(`${spur.live}${path}`)).text();

it('5: a first page with pages below it is home only where that is chosen, and the addresses are those that were told', async () => {
  await bench.open(spur, 'pellow-quay');
  await post('/api/sites', { key: 'sail-loft', name: 'Sail loft' });
  await post('/api/sites/sail-loft/operations', {
    operations: [add('a1', 'Courses'), add('a2', 'Evening', 'a1'), add('a3', 'Welcome')],
  });
  await bench.open(spur, 'sail-loft');
  await bench.select('Evening');
  await bench.click('button', /^Make live…/);
  await bench.untilText('The first page is ‘Courses’, which has pages below it.');
  expect(await (await bench.find('button', /^Make 2 pages live/)).isEnabled()).toBe(false);
  await bench.choose('Home page, at the address /', /^Welcome$/);
  await bench.untilText('‘Welcome’ is the home page, and it is not in this release');
  await bench.click('button', 'Take it along');
  await bench.click('button', /^Make 3 pages live/);
  await bench.untilText('3 pages made live.');
  expect(await visitorGets('/sail-loft/')).toContain('<h1>Welcome</h1>');
  expect(await visitorGets('/sail-loft/courses/evening')).toContain('<h1>Evening</h1>');
});

it('5: a release without the home page says that nothing is found at the site’s address', async () => {
  await bench.open(spur, 'pellow-quay');
  await post('/api/sites', { key: 'rope-walk', name: 'Rope walk' });
  await post('/api/sites/rope-walk/operations', { operations: [add('b1', 'Start'), add('b2', 'Visit')] });
  await bench.open(spur, 'rope-walk');
  await bench.select('Visit');
  await bench.click('button', /^Make live…/);
  await bench.untilText('‘Start’ is the home page, and it is not in this release');
  await bench.click('button', /^Make 1 page live/);
  await bench.untilText('1 page made live.');
  expect((await fetch(`${spur.live}/rope-walk/`)).status).toBe(404);
  expect(await visitorGets('/rope-walk/visit')).toContain('<h1>Visit</h1>');
});
