import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import type { LineFault } from '../carryover/inventory.ts';
import { type BroughtPage, type BroughtTree, MAX_BROUGHT } from '../imports/brought-page.ts';
import { pageIdSchema } from '../model/ids.ts';
import { NODE_TYPES } from '../model/page-fields.ts';
import { targetSchema } from '../model/target.ts';
import { type Site, childrenOf, nodeAt } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { CELL_FIELDS, fieldsOfCells, writeCell } from './page-cells.ts';
import { withoutDocumentType } from './sitemap-file.ts';

/** The namespace of the attributes that OPML has no word for. */
const NAMESPACE = 'https://spur.example/opml';

/** The fields that OPML has no attribute of its own for. */
const ATTRIBUTE_FIELDS = CELL_FIELDS.filter(({ name }) => name !== 'title' && name !== 'target');

/** The tree as OPML 2.0: an outline a node, with what OPML has no attribute for under `spur:`. */
export function writeOpml(site: Site): string {
  const { language } = site.settings;
  const outlineOf = (id: Parameters<typeof nodeAt>[1]): object => {
    const node = nodeAt(site, id);
    return {
      '@text': textIn(node.title, language),
      ...(node.target && 'url' in node.target && { '@type': 'link', '@url': node.target.url }),
      '@spur:id': node.id,
      ...Object.fromEntries(
        ATTRIBUTE_FIELDS.map((field) => [`@spur:${field.name}`, writeCell(field, node, language)]).filter(
          ([, text]) => text,
        ),
      ),
      ...(node.target && 'page' in node.target && { '@spur:target': node.target.page }),
      outline: childrenOf(site, id).map(outlineOf),
    };
  };
  const builder = new XMLBuilder({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    format: true,
    suppressEmptyNode: true,
    suppressBooleanAttributes: false,
  });
  return builder.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    opml: {
      '@version': '2.0',
      '@xmlns:spur': NAMESPACE,
      head: { title: site.settings.name },
      body: { outline: childrenOf(site, null).map(outlineOf) },
    },
  }) as string;
}

type Outline = Readonly<Record<string, unknown>>;

/** Reads a tree from OPML, of any program: outlines with their texts; what Spur wrote comes back whole. */
export function readOpml(xml: string): BroughtTree {
  const wrong = withoutDocumentType(xml, 'OPML');
  if (wrong) return { ok: false, faults: [wrong] };
  const valid = XMLValidator.validate(xml);
  if (valid !== true)
    return { ok: false, faults: [{ line: valid.err.line, detail: `This is not well-formed XML: ${valid.err.msg}` }] };
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    parseAttributeValue: false,
    // Only the five entities of XML, and numbers: a document type is refused above.
    processEntities: true,
    isArray: (name) => name === 'outline',
  });
  const tree = parser.parse(xml) as { opml?: { body?: { outline?: Outline[] } | '' } };
  if (!tree.opml)
    return { ok: false, faults: [{ line: 1, detail: 'An OPML file begins with <opml>; this one does not.' }] };
  const body = tree.opml.body;
  const pages: BroughtPage[] = [];
  const notes: LineFault[] = [];
  const ids = new Set<string>();
  const walk = (outlines: readonly Outline[], parent: number | null) => {
    for (const outline of outlines) {
      const line = pages.length + 1;
      const page = broughtOutline(outline, line, parent, notes);
      if (page.id !== null && ids.has(page.id)) {
        notes.push({ line, detail: `The id ‘${page.id}’ appears twice; this outline gets a new one.` });
        pages.push({ ...page, id: null });
      } else pages.push(page);
      if (page.id !== null) ids.add(page.id);
      if (pages.length > MAX_BROUGHT) return;
      walk((outline.outline as Outline[] | undefined) ?? [], line - 1);
    }
  };
  walk((typeof body === 'object' && body.outline) || [], null);
  if (pages.length > MAX_BROUGHT)
    return {
      ok: false,
      faults: [{ line: MAX_BROUGHT + 1, detail: `At most ${MAX_BROUGHT} outlines can be imported at once.` }],
    };
  return { ok: true, pages, notes };
}

function broughtOutline(outline: Outline, line: number, parent: number | null, notes: LineFault[]): BroughtPage {
  const attribute = (name: string): string | undefined => {
    const value = outline[`@${name}`];
    return typeof value === 'string' ? value : undefined;
  };
  const id = pageIdSchema.safeParse(attribute('spur:id'));
  const url = attribute('url') ?? attribute('htmlUrl');
  const page = attribute('spur:target');
  const target = targetSchema.safeParse(page !== undefined ? { page } : { url });
  const isLink = attribute('spur:type') === 'link' || (attribute('spur:type') === undefined && target.success);
  const title = attribute('text') ?? attribute('title') ?? '';
  if (title.trim() === '') notes.push({ line, detail: `Outline ${line} has no text; it is called ‘Untitled’.` });
  const note = (detail: string) => notes.push({ line, detail });
  return {
    line,
    id: id.success ? id.data : null,
    parent,
    fields: {
      ...fieldsOfCells((_, name) => attribute(`spur:${name}`), note),
      type:
        isLink && target.success ? 'link' : NODE_TYPES.find((one) => one === attribute('spur:type') && one !== 'link'),
      title: title.trim() === '' ? 'Untitled' : title,
      target: isLink && target.success ? target.data : undefined,
    },
  };
}
