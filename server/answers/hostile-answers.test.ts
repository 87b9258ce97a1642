import { parse } from 'csv-parse/sync';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import type { Said } from '#core/forms/answer.ts';
import { type TextPart, contentIdOf } from '#core/model/content.ts';
import { type FormField, NO_FORM_FIELD_SETTINGS, asKindField } from '#core/model/site-form.ts';
import { Draw } from '#core/testing/draw.ts';
import { sessionSecret } from '../database/session-secret.ts';
import { makeStamp } from '../live/form-stamp.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

/** So many are sent here; `SPUR_HOSTILE_ANSWERS=10000` sends as many as there may be in a bad night. */
const COUNT = Number(process.env.SPUR_HOSTILE_ANSWERS ?? 300);
const KEY = 'hostile';
let server: TestServer;
let ines: Person;
let secret: string;

const field = (id: string, more: object): FormField =>
  ({ ...NO_FORM_FIELD_SETTINGS, id, name: id, ...more }) as unknown as FormField;
const FIELDS: FormField[] = [
  field('name', { isRequired: true }),
  field('mail', { type: 'mail' }),
  field('long', { type: 'longText' }),
  field('number', { type: 'number' }),
  field('money', { type: 'money' }),
  field('day', { type: 'day' }),
  field('moment', { type: 'moment' }),
  field('stay', { type: 'period' }),
  field('phone', { type: 'telephone' }),
  field('web', { type: 'link' }),
  field('home', { type: 'address' }),
  field('place', { type: 'place' }),
  field('pick', {
    type: 'choice',
    isSeveral: true,
    choices: [
      { id: 'a', name: 'A' },
      { id: 'b', name: 'B' },
    ],
  }),
  field('page', { type: 'pages' }),
  field('box', { type: 'yesNo' }),
  field('why', { isRequired: true, shownIf: { field: 'box', test: 'is', value: 'yes' } }),
  field('file', { type: 'file' }),
];

const TEXTS = [
  'Wren',
  '=1+1',
  '@SUM(A1)',
  '-2+3',
  '\r\nBcc: all@home.example\r\n\r\nBuy',
  'a@home.example\nCc: b@home.example',
  '<img src=x onerror=alert(1)>',
  '"; DROP TABLE answer; --',
  '\u0000',
  '\ud800',
  '\u202eevil',
  'x'.repeat(5000),
  '1'.repeat(400),
  '0'.repeat(300) + '.' + '1'.repeat(300),
  '(((((((((((((((((((((((((((((1',
  '12.5',
  '£12.50',
  '2027-03-05',
  '2027-03-05T18:30',
  '99999-99-99',
  '2027-03-05/2027-03-01',
  'yes',
  'a',
  'b',
  'z',
  'home',
  '__proto__',
  '54.1,-3.2',
  'https://home.example/',
  'javascript:alert(1)',
  '01632 960 001',
  'a@home.example',
  '',
  ' ',
];

type Sent = { readonly body: BodyInit; readonly headers: Record<string, string> };

/** A form as nobody fills it in: values that are none, parts that are missing, forged or twice, and bodies that are no form. */
function drawSent(draw: Draw): Sent {
  const pairs: [string, string][] = [
    ['page', draw.chance(0.95) ? 'home' : draw.of(['', 'nowhere', '../x', '\u0000'])],
    [
      'stamp',
      draw.chance(0.9)
        ? makeStamp(secret, KEY, 'f', Date.now() - draw.of([60_000, 60_000, 60_000, 10]))
        : draw.of(['', 'a.b.c', 'x'.repeat(3000)]),
    ],
  ];
  if (draw.chance(0.03)) pairs.push(['website', 'https://spam.example']);
  if (draw.chance(0.9)) pairs.push(['f.name', draw.chance(0.6) ? 'Wren' : draw.of(TEXTS)]);
  for (const { id } of FIELDS) if (draw.chance(0.1)) pairs.push([`f.${id}`, draw.of(TEXTS)]);
  if (draw.chance(0.2))
    pairs.push([draw.of(['f.__proto__', 'f.', 'f.name[]', 'v.box', 'f.name.x', 'constructor']), 'x']);
  const plain = () => new URLSearchParams(pairs.filter(([, text]) => !text.includes('\ud800')));
  switch (draw.int(0, 9)) {
    case 0: {
      const form = new FormData();
      for (const [name, text] of pairs) form.append(name, text);
      for (let n = draw.int(0, 3); n > 0; n--)
        form.append(
          draw.of(['f.file', 'f.file', 'f.name', 'g']),
          new Blob([draw.of(TEXTS)]),
          draw.of(['a.txt', '../../a', '', '=x.csv', 'x'.repeat(400)]),
        );
      return { body: form, headers: {} };
    }
    case 1: {
      const type = draw.of([
        'multipart/form-data',
        'multipart/form-data; boundary=x',
        'multipart/form-data; boundary=',
        'application/json',
        'text/plain',
        'application/x-www-form-urlencoded; charset=utf-7',
      ]);
      const body = draw.of([
        '--x\r\nContent-Disposition: form-data; name="f.name"\r\n\r\nWren',
        '--x--',
        '{"f.name":"Wren"}',
        '%',
        '%zz=%zz&f.name=%00',
        'f.name='.repeat(700),
        '--x\r\n\r\n\r\n--x--',
      ]);
      return { body, headers: { 'Content-Type': type } };
    }
    case 2:
      return {
        body: draw.of(['f.name=%ff%fe', 'f.name=%ED%A0%80', `f.long=${'y'.repeat(500_000)}`, 'f.name=a&'.repeat(600)]),
        headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
      };
    default:
      return { body: plain(), headers: {} };
  }
}

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  secret = await sessionSecret(server.database);
  const content: TextPart[] = [{ type: 'form', attrs: { of: 'f' } }];
  const document = { type: 'doc' as const, content };
  const text = { id: contentIdOf(document), document };
  const settings = { fields: FIELDS, mailTo: ['desk@pellow-quay.example'] };
  const operations = [
    { name: 'form.add', form: 'f', title: 'Form', settings },
    { name: 'page.add', page: 'home', place: { parent: null }, title: { en: 'Home' }, content: text.id },
  ];
  const made = await ines.post(`/api/sites/${KEY}/operations`, { operations, contents: [text] });
  expect(made.json.detail).toBeUndefined();
  await ines.post(`/api/sites/${KEY}/releases`, { pages: 'all', retire: [] });
  await until('the site is live', async () => (await server.live(`/${KEY}/`)).status === 200);
});
afterAll(() => server.close());

it.each([
  ['too many files', 12, 10],
  ['too many fields', 0, 600],
])('%s are refused at once, and nobody waits', async (_, files, fields) => {
  const form = new FormData();
  for (let n = 0; n < files; n++) form.append(`f.file${n}`, new Blob(['x'.repeat(200_000)]), 'a.txt');
  for (let n = 0; n < fields; n++) form.append('f.long', 'x');
  const answer = await fetch(`${server.liveOrigin}/${KEY}/~answer/f`, {
    method: 'POST',
    body: form,
    headers: { Origin: server.liveOrigin },
    signal: AbortSignal.timeout(10_000),
  });
  expect([answer.status, await answer.text()]).toEqual([413, 'This form cannot be accepted.\n']);
});

it(`${COUNT} hostile answers bring no fault, and of them nothing is kept that breaks a rule`, async () => {
  const statuses = new Map<number, number>();
  for (let n = 0; n < COUNT; n++) {
    // They come from many networks.
    if (n % 40 === 0) await server.database('sign_in_attempt').delete();
    const { body, headers } = drawSent(new Draw(n));
    const answer = await fetch(`${server.liveOrigin}/${KEY}/~answer/f`, {
      method: 'POST',
      body,
      headers: { Origin: server.liveOrigin, ...headers },
      redirect: 'manual',
    });
    await answer.arrayBuffer();
    expect(answer.status, `answer ${n}`).toBeLessThan(500);
    statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
  }
  // Else it would say little of what is kept.
  expect(statuses.get(303) ?? 0).toBeGreaterThan(COUNT / 20);
  expect(statuses.get(422) ?? 0).toBeGreaterThan(COUNT / 20);

  const rows: { said: Said[] }[] = await server.database('answer').where({ site: KEY }).select('said');
  expect(rows.length).toBe(statuses.get(303));
  for (const { said } of rows) {
    expect(said.some(({ field: id }) => id === 'name')).toBe(true);
    const isBox = said.some(({ field: id, value }) => id === 'box' && value === 'yes');
    expect(said.some(({ field: id }) => id === 'why')).toBe(isBox);
    for (const { field: id, value } of said) {
      const of = FIELDS.find((one) => one.id === id)!;
      expect(FIELD_TYPE[of.type].isValue(value, asKindField(of)), `${id}: ${value}`).toBe(true);
    }
  }

  const mails: { subject: string; recipient: string; text: string }[] = await server.database('outbox');
  expect(mails.length).toBe(rows.length);
  for (const { subject, recipient, text } of mails) {
    expect([subject, recipient]).toEqual(['New answer: Form (hostile)', 'desk@pellow-quay.example']);
    // Whatever was written stands behind a margin.
    expect(text).not.toMatch(/^(Bcc|Cc|Buy)/m);
  }
  const { text: csv } = await ines.get(`/api/sites/${KEY}/forms/f/answers.csv`);
  const cells = (parse(csv) as string[][]).flat();
  expect(cells.filter((cell) => /^[=+@\t\r-]/.test(cell))).toEqual([]);
}, 600_000);
