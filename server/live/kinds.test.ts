import { load } from 'cheerio';
import ICAL from 'ical.js';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { type TextPart, contentIdOf } from '#core/model/content.ts';
import { PLAIN_PAGE_LIST } from '#core/sections/page-list.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

const KEY = 'kinds';
let server: TestServer;
let ines: Person;

const add = (page: string, title: string, parent: string | null = null, more: object = {}) => ({
  name: 'page.add',
  page,
  place: { parent },
  title: { en: title },
  ...more,
});
const textOf = (...content: TextPart[]) => {
  const document = { type: 'doc' as const, content };
  return { id: contentIdOf(document), document };
};
const list = (attrs: object): TextPart => ({ type: 'pageList', attrs: { ...PLAIN_PAGE_LIST, from: 'site', ...attrs } });
const course = (details: object, only?: string[]) => ({
  access: { labels: ['course'], ...(only && { only }) },
  details,
});
const said = (field: string, of: string | null): TextPart => ({ type: 'detail', attrs: { field, page: of } });
const words = (text: string): TextPart => ({ type: 'text', text });
const release = (pages: unknown = 'all') => ines.post(`/api/sites/${KEY}/releases`, { pages, retire: [] });
const edit = async (operations: object[], contents: object[] = []) => {
  const answer = await ines.post(`/api/sites/${KEY}/operations`, { operations, contents });
  expect(answer.status, answer.text).toBe(200);
};
const page = async (path: string) => load((await server.live(`/${KEY}${path}`)).text);
const texts = ($: ReturnType<typeof load>, what: string) =>
  $(what)
    .toArray()
    .map((one) => $(one).text().replace(/\s+/g, ' ').trim());

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  const all = textOf(
    list({ kind: 'course', order: 'field', by: 'price', look: 'table', fields: ['price', 'days', 'teachers'] }),
    list({ kind: 'course', where: [{ field: 'days', test: 'from', value: 'today' }], order: 'field', by: 'days' }),
    list({ kind: 'course', group: 'level', isReversed: true }),
    list({ from: 'chosen', chosen: ['rope', 'secret', 'oars', 'gone'] }),
    list({ kind: 'course', group: 'note', fields: ['note'] }),
  );
  const parted = textOf(list({ kind: 'course', order: 'alphabet', filters: ['level', 'teachers', 'note'], atOnce: 1 }));
  const told = textOf({
    type: 'paragraph',
    content: [
      words('Rope costs '),
      said('price', 'rope'),
      words(', is taught by '),
      said('teachers', 'rope'),
      words(', a secret '),
      said('price', 'secret'),
      words(', a note '),
      said('note', 'oars'),
      words('; ring '),
      said('phone', null),
      words('.'),
    ],
  });
  const month = textOf(list({ kind: 'event', look: 'month', fields: ['when'] }));
  const mine = textOf(list({ where: [{ field: 'teachers', test: 'is', value: 'this' }] }));
  await edit(
    [
      { name: 'audience.add', audience: 'crew', title: 'Crew' },
      { name: 'label.add', label: 'person', title: 'Person', about: 'person' },
      { name: 'label.add', label: 'course', title: 'Course', about: 'course' },
      ...[
        { field: 'price', title: 'Price', settings: { type: 'money', property: 'offers' } },
        { field: 'days', title: 'Dates', settings: { type: 'period', property: 'hasCourseInstance' } },
        {
          field: 'level',
          title: 'Level',
          settings: {
            type: 'choice',
            choices: [
              { id: 'a', name: 'For beginners' },
              { id: 'b', name: 'For builders' },
            ],
          },
        },
        {
          field: 'teachers',
          title: 'Teachers',
          settings: { type: 'pages', isSeveral: true, of: 'person', backName: 'Courses', property: 'instructor' },
        },
        { field: 'note', title: 'Note', settings: { type: 'text', isForVisitors: false } },
      ].map((one) => ({ name: 'field.add', label: 'course', ...one })),
      { name: 'label.add', label: 'event', title: 'Open day', about: 'event' },
      {
        name: 'field.add',
        label: 'event',
        field: 'when',
        title: 'When',
        settings: { type: 'repeats', property: 'eventSchedule' },
      },
      { name: 'field.add', label: 'person', field: 'phone', title: 'Telephone', settings: { type: 'telephone' } },
      add('home', 'Home', null, { content: all.id }),
      add('marek', 'Marek', null, {
        access: { labels: ['person'] },
        details: { phone: '01632 960 422' },
        content: mine.id,
      }),
      add('sunniva', 'Sunniva', null, { access: { labels: ['person'] } }),
      add('shy', 'Shy teacher', null, { access: { labels: ['person'], only: ['crew'] } }),
      add('oars', 'Oars', null, {
        ...course({
          price: '210 GBP',
          days: '2030-03-05/2030-03-06',
          level: 'a',
          teachers: 'marek shy',
          note: 'Ask about the spruce',
        }),
      }),
      add(
        'rope',
        'Rope',
        null,
        course({ price: '85.5 GBP', days: '2020-03-05/2020-03-06', level: 'b', teachers: 'sunniva marek' }),
      ),
      add(
        'secret',
        'Secret course',
        null,
        course({ price: '1 GBP', teachers: 'marek', days: '2031-01-01/2031-01-02' }, ['crew']),
      ),
      add('doors', 'Open doors', null, {
        access: { labels: ['event'] },
        details: { when: '2030-03-02 10:00-16:00 FREQ=MONTHLY;BYDAY=1SA without 2030-04-06 and 2030-04-13' },
      }),
      add('allcourses', 'All courses', null, { content: parted.id }),
      add('told', 'Told', null, {
        content: told.id,
        access: { labels: ['person'] },
        details: { phone: '01632 960 001' },
      }),
      add('whatison', 'What is on', null, { content: month.id }),
      add('plain', 'Plain', null, {}),
      { name: 'site.set', fields: { home: 'home' } },
    ],
    [all, mine, parted, month, told],
  );
  expect((await release()).status).toBe(200);
  await until('the site is live', async () => (await server.live(`/${KEY}/oars`)).status === 200);
});
afterAll(() => server.close());

describe('a page of a kind', () => {
  it('says what it says in its fields, to visitors only what is for them, and names nobody they may not know of', async () => {
    const $ = await page('/oars');
    expect(texts($, 'main > .fields div')).toEqual([
      'Price£210',
      'Dates5 – 6 March 2030',
      'LevelFor beginners',
      'TeachersMarek',
    ]);
    expect($.html()).not.toMatch(/spruce|Shy/);
    expect($('.fields a').attr('href')).toBe(`/${KEY}/marek`);
  });

  it('lists those that name it, without those that are closed', async () => {
    const $ = await page('/marek');
    expect(texts($, '.named-by h2')).toEqual(['Courses']);
    expect(texts($, '.named-by li')).toEqual(['Oars', 'Rope']);
    expect($('.fields a').attr('href')).toBe('tel:01632960422');
    expect(texts($, '.listed li > a')).toEqual(['Oars', 'Rope']);
  });

  it('is a course for machines, with its dates, its price and who teaches it', async () => {
    const $ = await page('/oars');
    const data = $('script[type="application/ld+json"]')
      .toArray()
      .map((one) => JSON.parse($(one).text()) as Record<string, unknown>)
      .find((one) => one['@type'] === 'Course');
    expect(data).toMatchObject({
      name: 'Oars',
      offers: { '@type': 'Offer', price: 210, priceCurrency: 'GBP' },
      hasCourseInstance: { '@type': 'CourseInstance', startDate: '2030-03-05', endDate: '2030-03-06' },
      instructor: { '@type': 'Person', name: 'Marek' },
    });
  });
});

describe('search', () => {
  const found = async (asked: string) =>
    texts(load((await server.live(`/${KEY}/search?q=${encodeURIComponent(asked)}`)).text), 'main li > a');

  it('finds pages by what they say in fields that visitors see, by the names of choices too', async () => {
    expect(await found('960 422')).toEqual(['Marek']);
    expect(await found('builders')).toEqual(['Rope']);
    expect(await found('spruce')).toEqual([]);
  });

  it('finds them by another field once visitors see it', async () => {
    await edit([{ name: 'field.set', field: 'note', fields: { isForVisitors: true } }]);
    expect(
      (await ines.post(`/api/sites/${KEY}/releases`, { pages: [], retire: [], settings: ['labels'] })).status,
    ).toBe(200);
    await until('it is found', async () => (await found('spruce')).join() === 'Oars');
    await edit([{ name: 'field.set', field: 'note', fields: { isForVisitors: false } }]);
    expect(
      (await ines.post(`/api/sites/${KEY}/releases`, { pages: [], retire: [], settings: ['labels'] })).status,
    ).toBe(200);
    await until('it is found no longer', async () => (await found('spruce')).length === 0);
  });
});

describe('a value within a text', () => {
  it('is what the page says now, where the visitor may open it and the field is for them', async () => {
    const $ = await page('/told');
    const phone = '01632 960 001';
    expect(texts($, 'main > p')[0]).toBe(
      `Rope costs £85.50, is taught by Sunniva, Marek, a secret , a note ; ring ${phone}.`,
    );
    expect($('main > p a[href="tel:01632960001"]').text()).toBe(phone);
    expect($('main > p a').first().attr('href')).toBe(`/${KEY}/sunniva`);
  });

  it('changes with a release of that page alone, and is gone where that one is closed', async () => {
    await edit([{ name: 'page.set', page: 'rope', fields: { details: { price: '90 GBP' } } }]);
    expect((await release(['rope'])).status).toBe(200);
    await until('the text says so', async () =>
      texts(await page('/told'), 'main > p')[0]!.startsWith('Rope costs £90,'),
    );
    await edit([{ name: 'page.set', page: 'rope', fields: { access: { only: ['crew'] } } }]);
    expect((await release(['rope'])).status).toBe(200);
    await until('the text says nothing of it', async () =>
      texts(await page('/told'), 'main > p')[0]!.startsWith('Rope costs , is taught by ,'),
    );
    await edit([
      { name: 'page.set', page: 'rope', fields: { access: { only: null }, details: { price: '85.5 GBP' } } },
    ]);
    expect((await release(['rope'])).status).toBe(200);
    await until('it is as before', async () =>
      texts(await page('/told'), 'main > p')[0]!.startsWith('Rope costs £85.50'),
    );
  });
});

describe('a list of pages', () => {
  it('has those of a kind in the order of a field, as a table of fields', async () => {
    const $ = await page('/');
    expect(texts($, '.listed table th[scope=col]')).toEqual(['Page', 'Price', 'Dates', 'Teachers']);
    expect(texts($, '.listed table tbody tr')).toEqual([
      'Rope£85.505 – 6 March 2020Sunniva, Marek',
      'Oars£2105 – 6 March 2030Marek',
    ]);
  });

  it('has those alone that are still to come, groups in the order of the choices, and those that were chosen as they were', async () => {
    const $ = await page('/');
    const lists = $('.listed').toArray();
    const titles = (at: number) => texts(load($.html(lists[at])), 'li > a');
    expect(titles(1)).toEqual(['Oars']);
    expect(texts(load($.html(lists[2])), '.group, li > a')).toEqual(['For beginners', 'Oars', 'For builders', 'Rope']);
    expect(titles(3)).toEqual(['Rope', 'Oars']);
    // What is not for visitors is no heading either.
    expect(texts(load($.html(lists[4])), '.group')).toEqual([]);
    // The page has no heading before it but its title.
    expect($('h2.group').length).toBe(2);
    expect($.html()).not.toContain('spruce');
    expect($.html()).not.toContain('Secret');
  });

  it('is filtered and looked at in parts by its address alone, and offers nothing that the visitor may not open', async () => {
    const $ = await page('/all-courses');
    const offered = (of: ReturnType<typeof load>) => texts(of, '.filters select option');
    expect(offered($)).toEqual(['All', 'For beginners', 'For builders', 'All', 'Marek', 'Sunniva']);
    expect(texts($, '.listed li > a')).toEqual(['Oars']);
    expect(texts($, '.parts')).toEqual(['Part 1 of 2Next']);
    const next = $('.parts a[rel=next]').attr('href')!;
    expect(next).toBe(`/${KEY}/all-courses?1.part=2#list-1`);
    const of = async (query: string) => load((await server.live(`/${KEY}/all-courses${query}`)).text);
    expect(texts(await of('?1.part=2'), '.listed li > a')).toEqual(['Rope']);
    const first = await of('?1.level=b');
    expect(texts(first, '.listed li > a')).toEqual(['Rope']);
    expect(texts(first, '.left, .filters > a')).toEqual(['Show all', '1 entry']);
    expect(first('option[selected]').attr('value')).toBe('b');
    expect(first('link[rel=canonical]').attr('href')).toBe(`https://www.example/${KEY}/all-courses`);
    expect(texts(await of('?1.level=b&1.teachers=marek'), '.listed li > a')).toEqual(['Rope']);
    expect(texts(await of('?1.level=a&1.teachers=sunniva'), '.listed')).toEqual([
      'Level AllFor beginnersFor buildersTeachers AllMarekSunnivaShow Show allNothing in the list matches.',
    ]);
    // What is asked of others, or means nothing, changes nothing; a plain address is the whole list again.
    for (const query of ['?1.part=99', '?1.part=-1&2.level=b', '?1.note=x&1.level=', '?1.level=' + 'x'.repeat(400)]) {
      const { status, text } = await server.live(`/${KEY}/all-courses${query}`);
      expect(status, query).toBe(200);
      expect(text).not.toContain('Secret');
    }
    expect(texts(await page('/all-courses'), '.listed li > a')).toEqual(['Oars']);
  });

  it('is a month of days, with the ways to those before and after that have any', async () => {
    const of = async (query = '') => load((await server.live(`/${KEY}/what-is-on${query}`)).text);
    const $ = await of();
    const has = ($: ReturnType<typeof load>) => {
      $('.on-narrow').remove();
      return texts($, 'table.month td.has');
    };
    expect(texts($, 'table.month caption')).toEqual(['March 2030']);
    expect(has($)).toEqual(['2Open doors']);
    expect(texts($, 'table.month th')[0]).toBe('Mon');
    expect(texts($, '.parts a')).toEqual(['April 2030']);
    const april = await of('?1.month=2030-04');
    expect(has(april)).toEqual(['13Open doors']);
    expect(texts(april, '.parts a')).toEqual(['March 2030', 'May 2030']);
    expect(has(await of('?1.month=2029-01'))).toEqual([]);
    for (const query of ['?1.month=9999-12', '?1.month=2030-13', '?1.month=x'])
      expect(has(await of(query)), query).toEqual(['2Open doors']);
  });

  it('has a feed and a calendar, which everyone gets who gets its page, with what everyone is offered', async () => {
    const feed = load((await server.live(`/${KEY}/feed.xml`)).text, { xml: true });
    expect(
      feed('entry > title')
        .toArray()
        .map((one) => feed(one).text())
        .sort(),
    ).toEqual(['Oars', 'Rope']);
    expect((await page('/'))('link[type="application/atom+xml"]').attr('href')).toBe(`/${KEY}/feed.xml`);
    expect((await page('/'))('.listed a[type="text/calendar"]').attr('href')).toBe(`/${KEY}/calendar.ics`);
    const answer = await server.live(`/${KEY}/calendar.ics`);
    expect(answer.headers.get('content-type')).toContain('text/calendar');
    expect(answer.headers.get('x-robots-tag')).toBe('noindex');
    const events = new ICAL.Component(ICAL.parse(answer.text) as unknown[]).getAllSubcomponents('vevent');
    expect(
      events.map((one) => [one.getFirstPropertyValue('summary'), String(one.getFirstPropertyValue('dtend'))]).sort(),
    ).toEqual([
      ['Oars', '2030-03-07'],
      ['Rope', '2020-03-07'],
    ]);
    expect((await server.live(`/${KEY}/secret-course/calendar.ics`)).status).toBe(404);
    expect((await server.live(`/${KEY}/plain/calendar.ics`)).status).toBe(404);
  });

  it('repeats in the calendar as its page says, with days left out and moved', async () => {
    const { text } = await server.live(`/${KEY}/open-doors/calendar.ics`);
    const [event] = new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent');
    const days = new ICAL.RecurExpansion({
      component: event!,
      dtstart: event!.getFirstPropertyValue('dtstart') as ICAL.Time,
    });
    expect([days.next(), days.next(), days.next()].map(String)).toEqual([
      '2030-03-02T10:00:00',
      '2030-04-13T10:00:00',
      '2030-05-04T10:00:00',
    ]);
    const $ = await page('/open-doors');
    expect(texts($, '.fields dd')).toEqual([
      'The first Saturday of each month, 10:00–16:00, from 2 March 2030; not on 6 April 2030; also on 13 April 2030',
    ]);
    expect($.html()).toContain('"repeatFrequency":"P1M","byDay":["1SA"]');
  });

  it('follows the clock without a release: what is over leaves by itself', async () => {
    const toCome = async () => {
      const $ = await page('/');
      return texts(load($.html($('.listed').toArray()[1])), 'li > a');
    };
    vi.useFakeTimers({ toFake: ['Date'] });
    try {
      vi.setSystemTime('2030-03-06T23:50:00Z');
      expect(await toCome()).toEqual(['Oars']);
      vi.setSystemTime('2030-03-07T00:10:00Z');
      const $ = await page('/');
      expect($('.listed')).toHaveLength(4);
      expect(texts($, '.listed').join()).toContain('Oars');
    } finally {
      vi.useRealTimers();
    }
  });

  it('is made anew by a release that changes a field of a page that it shows; others are kept as they are', async () => {
    const [home, marek, plain] = await Promise.all(
      ['/', '/marek', '/plain'].map((path) => server.live(`/${KEY}${path}`)),
    );
    await edit([{ name: 'page.set', page: 'rope', fields: { details: { price: '90 GBP', teachers: 'sunniva' } } }]);
    expect((await release(['rope'])).status).toBe(200);
    await until('the new price is there', async () => (await server.live(`/${KEY}/`)).text.includes('£90'));
    expect(home!.text).toContain('£85.50');
    expect(texts(await page('/marek'), '.named-by li')).toEqual(['Oars']);
    expect(texts(await page('/marek'), '.listed li > a')).toEqual(['Oars']);
    expect(marek!.text).toContain('Rope');
    expect((await server.live(`/${KEY}/plain`)).text).toBe(plain!.text);
  });

  it('holds what its text was before there was more to set, and shows a change of what is listed elsewhere', async () => {
    const old = textOf({ type: 'pageList', attrs: { of: 'home', look: 'list', order: 'tree', most: 0 } });
    await edit(
      [
        add('under', 'Under home', 'home', { description: { en: 'As it was.' } }),
        { name: 'page.set', page: 'plain', fields: { content: old.id } },
      ],
      [old],
    );
    expect((await release()).status).toBe(200);
    await until('the list is there', async () => (await server.live(`/${KEY}/plain`)).text.includes('As it was.'));
    await edit([{ name: 'page.set', page: 'under', fields: { description: { en: 'As it is now.' } } }]);
    expect((await release(['under'])).status).toBe(200);
    await until('it says what is now', async () => (await server.live(`/${KEY}/plain`)).text.includes('As it is now.'));
  });
});

describe('a page on which nobody has written', () => {
  it('says what the outline of its kind says, with its fields in their place there', async () => {
    const outline = textOf(
      { type: 'paragraph', content: [words('Ring '), said('phone', null), words(' to reach them.')] },
      { type: 'pageFields' },
      { type: 'pageFields' },
      { type: 'paragraph', content: [words('They teach at the quay.')] },
    );
    await edit(
      [
        { name: 'label.set', label: 'person', fields: { pageOutline: outline.id } },
        {
          name: 'page.set',
          page: 'sunniva',
          fields: { content: outline.id, details: { phone: '01632 960 423' } },
        },
      ],
      [outline],
    );
    expect((await release()).status).toBe(200);
    await until('the outline is there', async () =>
      (await server.live(`/${KEY}/sunniva`)).text.includes('They teach at the quay.'),
    );
    const $ = await page('/sunniva');
    expect(texts($, 'main > h1, main > p, main > dl, main > div').slice(0, 4)).toEqual([
      'Sunniva',
      'Ring 01632 960 423 to reach them.',
      'Telephone01632 960 423',
      'They teach at the quay.',
    ]);
    expect($('dl.fields')).toHaveLength(1);
    // It is found by the words of the outline, as by words of its own.
    expect(texts(await page('/search?q=quay'), 'main li a')).toContain('Sunniva');
    expect(texts(await page('/marek'), 'main > dl.fields')).toEqual(['Telephone01632 960 422']);
    const missing = await ines.post(`/api/sites/${KEY}/operations`, {
      operations: [{ name: 'label.set', label: 'person', fields: { pageOutline: 'notThereYet0' } }],
      contents: [],
    });
    expect(missing.json.code).toBe('content-unknown');
  });
});
