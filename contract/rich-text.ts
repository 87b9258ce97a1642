import { Extension, type Extensions, Node, getSchema, mergeAttributes } from '@tiptap/core';
import Document from '@tiptap/extension-document';
import StarterKit from '@tiptap/starter-kit';
import { z } from 'zod';
import { factIdSchema } from '#core/model/fact.ts';
import { audienceIdSchema, MAX_AUDIENCES } from '#core/model/audience.ts';
import { AUDIENCE_SECTION, DETAIL, FACT, type SectionRule } from '#core/model/content.ts';
import { pageIdSchema } from '#core/model/ids.ts';
import { fieldIdSchema } from '#core/model/kind-field.ts';
import { boxIdSchema } from '#core/model/sketch.ts';
import { PLANNED_BOX, STAND_FOR_BOXES } from '#core/sections/planned-box.ts';
import { sectionNodes } from './section-nodes.ts';

const audienceList = z.array(audienceIdSchema).max(MAX_AUDIENCES);
const onlySchema = audienceList.nullable();

/** A list of audiences as an attribute; what is none is refused when a document is checked. */
const listAttribute = (name: keyof SectionRule, empty: SectionRule['only'], schema: z.ZodType) => ({
  default: empty,
  validate: (value: unknown) => {
    if (!schema.safeParse(value).success) throw new RangeError(`'${name}' of a section is a list of audience ids`);
  },
  parseHTML: (element: HTMLElement) => {
    const ids = element.getAttribute(`data-${name}`);
    return ids === null ? empty : ids.split(' ').filter(Boolean);
  },
  renderHTML: (attributes: Record<string, unknown>) =>
    attributes[name] === null ? {} : { [`data-${name}`]: (attributes[name] as string[]).join(' ') },
});

/** A section of a text for some audiences. It stands at the top of the document, never in another one. */
export const AudienceSection = Node.create({
  name: AUDIENCE_SECTION,
  content: '(block | section)+',
  defining: true,
  isolating: true,
  addAttributes: () => ({
    only: listAttribute('only', null, onlySchema),
    except: listAttribute('except', [], audienceList),
  }),
  parseHTML: () => [{ tag: 'section[data-except]' }],
  renderHTML: ({ HTMLAttributes }) => ['section', mergeAttributes(HTMLAttributes), 0],
});

/** A fact of the site within a text: visitors read what the fact says then. */
export const FactInText = Node.create({
  name: FACT,
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({
    id: {
      default: null,
      validate: (value: unknown) => {
        if (!factIdSchema.safeParse(value).success) throw new RangeError('a fact in a text is named by its id');
      },
      parseHTML: (element: HTMLElement) => element.getAttribute('data-fact'),
      renderHTML: (attributes: Record<string, unknown>) => ({ 'data-fact': String(attributes.id) }),
    },
  }),
  parseHTML: () => [{ tag: 'span[data-fact]' }],
  renderHTML: ({ HTMLAttributes }) => ['span', mergeAttributes(HTMLAttributes)],
});

/** What a page says in a field, within a text: visitors read what it says then, if it is for them. */
export const DetailInText = Node.create({
  name: DETAIL,
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({
    field: {
      default: null,
      validate: (value: unknown) => {
        if (!fieldIdSchema.safeParse(value).success) throw new RangeError('a field in a text is named by its id');
      },
      parseHTML: (element: HTMLElement) => element.getAttribute('data-detail'),
      renderHTML: (attributes: Record<string, unknown>) => ({ 'data-detail': String(attributes.field) }),
    },
    page: {
      default: null,
      validate: (value: unknown) => {
        if (!pageIdSchema.nullable().safeParse(value).success)
          throw new RangeError('the page of a field in a text is named by its id');
      },
      parseHTML: (element: HTMLElement) => element.getAttribute('data-of') || null,
      renderHTML: ({ page }: Record<string, unknown>) => ({ 'data-of': typeof page === 'string' ? page : '' }),
    },
  }),
  parseHTML: () => [{ tag: 'span[data-detail]' }],
  renderHTML: ({ HTMLAttributes }) => ['span', mergeAttributes(HTMLAttributes)],
});

/** In the HTML of the editor: the box of a sketch that an element stands for. Visitors do not get it. */
const BOX_DATA = 'data-box';

/** Parts of a text that stand for a box of a sketch say which. */
export const PlannedBoxes = Extension.create({
  name: 'plannedBoxes',
  addGlobalAttributes: () => [
    {
      types: [...STAND_FOR_BOXES],
      attributes: {
        [PLANNED_BOX]: {
          default: null,
          keepOnSplit: false,
          validate: (value: unknown) => {
            if (!boxIdSchema.nullable().safeParse(value).success)
              throw new RangeError('the box of a sketch is named by its id');
          },
          parseHTML: (element: HTMLElement) => boxIdSchema.safeParse(element.getAttribute(BOX_DATA)).data ?? null,
          renderHTML: (attributes: Record<string, unknown>) =>
            attributes[PLANNED_BOX] == null ? {} : { [BOX_DATA]: String(attributes[PLANNED_BOX]) },
        },
      },
    },
  ],
});

/** What a page's text may hold: the same list in the editor, in the check on the way in, and in the rendering. */
export const textExtensions: Extensions = [
  Document.extend({ content: `(block | section | ${AUDIENCE_SECTION})+` }),
  StarterKit.configure({
    document: false,
    heading: { levels: [2, 3, 4] },
    link: {
      openOnClick: false,
      // `page:` names a page of the site; visitors get its address.
      protocols: ['http', 'https', 'mailto', 'tel', 'page'],
      HTMLAttributes: { rel: 'noopener', target: null },
    },
  }),
  AudienceSection,
  FactInText,
  DetailInText,
  PlannedBoxes,
  ...sectionNodes,
];

/** The editor's schema, for checking documents that come from outside. */
export const textSchema = getSchema(textExtensions);
