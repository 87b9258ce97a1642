import { z } from 'zod';
import type { ContentId, PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import {
  type NodesWire,
  exceptions,
  nodesWire,
  packSite,
  packedSiteSchema,
  textsWire,
  unpackSite,
} from './packed-site.ts';

/**
 * The columns that have a value in every row, each as one text: a browser reads and checks ten texts sooner than a hundred thousand
 * values. Values are parted by spaces, titles by line ends.
 */
const columnsWire = nodesWire
  .omit({ id: true, parent: true, order: true, signs: true, title: true, content: true })
  .extend({
    id: z.string(),
    parent: z.string(),
    order: z.string(),
    /** One letter a row: the letter 0 and as many further as the number says. */
    signs: z.string(),
    title: z.string(),
    /** In place of the title, by row: texts in other languages than the site's, and those with line ends. */
    otherTitle: exceptions(textsWire),
    content: z.string(),
  });
type ColumnsWire = z.infer<typeof columnsWire>;

/** A site as it passes to the browser. */
export const sentTreeSchema = packedSiteSchema.extend({ nodes: columnsWire, liveNodes: columnsWire });
export type SentTree = z.infer<typeof sentTreeSchema>;

/** A site for the browser. `readTree` gives back the same one. */
export function sendTree(site: Site, revision: number): SentTree {
  const { nodes, liveNodes, ...rest } = packSite(site, revision);
  return { ...rest, nodes: joined(nodes), liveNodes: joined(liveNodes) };
}

/** The site that was sent. @throws Error where the columns have not as many rows as each other */
export function readTree({ nodes, liveNodes, ...rest }: SentTree): Site {
  return unpackSite({ ...rest, nodes: parted(nodes), liveNodes: parted(liveNodes) });
}

const FIRST_SIGN = '0'.charCodeAt(0);

function joined({ id, parent, order, signs, title, content, ...rest }: NodesWire): ColumnsWire {
  const otherTitle: ColumnsWire['otherTitle'] = {};
  const titles = title.map((one, row) => {
    if (typeof one === 'string' && !one.includes('\n')) return one;
    otherTitle[row] = one;
    return '';
  });
  return {
    ...rest,
    id: id.join(' '),
    parent: parent.join(' '),
    order: order.join(' '),
    signs: signs.map((one) => String.fromCharCode(FIRST_SIGN + one)).join(''),
    title: titles.join('\n'),
    otherTitle,
    content: content.join(' '),
  };
}

function parted({ id, parent, order, signs, title, otherTitle, content, ...rest }: ColumnsWire): NodesWire {
  const ids = partedAt(id, ' ') as PageId[];
  // One title that is empty and none at all are the same text.
  const titles: NodesWire['title'] = ids.length === 0 ? [] : title.split('\n');
  for (const [row, one] of Object.entries(otherTitle)) titles[Number(row)] = one;
  const columns = {
    id: ids,
    parent: partedAt(parent, ' ').map(Number),
    order: partedAt(order, ' '),
    signs: Array.from(signs, (_, row) => signs.charCodeAt(row) - FIRST_SIGN),
    title: titles,
    content: partedAt(content, ' ').map((one) => (one === '0' ? 0 : (one as ContentId))),
  };
  const faulty = Object.entries(columns).find(([, column]) => column.length !== ids.length);
  if (faulty)
    throw new Error(`The column ‘${faulty[0]}’ of the tree has ${faulty[1].length} rows in place of ${ids.length}.`);
  return { ...rest, ...columns };
}

const partedAt = (column: string, sign: string): string[] => (column === '' ? [] : column.split(sign));
