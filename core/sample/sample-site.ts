import { generateNKeysBetween } from 'fractional-indexing';
import { NO_RULE, labelIdSchema } from '../model/access.ts';
import type { Details } from '../model/details.ts';
import { NO_FRAME } from '../model/frame.ts';
import { type PageId, toPageId, toSiteKey } from '../model/ids.ts';
import { type FieldId, type FieldTypeName, NO_FIELD_SETTINGS, fieldIdSchema } from '../model/kind-field.ts';
import { STANDARD_LAYOUT } from '../model/layout.ts';
import { type Look, SCHEME_NAMES, type SchemeName } from '../model/look.ts';
import { newMenu, toMenuId } from '../model/menu.ts';
import { type SiteNode, nodeOf } from '../model/node.ts';
import type { PageKind } from '../model/page-label.ts';
import type { PageValues } from '../model/page-fields.ts';
import { type Site, makeSite, newSettings } from '../model/site.ts';
import { slugFromTitle } from '../model/slug.ts';
import {
  FORM_FIELD_TYPES,
  type FormField,
  type FormFieldType,
  NO_FORM_FIELD_SETTINGS,
  NO_FORM_SETTINGS,
  type SiteForm,
  formIdSchema,
} from '../model/site-form.ts';

/** The page that all samples stand on. */
export const SAMPLE_PAGE = toPageId('sample');

/** The forms in the samples of a scheme: one that was sent and came back, and one that was accepted. */
export const sampleForms = (scheme: SchemeName) => ({
  refused: formIdSchema.parse(`refused${scheme}`),
  accepted: formIdSchema.parse(`accepted${scheme}`),
});
/** The fields of the form that came back in which something is wrong. */
export const WRONG_FIELDS = new Set<FormFieldType>(['text', 'mail', 'choice']);

const FIELD_NAMES: Readonly<Record<FormFieldType, string>> = {
  text: 'Your name',
  longText: 'What we should know',
  number: 'How many are you',
  money: 'What you would give',
  yesNo: 'I have read the rules of the quay',
  choice: 'Deck',
  day: 'Day',
  moment: 'Time of arrival',
  period: 'From when until when',
  telephone: 'Telephone',
  mail: 'Mail address',
  link: 'Your site',
  address: 'Address',
  place: 'Place of departure',
  file: 'A picture of the cow',
  pages: 'Crossings',
};
const CHOICES = [
  { id: 'upper', name: 'Upper deck' },
  { id: 'lower', name: 'Lower deck' },
];

const formFields = (): FormField[] =>
  FORM_FIELD_TYPES.map((type, at) => ({
    ...NO_FORM_FIELD_SETTINGS,
    id: fieldIdSchema.parse(type),
    name: FIELD_NAMES[type],
    type,
    help: type === 'longText' ? 'In a few words; nobody outside the office reads it.' : '',
    isRequired: WRONG_FIELDS.has(type),
    unit: type === 'number' ? 'people' : '',
    choices: type === 'choice' ? CHOICES : [],
    isSeveral: type === 'pages',
    step: at === 0 ? 'About you' : type === 'day' ? 'About the crossing' : null,
  }));

const CROSSING = labelIdSchema.parse('crossing');
const field = (id: string, name: string, type: FieldTypeName, more: object = {}) => ({
  ...NO_FIELD_SETTINGS,
  id: fieldIdSchema.parse(id),
  name,
  type,
  ...more,
});
const KIND: PageKind = {
  id: CROSSING,
  name: 'Crossing',
  rule: {},
  about: 'event',
  fields: [
    field('leaves', 'Leaves', 'day'),
    field('price', 'Price', 'money'),
    field('deck', 'Deck', 'choice', { choices: CHOICES }),
    field('ask', 'Ask at', 'mail'),
  ],
};
const ofKind = (details: Record<string, string>): Partial<PageValues> => ({
  access: { ...NO_RULE, labels: [CROSSING] },
  frame: { ...NO_FRAME, date: details.leaves! },
  details: details as Record<FieldId, string> as Details,
});

interface Planted {
  readonly id: string;
  readonly title: string;
  readonly values?: Partial<PageValues>;
  readonly below?: readonly Planted[];
}
/** @param dayIn the day so many days after the one on which somebody looks */
const pagesFrom = (dayIn: (days: number) => string): readonly Planted[] => [
  { id: 'home', title: 'Home' },
  {
    id: 'crossing',
    title: 'Crossings',
    below: [
      {
        id: 'sample',
        title: 'Sample page',
        values: ofKind({ leaves: dayIn(1), price: '12 EUR', deck: 'upper', ask: 'office@quay.example' }),
        below: [{ id: 'below', title: 'A page below', values: { description: { en: 'What its description says.' } } }],
      },
      {
        id: 'early',
        title: 'The early boat',
        values: ofKind({ leaves: dayIn(2), price: '9.5 EUR', deck: 'lower' }),
      },
      { id: 'late', title: 'The late boat', values: ofKind({ leaves: dayIn(9), price: '14 EUR', deck: 'upper' }) },
    ],
  },
  { id: 'visit', title: 'Your visit', below: [{ id: 'way', title: 'The way here' }] },
  { id: 'contact', title: 'Contact' },
];

const nodesBelow = (parent: PageId | null, planted: readonly Planted[]): SiteNode[] => {
  const orders = generateNKeysBetween(null, null, planted.length);
  return planted.flatMap(({ id, title, values, below = [] }, at) => [
    nodeOf(
      { id: toPageId(id), parent, order: orders[at]! },
      {
        title: { en: title },
        slug: { en: { text: slugFromTitle(title), own: false } },
        description: { en: 'What its description says.' },
        inAddress: true,
        ...values,
      },
    ),
    ...nodesBelow(toPageId(id), below),
  ]);
};

const DAY_MS = 86_400_000;

/**
 * A small made-up site in a look, with whatever the sample page needs around it.
 * @param at when somebody looks, in milliseconds since 1970: what happens there does so in the days after
 */
export function sampleSite(look: Look, name: string, at: number): Site {
  // Not the menu beside the text: it would leave less room for it.
  const menus = (['utility', 'header', 'footer'] as const).map((slot) => newMenu(toMenuId(slot), slot));
  const [utility, header, footer] = menus.map(({ id }) => id);
  const settings = newSettings(name, 'en');
  const forms = SCHEME_NAMES.flatMap((scheme): SiteForm[] => {
    const { refused, accepted } = sampleForms(scheme);
    const thanks = 'Thank you. This stands where a form was sent.';
    return [
      { ...NO_FORM_SETTINGS, id: refused, name: `A form, ${scheme}`, fields: formFields() },
      { ...NO_FORM_SETTINGS, id: accepted, name: `Another form, ${scheme}`, fields: formFields().slice(0, 1), thanks },
    ];
  });
  return makeSite(
    toSiteKey('sample'),
    {
      ...settings,
      look,
      forms,
      labels: [KIND],
      hosts: ['player.example'],
      menus: [...menus],
      layouts: [
        {
          ...STANDARD_LAYOUT,
          menus: { utility: utility!, header: header!, side: null, footer: footer! },
          hasTurns: true,
        },
      ],
      facts: settings.facts.map((fact) => ({
        ...fact,
        text: fact.id === 'mail' ? 'office@quay.example' : fact.id === 'telephone' ? '+44 1632 960 001' : fact.text,
      })),
    },
    nodesBelow(
      null,
      pagesFrom((days) => new Date(at + days * DAY_MS).toISOString().slice(0, 10)),
    ),
  );
}
