import { type AnyExtension, Node } from '@tiptap/core';
import { Table, TableCell, TableHeader, TableRow } from '@tiptap/extension-table';
import { SECTIONS } from '#core/sections/all-sections.ts';
import type { Element, SectionAttribute, SectionType } from '#core/sections/section-type.ts';

/** In the HTML of the editor: which section an element is, and what is set of it. Visitors get neither. */
export const SECTION_DATA = 'data-section';
const dataOf = (attribute: string): string => `data-set-${attribute.toLowerCase()}`;

/** An attribute as the editor keeps it; what is none is refused when a document is checked. */
const attributeOf = (name: string, { schema, initial }: SectionAttribute) => ({
  default: initial,
  validate: (value: unknown) => {
    const { error } = schema.safeParse(value);
    if (error) throw new RangeError(`'${name}': ${error.issues[0]!.message}`);
  },
  parseHTML: (element: HTMLElement): unknown => {
    try {
      const value = schema.safeParse(JSON.parse(element.getAttribute(dataOf(name)) ?? 'null'));
      return value.success ? value.data : initial;
    } catch {
      return initial;
    }
  },
  renderHTML: (attributes: Record<string, unknown>) => ({ [dataOf(name)]: JSON.stringify(attributes[name]) }),
});

/** The names of the elements in which the content of a section can stand. */
function namesOfContent(html: SectionType['html'], attributes: SectionType['attributes']): string[] {
  const initial = Object.fromEntries(Object.entries(attributes).map(([name, one]) => [name, one.initial]));
  const set = Object.fromEntries(Object.keys(attributes).map((name) => [name, 'set']));
  const holding = ([tag, , ...inner]: Element): string[] =>
    inner.flatMap((one) => (one === 0 ? [tag] : Array.isArray(one) ? holding(one as unknown as Element) : []));
  return [
    ...new Set(
      [initial, set].flatMap((one) =>
        html(one)
          .slice(2)
          .flatMap((inner) => (Array.isArray(inner) ? holding(inner as unknown as Element) : [])),
      ),
    ),
  ];
}

/** A type of section as a node of the editor. */
const nodeOf = ({ type, group, content, attributes, html }: SectionType): AnyExtension => {
  const names = namesOfContent(html, attributes).join(', ');
  // What was copied stands in an element within, as it is shown; what others make may not.
  const contentElement = (element: HTMLElement): HTMLElement =>
    (names !== '' && element.querySelector<HTMLElement>(names)) || element;
  return Node.create({
    name: type,
    ...(group !== 'part' && { group }),
    content,
    atom: content === '',
    defining: true,
    isolating: group === 'section',
    draggable: group === 'section',
    addAttributes: () =>
      Object.fromEntries(Object.entries(attributes).map(([name, one]) => [name, attributeOf(name, one)])),
    // Before the rules for what such an element is by itself: a button is a paragraph, too.
    parseHTML: () => [{ tag: `[${SECTION_DATA}="${type}"]`, priority: 60, contentElement }],
    renderHTML: ({ node, HTMLAttributes }) => {
      const [tag, own, ...inner] = html(node.attrs);
      return [tag, { ...HTMLAttributes, [SECTION_DATA]: type, ...own }, ...inner] as never;
    },
  });
};

/** What cells of tables hold: words and lists, no further table. */
const CELL = '(paragraph | bulletList | orderedList)+';

/** The nodes of all sections, for the editor, for the check on the way in, and for the rendering. */
export const sectionNodes: readonly AnyExtension[] = [
  ...SECTIONS.map(nodeOf),
  Table.extend({ group: 'section' }).configure({ resizable: false }),
  TableRow,
  TableHeader.extend({ content: CELL }),
  TableCell.extend({ content: CELL }),
];

/** The elements and attributes that the sections render to. */
export function elementsOfSections(): {
  readonly tags: ReadonlySet<string>;
  readonly attributes: Readonly<Record<string, string[]>>;
} {
  const tags = new Set<string>();
  const attributes: Record<string, Set<string>> = {};
  const read = ([tag, own, ...inner]: Element): void => {
    tags.add(tag);
    for (const name of Object.keys(own)) (attributes[tag] ??= new Set()).add(name);
    for (const one of inner) if (Array.isArray(one)) read(one as unknown as Element);
  };
  for (const { html, attributes: kept } of SECTIONS) {
    const initial = Object.fromEntries(Object.entries(kept).map(([name, one]) => [name, one.initial]));
    // Some elements are there only where something is set: any text will do.
    for (const set of [initial, Object.fromEntries(Object.keys(kept).map((name) => [name, 'set']))]) read(html(set));
  }
  return { tags, attributes: Object.fromEntries(Object.entries(attributes).map(([tag, names]) => [tag, [...names]])) };
}
