import { createHash } from 'node:crypto';
import { load } from 'cheerio';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readCsvTable } from '#core/formats/csv-table.ts';
import { type TextPart, contentIdOf } from '#core/model/content.ts';
import type { FormField } from '#core/model/site-form.ts';
import { NO_FORM_FIELD_SETTINGS } from '#core/model/site-form.ts';
import { sessionSecret } from '../database/session-secret.ts';
import { makeStamp } from '../live/form-stamp.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { deleteOldAnswers } from './answer-repository.ts';

const KEY = 'forms';
let server: TestServer;
let ines: Person;
let reader: Person;

const textOf = (...content: TextPart[]) => {
  const document = { type: 'doc' as const, content };
  return { id: contentIdOf(document), document };
};
const line = (text: string): TextPart => ({ type: 'paragraph', content: [{ type: 'text', text }] });
const place = (of: string): TextPart => ({ type: 'form', attrs: { of } });
const field = (id: string, name: string, more: Partial<Record<keyof FormField, unknown>> = {}) => ({
  ...NO_FORM_FIELD_SETTINGS,
  id,
  name,
  ...more,
});
const add = (page: string, title: string, more: object = {}) => ({
  name: 'page.add',
  page,
  place: { parent: null },
  title: { en: title },
  ...more,
});
const edit = async (operations: object[], contents: object[] = []) => {
  const answer = await ines.post(`/api/sites/${KEY}/operations`, { operations, contents });
  expect([answer.status, answer.json.detail]).toEqual([200, undefined]);
};
const release = async (body: object = { pages: 'all', settings: ['forms'] }) => {
  const answer = await ines.post(`/api/sites/${KEY}/releases`, { pages: [], retire: [], ...body });
  expect([answer.status, answer.json.detail]).toEqual([200, undefined]);
};
const page = async (path: string, headers = {}) => load((await server.live(`/${KEY}${path}`, headers)).text);

/** What a browser sends of the form on a page, some of it filled in otherwise. */
async function filledIn(path: string, values: Record<string, string | string[]>, headers = {}) {
  const $ = await page(path, headers);
  const form = $('form.answer');
  expect(form.length, `no form on ${path}`).toBe(1);
  const id = form.attr('id')!.slice('form-'.length);
  const body = new URLSearchParams();
  for (const one of form.find('input, textarea, select').toArray()) {
    const [name, type] = [$(one).attr('name')!, $(one).attr('type')];
    if (name in values || ((type === 'checkbox' || type === 'radio') && !$(one).is('[checked]'))) continue;
    body.append(name, String($(one).val() ?? ''));
  }
  for (const [name, value] of Object.entries(values)) for (const one of [value].flat()) body.append(name, one);
  // A form that was shown a minute ago.
  const secret = await sessionSecret(server.database);
  if (!('stamp' in values)) body.set('stamp', makeStamp(secret, KEY, id, Date.now() - 60_000));
  return { action: form.attr('action')!, body };
}
const post = async (action: string, body: URLSearchParams | FormData, headers: Record<string, string> = {}) => {
  const answer = await fetch(server.liveOrigin + action.split('#')[0]!, {
    method: 'POST',
    body,
    headers: { Origin: server.liveOrigin, ...headers },
    redirect: 'manual',
  });
  return { status: answer.status, to: answer.headers.get('location'), text: await answer.text() };
};
const send = async (path: string, values: Record<string, string | string[]>, headers = {}) => {
  const { action, body } = await filledIn(path, values, headers);
  return post(action, body, headers);
};
const answers = async (query = '') => (await ines.get(`/api/sites/${KEY}/answers${query}`)).json;
const latest = async () => {
  const [first] = (await answers()).answers;
  return (await ines.get(`/api/sites/${KEY}/answers/${first.id}`)).json;
};
const mails = () => server.database('outbox').orderBy('sent_at');
const WHOLE = { 'f.name': 'Wren Abbot', 'f.mail': 'wren@home.example', 'f.course': 'eve', 'f.agree': 'yes' };
const wordsIn = (html: string) => load(html)('.faults').text().replace(/\s+/g, ' ').trim();

const faultsIn = (html: string) => {
  const $ = load(html);
  return $('.faults li')
    .toArray()
    .map((one) => $(one).text());
};

const FIELDS = [
  field('name', 'Your name', { isRequired: true, filledWith: 'name', step: 'About you' }),
  field('mail', 'Mail address', { type: 'mail', isRequired: true, filledWith: 'mail' }),
  field('course', 'Course', {
    type: 'choice',
    isRequired: true,
    step: 'The course',
    choices: [
      { id: 'eve', name: 'Evening' },
      { id: 'long', name: 'Long course' },
    ],
  }),
  field('start', 'First day', {
    type: 'day',
    isRequired: true,
    shownIf: { field: 'course', test: 'is', value: 'long' },
  }),
  field('fee', 'What you can pay', { type: 'money' }),
  field('tutor', 'Tutor', { type: 'pages' }),
  field('cv', 'Drawing', { type: 'file' }),
  field('agree', 'I agree', { type: 'yesNo', isRequired: true, policy: 'policy' }),
];
const POLICY = textOf(line('We keep what you send for a year.'));
const NEW_POLICY = textOf(line('We keep what you send for two years.'));

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  reader = await server.colleague('Reader', KEY, 'reader');
  const text = textOf(line('Tell us about yourself.'), place('apply'));
  const closed = textOf(place('inner'));
  const other = textOf(place('short'), place('gone'));
  await edit(
    [
      { name: 'audience.add', audience: 'crew', title: 'Crew' },
      {
        name: 'form.add',
        form: 'apply',
        title: 'Application',
        settings: { fields: FIELDS, leadsTo: 'thanks', mailTo: ['desk@pellow-quay.example'], keptDays: 30 },
      },
      {
        name: 'form.add',
        form: 'short',
        title: 'Question',
        settings: {
          fields: [field('say', 'Question', { isRequired: true })],
          thanks: 'We write back.',
          areMailsWhole: false,
          mailTo: ['a@pellow-quay.example', 'b@pellow-quay.example'],
        },
      },
      { name: 'form.add', form: 'inner', title: 'Inner', settings: { fields: [field('say', 'Question')] } },
      add('apply', 'Apply', { content: text.id }),
      add('thanks', 'Thank you'),
      add('policy', 'Privacy', { content: POLICY.id }),
      add('ask', 'Ask us', { content: other.id }),
      add('crew', 'For the crew', { content: closed.id, access: { only: ['crew'] } }),
      add('tutor', 'Marek Holt'),
      add('hidden', 'Not for you', { access: { only: ['crew'] } }),
      { name: 'site.set', fields: { home: 'tutor' } },
    ],
    [text, POLICY, closed, other],
  );
  await release();
  await until('the site is live', async () => (await server.live(`/${KEY}/apply`)).status === 200);
});
afterAll(() => server.close());

describe('a form on a page', () => {
  it('has its fields by their names, its steps, and what is agreed to', async () => {
    const $ = await page('/apply');
    expect($('form.answer').attr('aria-label')).toBe('Application');
    const legends = $('fieldset.step > legend').toArray();
    expect(legends.map((one) => $(one).text().trim())).toEqual(['About you Step 1 of 2', 'The course Step 2 of 2']);
    const labels = $('form label')
      .toArray()
      .map((one) => $(one).text().replace(/\s+/g, ' ').trim());
    for (const name of ['Your name required', 'Mail address required', 'Evening', 'First day required', 'Tutor'])
      expect(labels).toContain(name);
    expect($('a.help').attr('href')).toBe(`/${KEY}/privacy`);
    expect($('.only-if').text()).toBe('Only if ‘Course’ is ‘Long course’.');
    // What may not be asked for does not keep a browser from sending the rest.
    expect($('#form-apply-start').is('[required]')).toBe(false);
    const pages = $('select[name="f.tutor"] option, input[name="f.tutor"]').toArray();
    expect(pages.map((one) => $(one).parent().text())).not.toContain('Not for you');
  });

  it('that is gone, or was never live, leaves nothing in its place', async () => {
    const $ = await page('/ask-us');
    expect($('form.answer').length).toBe(1);
    expect($('[data-form]').length).toBe(0);
  });

  it('runs its own script, and pages without a form do not', async () => {
    const scriptsOf = async (path: string) =>
      /script-src ([^;]*);/
        .exec((await server.live(`/${KEY}${path}`)).headers.get('content-security-policy')!)![1]!
        .split(' ');
    const own = await scriptsOf('/apply');
    expect(own.length).toBe((await scriptsOf('/privacy')).length + 1);
    const $ = await page('/apply');
    for (const one of $('main script').toArray())
      expect(own).toContain(`'sha256-${createHash('sha256').update($(one).text()).digest('base64')}'`);
  });

  it('is kept by nobody, and bears another stamp each time', async () => {
    const stamps = new Set<string | undefined>();
    for (let n = 0; n < 3; n++) stamps.add((await page('/apply'))('input[name="stamp"]').attr('value'));
    expect(stamps.size).toBe(3);
  });
});

describe('an answer', () => {
  it('is kept with all that was said, told of by mail, and leads on', async () => {
    const sent = await send('/apply', { ...WHOLE, 'f.fee': '420', 'f.tutor': 'tutor' });
    expect([sent.status, sent.to]).toEqual([303, `/${KEY}/thank-you`]);
    const { said, ...rest } = await latest();
    expect(rest).toMatchObject({
      form: 'apply',
      formName: 'Application',
      page: 'apply',
      pageTitle: 'Apply',
      state: 'new',
      note: '',
      visitorName: null,
    });
    expect(said.map((one: { name: string; words: string }) => [one.name, one.words])).toEqual([
      ['Your name', 'Wren Abbot'],
      ['Mail address', 'wren@home.example'],
      ['Course', 'Evening'],
      ['What you can pay', '€420'],
      ['Tutor', 'Marek Holt'],
      ['I agree', 'Yes'],
    ]);
    expect(said.at(-1).agreed).toMatchObject({ page: 'policy', title: 'Privacy', content: POLICY.id, release: 1 });
    const [mail] = await mails();
    expect(mail.recipient).toBe('desk@pellow-quay.example');
    expect(mail.subject).toBe('New answer: Application (forms)');
    expect(mail.text).toContain('    Wren Abbot');
    expect(mail.text).toContain('https://work.example/sites/forms?lens=write&beside=answers/');
  });

  it('is answered in its place where the form leads to no page; mails can leave out what it says', async () => {
    const sent = await send('/ask-us', { 'f.say': 'When is the ferry?' });
    expect([sent.status, sent.to]).toEqual([303, `/${KEY}/ask-us?sent=short#form-short`]);
    const $ = await page('/ask-us?sent=short');
    expect($('.answered').text()).toBe('We write back.');
    expect($('form.answer').length).toBe(0);
    const both = (await mails()).filter(({ subject }) => subject.includes('Question'));
    expect(both.map(({ recipient }) => recipient).sort()).toEqual(['a@pellow-quay.example', 'b@pellow-quay.example']);
    expect(both.some(({ text }) => text.includes('ferry'))).toBe(false);
  });

  it('leaves pages without a form as they are kept for all, whatever their address says of one', async () => {
    for (const path of ['/thank-you?sent=short', '/thank-you'])
      expect((await server.live(`/${KEY}${path}`)).headers.get('cache-control'), path).toBe('public, no-cache');
  });

  it('comes back with what is wrong where something is, and is not kept', async () => {
    const before = (await answers()).answers.length;
    const sent = await send('/apply', { 'f.name': ' ', 'f.mail': 'nobody', 'f.course': 'long', 'f.fee': 'much' });
    expect(sent.status).toBe(422);
    expect(faultsIn(sent.text)).toEqual([
      'Fill in ‘Your name’.',
      'That does not fit ‘Mail address’. Type a mail address, such as name@pellow-quay.example.',
      'Fill in ‘First day’.',
      'That does not fit ‘What you can pay’. Type an amount, such as 420.',
      'Fill in ‘I agree’.',
    ]);
    const $ = load(sent.text);
    expect($('#form-apply-mail').attr('value')).toBe('nobody');
    expect($('#form-apply-mail').attr('aria-invalid')).toBe('true');
    expect($('#form-apply-mail').attr('aria-describedby')).toContain('form-apply-mail-fault');
    expect($('input[value="long"]').is('[checked]')).toBe(true);
    expect((await answers()).answers.length).toBe(before);
  });

  it('says nothing in fields that were not asked for', async () => {
    await send('/apply', { ...WHOLE, 'f.start': 'no day at all' });
    expect((await latest()).said.some((one: { field: string }) => one.field === 'start')).toBe(false);
    await send('/apply', { ...WHOLE, 'f.course': 'long', 'f.start': '2027-03-05' });
    expect((await latest()).said.find((one: { field: string }) => one.field === 'start').words).toBe('5 March 2027');
  });

  it('chooses only what was offered', async () => {
    for (const [name, value] of [
      ['f.tutor', 'hidden'],
      ['f.tutor', 'nobody'],
      ['f.course', 'morning'],
      ['f.course', ['eve', 'long']],
    ] as const)
      expect((await send('/apply', { ...WHOLE, [name]: value as string })).status, String(value)).toBe(422);
  });

  it('is kept once, however often the same form is sent', async () => {
    const { action, body } = await filledIn('/apply', WHOLE);
    const before = (await answers()).totals.find((one: { form: string }) => one.form === 'apply').count;
    const told = (await mails()).length;
    const all = await Promise.all(Array.from({ length: 4 }, () => post(action, body)));
    expect(all.map(({ status }) => status)).toEqual([303, 303, 303, 303]);
    expect((await answers()).totals.find((one: { form: string }) => one.form === 'apply').count).toBe(before + 1);
    expect((await mails()).length).toBe(told + 1);
  });

  it('is not taken from a robot: too quick, in the field for nobody, or by a form that was never shown', async () => {
    const secret = await sessionSecret(server.database);
    const at = (ms: number) => makeStamp(secret, KEY, 'apply', Date.now() - ms);
    const cases: [Record<string, string>, string][] = [
      [{ stamp: at(0) }, 'That was very quick'],
      [{ website: 'https://spam.example' }, 'Empty it'],
      [{ stamp: 'abc.def.ghi' }, 'open for a long time'],
      [{ stamp: makeStamp('other', KEY, 'apply', Date.now() - 60_000) }, 'open for a long time'],
      [{ stamp: makeStamp(secret, 'elsewhere', 'apply', Date.now() - 60_000) }, 'open for a long time'],
      [{ stamp: at(25 * 3_600_000) }, 'open for a long time'],
      [{ stamp: at(-60_000) }, 'open for a long time'],
    ];
    const before = (await answers()).answers.length;
    for (const [values, words] of cases) {
      const sent = await send('/apply', { ...WHOLE, ...values });
      expect(sent.status, words).toBe(422);
      expect(wordsIn(sent.text)).toContain(words);
      expect(load(sent.text)('#form-apply-name').attr('value')).toBe('Wren Abbot');
    }
    expect((await answers()).answers.length).toBe(before);
    const again = await send('/apply', { ...WHOLE, stamp: 'abc.def.ghi' });
    const fresh = load(again.text)('input[name="stamp"]').attr('value')!;
    expect(fresh).not.toBe('abc.def.ghi');
  });

  it('is not taken from another site, from whoever cannot open the page, or for a page without the form', async () => {
    const { action, body } = await filledIn('/apply', WHOLE);
    expect((await post(action, body, { Origin: 'https://evil.example' })).status).toBe(403);
    const forPage = async (form: string, of: string) => {
      const changed = new URLSearchParams(body);
      changed.set('page', of);
      return (await post(`/${KEY}/~answer/${form}`, changed)).status;
    };
    expect(await forPage('inner', 'crew')).toBe(404);
    expect(await forPage('apply', 'thanks')).toBe(404);
    expect(await forPage('apply', 'nowhere')).toBe(404);
    expect(await forPage('nothing', 'apply')).toBe(404);
  });

  it('agrees to the text that was there when the form was opened, and to no other', async () => {
    const { action, body } = await filledIn('/apply', WHOLE);
    await edit([{ name: 'page.set', page: 'policy', fields: { content: NEW_POLICY.id } }], [NEW_POLICY]);
    await release({ pages: ['policy'] });
    await until('the other text is live', async () =>
      (await server.live(`/${KEY}/privacy`)).text.includes('two years'),
    );
    const sent = await post(action, body);
    expect(sent.status).toBe(422);
    expect(wordsIn(sent.text)).toContain('‘Privacy’ has changed since you opened this form.');
    expect((await send('/apply', WHOLE)).status).toBe(303);
    expect((await latest()).said.at(-1).agreed).toMatchObject({ content: NEW_POLICY.id, release: 2 });
  });

  it('begins with what is known of whoever is signed in, and says who it was', async () => {
    const made = await ines.post(`/api/sites/${KEY}/visitors`, {
      name: 'Bram',
      email: 'bram@home.example',
      audiences: ['crew'],
      password: 'a long password',
    });
    expect(made.status).toBe(200);
    const signedIn = await post(
      `/${KEY}/sign-in`,
      new URLSearchParams({ email: 'bram@home.example', password: 'a long password' }),
    );
    expect(signedIn.status).toBe(303);
    const cookie = await fetch(`${server.liveOrigin}/${KEY}/sign-in`, {
      method: 'POST',
      body: new URLSearchParams({ email: 'bram@home.example', password: 'a long password' }),
      headers: { Origin: server.liveOrigin },
      redirect: 'manual',
    }).then((answer) => answer.headers.getSetCookie()[0]!.split(';')[0]!);
    const answer = await server.live(`/${KEY}/apply`, { cookie });
    const $ = load(answer.text);
    expect([$('#form-apply-name').attr('value'), $('#form-apply-mail').attr('value')]).toEqual([
      'Bram',
      'bram@home.example',
    ]);
    expect(answer.headers.get('cache-control')).toContain('no-store');
    const sent = await send('/apply', { 'f.course': 'eve', 'f.agree': 'yes' }, { cookie });
    expect(sent.status).toBe(303);
    expect(await latest()).toMatchObject({ visitorName: 'Bram' });
    // Another one of the same audiences has nothing of it.
    expect((await page('/apply'))('#form-apply-name').attr('value')).toBe('');
    expect((await send('/for-the-crew', { 'f.say': 'Aye' }, { cookie })).status).toBe(303);
  });

  it('brings a file into the library, which no visitor can have', async () => {
    const { action, body } = await filledIn('/apply', WHOLE);
    const form = new FormData();
    for (const [name, value] of body) if (name !== 'f.cv') form.append(name, value);
    form.append('f.cv', new Blob(['A plain text about boats.'], { type: 'text/plain' }), 'About me.txt');
    const sent = await post(action, form);
    expect(sent.status).toBe(303);
    const { said, id } = await latest();
    const file = said.find((one: { field: string }) => one.field === 'cv');
    expect(file.words).toBe('About me');
    const library = (await ines.get(`/api/sites/${KEY}/files`)).json.files;
    const { content, usedBy } = library.find((one: { id: string }) => one.id === file.value);
    expect(usedBy).toEqual([]);
    expect((await server.live(`/${KEY}/~files/${content}/about-me.txt`)).status).toBe(404);
    expect((await ines.send('DELETE', `/api/sites/${KEY}/answers/${id}`)).status).toBe(200);
    expect(
      (await ines.get(`/api/sites/${KEY}/files`)).json.files.find(
        (one: { id: string; removedAt: string | null }) => one.id === file.value && one.removedAt === null,
      ),
    ).toBeUndefined();
  });

  it('refuses a file that is a program or too large, and says so', async () => {
    for (const content of ['<script>alert(1)</script>', 'x'.repeat(10_000_001)]) {
      const { action, body } = await filledIn('/apply', WHOLE);
      const form = new FormData();
      for (const [name, value] of body) if (name !== 'f.cv') form.append(name, value);
      form.append('f.cv', new Blob([content]), 'page.html');
      const sent = await post(action, form);
      expect(sent.status).toBe(422);
      expect(wordsIn(sent.text)).toContain('The file for ‘Drawing’ cannot be accepted.');
    }
  });
});

describe('colleagues', () => {
  it('see answers by state and form, note something, and delete them; readers do not', async () => {
    const { answers: all, totals } = await answers();
    expect(totals.map((one: { name: string }) => one.name).sort()).toEqual(['Application', 'Inner', 'Question']);
    const { id } = all[0];
    const at = `/api/sites/${KEY}/answers/${id}`;
    expect((await ines.send('PUT', at, { state: 'done', note: 'Called back' })).status).toBe(200);
    expect((await ines.get(at)).json).toMatchObject({ state: 'done', note: 'Called back' });
    expect((await answers('?state=done')).answers.map((one: { id: string }) => one.id)).toEqual([id]);
    expect((await answers('?form=short')).answers.length).toBe(1);
    for (const person of [reader]) {
      expect((await person.get(`/api/sites/${KEY}/answers`)).status).toBe(403);
      expect((await person.get(at)).status).toBe(403);
      expect((await person.get(`/api/sites/${KEY}/forms/apply/answers.csv`)).status).toBe(403);
      expect((await person.send('PUT', at, { state: 'new' })).status).toBe(403);
      expect((await person.send('DELETE', at)).status).toBe(403);
    }
    await server.site('other');
    expect((await ines.get(`/api/sites/other/answers/${id}`)).json.code).toBe('answer-unknown');
    expect((await ines.send('DELETE', at)).status).toBe(200);
    expect((await ines.send('DELETE', at)).json.code).toBe('answer-unknown');
  });

  it('export answers as CSV, in which nothing is a formula', async () => {
    await send('/apply', { ...WHOLE, 'f.name': '=HYPERLINK("https://evil.example")' });
    const { text, headers } = await ines.get(`/api/sites/${KEY}/forms/apply/answers.csv`);
    expect(headers.get('content-type')).toBe('text/csv; charset=utf-8');
    expect(text).not.toMatch(/(^|[,"])[=+@-]/m);
    const table = readCsvTable(text);
    if (!table.ok) throw new Error(table.detail);
    expect(table.columns.slice(0, 8)).toEqual([
      'sent',
      'page',
      'signed in as',
      'state',
      'note',
      'Your name',
      'Mail address',
      'Course',
    ]);
    expect(table.rows.at(-1)!.cells[5]).toBe('=HYPERLINK("https://evil.example")');
  });

  it('lose no answer when the page is moved, renamed or removed, or the form is', async () => {
    const before = (await answers()).totals.find((one: { form: string }) => one.form === 'short').count;
    await edit([
      { name: 'page.set', page: 'ask', fields: { title: { en: 'Questions' } } },
      { name: 'page.remove', page: 'ask' },
      { name: 'form.remove', form: 'short' },
    ]);
    const { totals } = await answers();
    expect(totals.find((one: { form: string }) => one.form === 'short')).toMatchObject({
      name: 'Question',
      count: before,
    });
    expect((await ines.get(`/api/sites/${KEY}/forms/short/answers.csv`)).text).toContain('When is the ferry?');
  });

  it('keep answers for as long as the form says', async () => {
    const before = (await answers()).totals.find((one: { form: string }) => one.form === 'apply').count;
    const later = (days: number) => new Date(Date.now() + days * 24 * 3_600_000);
    await deleteOldAnswers(server.database, later(29));
    expect((await answers()).totals.find((one: { form: string }) => one.form === 'apply').count).toBe(before);
    expect(await deleteOldAnswers(server.database, later(31))).toBe(before);
    expect((await answers()).totals.some((one: { form: string }) => one.form === 'apply')).toBe(false);
    // The others are kept for a year.
    expect((await answers()).totals.length).toBeGreaterThan(0);
  });
});

it('goes live with the first page that shows it', async () => {
  const text = textOf(place('late'));
  await edit(
    [
      {
        name: 'form.add',
        form: 'late',
        title: 'Late',
        settings: { fields: [field('paper', 'Paper', { type: 'file', isRequired: true })] },
      },
      add('late', 'Late', { content: text.id }),
    ],
    [text],
  );
  const { needs } = (await ines.get(`/api/sites/${KEY}/text-links`)).json;
  expect(needs).toEqual({ forms: ['late'] });
  await release({ pages: ['late'], settings: [] });
  await until('the page is live', async () => (await server.live(`/${KEY}/late`)).status === 200);
  expect((await page('/late'))('form.answer').length).toBe(1);
  // The name of a file is no file.
  const sent = await send('/late', { 'f.paper': 'paper.pdf' });
  expect([sent.status, faultsIn(sent.text)]).toEqual([422, ['Fill in ‘Paper’.']]);
});

it('takes so many from one network and no more, and says how long to wait', async () => {
  const { action, body } = await filledIn('/apply', { ...WHOLE, 'f.name': '' });
  let last = { status: 0, text: '' };
  for (let n = 0; n < 70 && last.status !== 429; n++) last = await post(action, body);
  expect(last.status).toBe(429);
  expect(wordsIn(last.text)).toMatch(/Too many answers came from your network\. Wait \d+ minutes/);
});
