import { planRelease, waitingPages } from '#core/changes/release-plan.ts';
import { type TextDocument, contentIdOf } from '#core/model/content.ts';
import { type ContentId, type PageId, toPageId, toSiteKey } from '#core/model/ids.ts';
import type { Place } from '#core/model/place.ts';
import { type Site, makeSite, newSettings } from '#core/model/site.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { Operation } from '#core/operations/operation.ts';
import { demoDocument } from './demo-text.ts';
import type { DemoNode } from './demo-tree.ts';

type AddOperation = Extract<Operation, { name: 'page.add' }>;

/** Operations that add demo nodes in order, with the texts that they name. Ids are counted, so that they are the same each time. */
export class DemoBuilder {
  readonly documents = new Map<ContentId, TextDocument>();
  readonly #ids = new Map<string, PageId>();
  readonly #prefix: string;

  constructor(prefix: string) {
    this.#prefix = prefix;
  }

  idOf(title: string): PageId {
    const id = this.#ids.get(title);
    if (id === undefined) throw new Error(`The demo data has no page ‘${title}’.`);
    return id;
  }

  /** Links stand last, when the pages that they lead to are there; each takes its place by its neighbours. */
  add(nodes: readonly DemoNode[], top: PageId | null): AddOperation[] {
    const adding: AddOperation[] = [];
    const links: AddOperation[] = [];
    const walk = (siblings: readonly DemoNode[], above: PageId | null) => {
      let previous: PageId | null = null;
      siblings.forEach((node, index) => {
        const id = toPageId(`${this.#prefix}${String(this.#ids.size + 1).padStart(3, '0')}`);
        this.#ids.set(node.title, id);
        const isLink = node.type === 'link';
        const after = index === 0 && siblings !== nodes ? null : (previous ?? undefined);
        (isLink ? links : adding).push(this.#operation(node, id, { parent: above, after }));
        if (!isLink) previous = id;
        walk(node.below, id);
      });
    };
    walk(nodes, top);
    return [...adding, ...links];
  }

  contentOf(blocks: readonly string[]) {
    const document = demoDocument(blocks);
    const id = contentIdOf(document);
    this.documents.set(id, document);
    return id;
  }

  #operation(node: DemoNode, page: PageId, place: Place): AddOperation {
    const { label, description, offMenus, hidden } = node.options;
    return {
      name: 'page.add',
      page,
      place,
      type: node.type,
      title: { en: node.title },
      label: label ? { en: label } : undefined,
      description: description ? { en: description } : undefined,
      inMenus: !offMenus,
      hidden,
      target: node.leadsTo && ('url' in node.leadsTo ? node.leadsTo : { page: this.idOf(node.leadsTo.title) }),
      content: node.text.length > 0 ? this.contentOf(node.text) : undefined,
    };
  }
}

/** A site of demo nodes with rules of access, all of it live but what is hidden. */
export function buildLiveSite(
  key: string,
  name: string,
  builder: DemoBuilder,
  nodes: readonly DemoNode[],
  rules: (idOf: (title: string) => PageId, site: Site) => readonly Operation[] = () => [],
): Site {
  const empty = makeSite(toSiteKey(key), { ...newSettings(name, 'en'), timeZone: 'Europe/London' }, []);
  const added = applied(empty, builder.add(nodes, null));
  const made = applied(
    added,
    rules((title) => builder.idOf(title), added),
  );
  return applied(made, [planRelease(made, { pages: waitingPages(made), retire: [] }).operation]);
}

function applied(site: Site, operations: readonly Operation[]): Site {
  const outcome = applyOperations(site, operations);
  if (!outcome.ok) throw new Error(`The demo data breaks a rule: ${outcome.code} ${JSON.stringify(outcome.params)}`);
  return outcome.site;
}
