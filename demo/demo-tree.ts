import type { Hidden } from '#core/model/page-fields.ts';

/** A node of the demo data, with its text in a few plain signs: `## ` a heading, `- ` and `1. ` lists, `*…*` emphasis. */
export interface DemoNode {
  readonly type: 'page' | 'heading' | 'link';
  readonly title: string;
  readonly options: DemoOptions;
  readonly text: readonly string[];
  readonly below: readonly DemoNode[];
  /** For a link: an outside address, or the title of the page it leads to. */
  readonly leadsTo?: { readonly url: string } | { readonly title: string };
}
interface DemoOptions {
  readonly label?: string;
  readonly description?: string;
  readonly offMenus?: boolean;
  readonly hidden?: Hidden;
}

type Part = string | readonly DemoNode[];
const texts = (parts: readonly Part[]) => parts.filter((part) => typeof part === 'string');
const nodes = (parts: readonly Part[]) => parts.flatMap((part) => (typeof part === 'string' ? [] : part));

export const page = (title: string, options: DemoOptions, ...parts: Part[]): DemoNode => ({
  type: 'page',
  title,
  options,
  text: texts(parts),
  below: nodes(parts),
});
export const heading = (title: string, below: readonly DemoNode[]): DemoNode => ({
  type: 'heading',
  title,
  options: {},
  text: [],
  below,
});
export const outside = (title: string, url: string): DemoNode => ({
  type: 'link',
  title,
  options: {},
  text: [],
  below: [],
  leadsTo: { url },
});
export const link = (title: string, to: string): DemoNode => ({
  type: 'link',
  title,
  options: {},
  text: [],
  below: [],
  leadsTo: { title: to },
});
