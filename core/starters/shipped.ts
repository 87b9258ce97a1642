import { FIRST_LOOK } from '../model/look.ts';
import type { StarterForm } from './starter-file-fields.ts';
import type { Shell, Starter, StarterKind, StarterLayout } from './starter-file.ts';

const page = (title: string, more: Omit<Shell, 'title' | 'below'> = {}, below: readonly Shell[] = []): Shell => ({
  title,
  ...more,
  ...(below.length > 0 && { below }),
});
const off = { inMenus: false } as const;

/** For what has to be said: read once, without much around it. */
const PLAIN: StarterLayout = {
  name: 'Plain',
  header: 'slim',
  hasFooter: true,
  hasTurns: false,
  menus: { header: 'Main' },
};
/** For what is read from one page to the next. */
const STEP_BY_STEP: StarterLayout = {
  name: 'Step by step',
  header: 'band',
  hasFooter: true,
  hasTurns: true,
  menus: { header: 'Main' },
};

const LEGAL = page('Legal', { ...off, layout: 'Plain' }, [
  page('Imprint', { ...off, sections: ['Who is responsible', 'How to reach us'] }),
  page('Privacy', { ...off, sections: ['What we keep', 'Why, and how long', 'Your rights', 'Whom to ask'] }),
  page('Accessibility', { ...off, sections: ['What works', 'What does not yet', 'Tell us'] }),
]);

/** What the contact page asks; whoever has written is led to the page of thanks. */
const CONTACT: StarterForm = {
  name: 'Contact',
  leadsTo: 'Thank you',
  fields: [
    { name: 'Your name', type: 'text', isRequired: true, filledWith: 'name' },
    { name: 'Mail address', type: 'mail', isRequired: true, filledWith: 'mail' },
    { name: 'Your message', type: 'longText', isRequired: true },
    { name: 'I have read how you keep what I send', type: 'yesNo', isRequired: true, policy: 'Privacy' },
  ],
};
/** What the not-found page asks. */
const MISSING: StarterForm = {
  name: 'Missing page',
  button: 'Tell us',
  thanks: 'Thank you. We will look for it.',
  keptDays: 90,
  fields: [
    { name: 'What were you looking for?', type: 'text', isRequired: true },
    { name: 'Mail address', type: 'mail', help: 'If you would like an answer.', filledWith: 'mail' },
  ],
};
const TIME_OFF: StarterForm = {
  name: 'Time off',
  fields: [
    { name: 'Your name', type: 'text', isRequired: true, filledWith: 'name' },
    { name: 'From when until when', type: 'period', isRequired: true },
    { name: 'Kind', type: 'choice', isRequired: true, choices: ['Holiday', 'Sick leave', 'Something else'] },
    {
      name: 'What it is for',
      type: 'text',
      isRequired: true,
      shownIf: { field: 'Kind', test: 'is', value: 'Something else' },
    },
  ],
};
const THANK_YOU = page('Thank you', { ...off, access: { engines: 'page' }, sections: ['What happens next'] });
const NOT_FOUND = page('Page not found', { ...off, access: { standsIn: 'not-found' }, form: 'Missing page' });

/** What an event says of itself. */
const EVENT_FIELDS: StarterKind['fields'] = [
  { name: 'When', type: 'moment', isRequired: true, property: 'startDate' },
  { name: 'Where', type: 'text', property: 'location' },
  { name: 'Price', type: 'money', property: 'offers' },
];

/** The starters that Spur ships. */
export const SHIPPED: Readonly<Record<string, Starter>> = {
  school: {
    format: 'spur-starter',
    version: 1,
    name: 'School',
    description:
      'For a school of any kind: what it teaches, how one comes in, and what pupils and families need each week.',
    look: { ...FIRST_LOOK, colour: '#1d5c3f', accent: '#9a4b00', pair: 'hearth', header: 'strong', footer: 'tinted' },
    layouts: [PLAIN, STEP_BY_STEP],
    kinds: [
      { name: 'Place', about: 'place', sections: ['What it is for', 'How to find it'] },
      { name: 'Event', about: 'event', fields: EVENT_FIELDS, sections: ['What happens', 'How to get there'] },
    ],
    forms: [CONTACT, MISSING],
    pages: [
      page('Home', {
        ...off,
        purpose: 'Says in one look what school this is, and leads to what most people come for.',
      }),
      page('About the school', { sections: ['What we are like', 'Where we come from'] }, [
        page('People', { purpose: 'Who teaches and who runs the office, with how to reach them.' }),
        page('Buildings and grounds', { kind: 'Place' }),
        page('Governors', { sections: ['Who they are', 'When they meet'] }),
        page('Jobs', { sections: ['What is open now', 'How to apply'] }),
      ]),
      page('Learning', {}, [page('Subjects'), page('Exams'), page('Extra help'), page('Library')]),
      page('Joining', { layout: 'Step by step', purpose: 'A family knows how to apply, by when, and what it costs.' }, [
        page('How to apply', { sections: ['Step by step', 'Dates', 'What to bring'] }),
        page('Open days', { kind: 'Event' }),
        page('Fees and help with fees', { slug: 'fees' }),
        page('Questions people ask', { slug: 'questions' }),
      ]),
      page('School life', {}, [
        page('The school day', { sections: ['Lesson times', 'Breaks and lunch'] }),
        page('Term dates'),
        page('Clubs'),
        page('Trips'),
      ]),
      page('Families', {}, [
        page('Report an absence', { purpose: 'Before nine in the morning, in under a minute.' }),
        page('Letters home'),
        page('Payments'),
      ]),
      page('News'),
      page('Contact', {
        sections: ['Telephone and mail', 'How to find us', 'When the office is open'],
        form: 'Contact',
      }),
      LEGAL,
      THANK_YOU,
      NOT_FOUND,
    ],
  },
  intranet: {
    format: 'spur-starter',
    version: 1,
    name: 'Office intranet',
    description: 'For the people who work in an office: what they look up, ask for and have to know.',
    look: { ...FIRST_LOOK, colour: '#274c77', pair: 'service', room: 'dense', width: 'wide', header: 'tinted' },
    layouts: [STEP_BY_STEP],
    kinds: [{ name: 'How to', about: 'article', sections: ['When you need this', 'Step by step', 'Whom to ask'] }],
    forms: [TIME_OFF],
    pages: [
      page('Today', {
        ...off,
        purpose: 'What has changed since yesterday, and the five things that are looked up most.',
      }),
      page('New here', { layout: 'Step by step', sections: ['The first day', 'The first week', 'Whom to ask'] }),
      page('People', {}, [page('Telephone list'), page('Who does what'), page('Holidays and absences')]),
      page('How we work', {}, [
        page('Rules', { sections: ['Working hours', 'Working from home', 'Keys and visitors'] }),
        page('Writing and naming'),
        page('Meetings'),
        page('Safety', { sections: ['In case of fire', 'First aid'] }),
      ]),
      page('Ask for something', {}, [
        page('Time off', { kind: 'How to', form: 'Time off' }),
        page('Expenses', { kind: 'How to', sections: ['What is paid', 'How to claim', 'When the money comes'] }),
        page('Equipment'),
        page('A room'),
        page('Training'),
      ]),
      page('Help with computers', { slug: 'it' }, [
        page('Passwords', { kind: 'How to' }),
        page('Printing', { kind: 'How to' }),
        page('Working from elsewhere', { kind: 'How to' }),
      ]),
      page('Forms'),
      page('For heads of department', { access: { only: ['Heads of department'], closedLook: 'locked' } }),
      page('News'),
      page('About this site', { ...off, sections: ['Who keeps it', 'What is missing?'] }),
    ],
  },
  organisation: {
    format: 'spur-starter',
    version: 1,
    name: 'Small organisation',
    description: 'For a club, a charity or a small firm: who it is, what it does, and how one takes part.',
    look: {
      ...FIRST_LOOK,
      colour: '#7a2e4d',
      accent: '#1f5f7a',
      pair: 'garden',
      corners: 'round',
      lines: 'none',
      footer: 'dark',
    },
    layouts: [PLAIN],
    kinds: [{ name: 'Event', about: 'event', fields: EVENT_FIELDS, sections: ['What happens', 'How to get there'] }],
    forms: [CONTACT, MISSING],
    pages: [
      page('Home', { ...off, purpose: 'A stranger understands in ten seconds what this is, and what to do next.' }),
      page('What we do', {}, [
        page('Our work'),
        page('Results', { sections: ['Last year in figures', 'What people say'] }),
      ]),
      page('Who we are', {}, [page('History'), page('People'), page('Partners')]),
      page('Take part', {}, [
        page('Become a member', { sections: ['What members get', 'What it costs', 'How to join'] }),
        page('Volunteer'),
        page('Give'),
      ]),
      page('Dates', {}, [page('Yearly meeting', { kind: 'Event', sections: ['When and where', 'What is decided'] })]),
      page('News'),
      page('Contact', { sections: ['Write or call', 'Where we are'], form: 'Contact' }),
      LEGAL,
      THANK_YOU,
      NOT_FOUND,
    ],
  },
};
