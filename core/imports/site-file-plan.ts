import type { SiteFile } from '../formats/site-json.ts';
import { canonicalJson } from '../model/canonical-json.ts';
import { frameChange, fromKeptFrame } from '../model/frame.ts';
import type { PageId } from '../model/ids.ts';
import { type Site, maybeNodeAt } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import type { BroughtPage } from './brought-page.ts';
import { type ImportItem, matched, planAudiences, planPages, planSettings, type TellRefused } from './import-plan.ts';

/**
 * What it takes to make a site what a site file says: audiences and labels, which pages name; the pages; what names pages, menus before
 * the layouts that they stand in; and last what pages say of their frame. What the file does not say at all stays. `newId` makes ids.
 * Law: the file of a site asks for nothing there.
 */
export function planSiteFile(
  site: Site,
  file: SiteFile,
  pages: readonly BroughtPage[],
  newId: () => PageId,
  tellRefused?: TellRefused,
): ImportItem[] {
  const audiences = planAudiences(site, file);
  const ids = matched(audiences.site, pages, newId);
  const items = [
    ...audiences.items,
    ...planPages(audiences.site, pages, ids, tellRefused),
    ...planSettings(audiences.site, file),
  ];
  let at = audiences.site;
  for (const { kind, operation } of items) {
    const outcome = kind === 'removed' ? null : applyOperation(at, operation);
    if (outcome?.ok) at = outcome.site;
  }
  const add = (item: Pick<ImportItem, 'key' | 'kind' | 'page' | 'title' | 'fields'>, operation: Operation) => {
    const outcome = applyOperation(at, operation);
    if (!outcome.ok || outcome.site === at) return;
    items.push({ ...item, line: null, operation });
    at = outcome.site;
  };
  /** `said` by the file, and what is there already, if anything. */
  const setting = <Value>(
    key: string,
    title: string,
    said: Value,
    is: Value | undefined,
    operation: (is: Value | undefined) => Operation,
  ) => {
    if (canonicalJson(said) !== canonicalJson(is))
      add({ key: `settings ${key}`, kind: 'settings', page: null, title, fields: [] }, operation(is));
  };
  const here = <One extends { readonly id: string }>(all: readonly One[], id: string) =>
    all.find((one) => one.id === id);

  const {
    facts = [],
    shared = [],
    forms = [],
    menus = [],
    layouts = [],
    redirects = [],
    look,
    hosts,
    trail,
    timeZone,
  } = inIds(file, ids);
  const { settings } = at;
  for (const said of facts) {
    const { id, name: title, ...fields } = said;
    setting(`fact ${id}`, `Fact: ${title}`, said, here(settings.facts, id), (is) =>
      is
        ? { name: 'fact.set', fact: id, fields: { title, ...fields } }
        : { name: 'fact.add', fact: id, title, ...fields },
    );
  }
  for (const said of shared) {
    const { id, name: title, content } = said;
    setting(`shared ${id}`, `Shared section: ${title}`, said, here(settings.shared, id), (is) =>
      is
        ? { name: 'shared.set', shared: id, fields: { title, content } }
        : { name: 'shared.add', shared: id, title, content },
    );
  }
  for (const said of forms) {
    const { id, name: title, ...fields } = said;
    setting(`form ${id}`, `Form: ${title}`, said, here(settings.forms, id), (is) =>
      is
        ? { name: 'form.set', form: id, fields: { title, ...fields } }
        : { name: 'form.add', form: id, title, settings: fields },
    );
  }
  for (const said of menus) {
    const { id, name: title, ...fields } = said;
    setting<object>(`menu ${id}`, `Menu: ${title}`, said, here(settings.menus, id), (is) =>
      is ? { name: 'menu.set', menu: id, fields: { title, ...fields } } : { name: 'menu.add', menu: id, title, fields },
    );
  }
  for (const said of layouts) {
    const { id, name: title, ...fields } = said;
    setting(`layout ${id}`, `Layout: ${title}`, said, here(settings.layouts, id), (is) =>
      is
        ? { name: 'layout.set', layout: id, fields: { title, ...fields } }
        : { name: 'layout.add', layout: id, title, fields },
    );
  }
  redirects.forEach((said, index) => {
    const { id, from, to } = said;
    // As it was: one may rest, since a page has its address.
    const after = redirects[index - 1]?.id ?? null;
    setting(`redirect ${id}`, `Redirect: ${from}`, said, here(settings.redirects, id), (is) =>
      is ? { name: 'redirect.set', redirect: id, to } : { name: 'redirect.add', redirect: id, from, to, after },
    );
  });
  if (look)
    setting('look', 'The look of the site', look, settings.look, () => ({ name: 'site.set', fields: { look } }));
  if (hosts)
    setting('hosts', 'Hosts of outside frames', hosts, settings.hosts, () => ({ name: 'site.set', fields: { hosts } }));
  if (trail)
    setting('trail', 'The trail of the site', trail, settings.trail, () => ({ name: 'site.set', fields: { trail } }));
  if (timeZone)
    setting('time zone', `Time zone: ${timeZone}`, timeZone, settings.timeZone, () => ({
      name: 'site.set',
      fields: { timeZone },
    }));
  // Files that were written before there were layouts say nothing of frames.
  if (file.layouts)
    file.pages.forEach(({ frame = {} }, index) => {
      const id = ids[index]!;
      const node = maybeNodeAt(at, id);
      const said = fromKeptFrame(frame);
      if (!node || canonicalJson(said) === canonicalJson(node.frame)) return;
      const change = frameChange(node.frame, said);
      const title = textIn(node.title, site.settings.language);
      add(
        { key: `frame ${id}`, kind: 'changed', page: id, title, fields: Object.keys(change) },
        { name: 'page.set', page: id, fields: { frame: change } },
      );
    });
  return items;
}

type Said = Pick<
  SiteFile,
  'facts' | 'shared' | 'forms' | 'look' | 'hosts' | 'menus' | 'layouts' | 'redirects' | 'trail' | 'timeZone'
>;

const NAMES_A_PAGE: ReadonlySet<string> = new Set(['page', 'id', 'under', 'leadsTo', 'policy']);

/** What a file says of menus, layouts and the like, with the pages of the site that those of the file are. */
function inIds(
  { pages, facts, shared, forms, look, hosts, menus, layouts, redirects, trail, timeZone }: SiteFile,
  ids: readonly PageId[],
): Said {
  const said: Said = { facts, shared, forms, look, hosts, menus, layouts, redirects, trail, timeZone };
  const others = new Map(pages.flatMap(({ id }, index) => (id === ids[index] ? [] : [[id as string, ids[index]!]])));
  if (others.size === 0) return said;
  // A page is named by these, and an entry of a menu that is a page's bears its id.
  const read = (key: string, value: unknown): unknown =>
    typeof value === 'string' && NAMES_A_PAGE.has(key) ? (others.get(value) ?? value) : value;
  return JSON.parse(JSON.stringify(said), read) as Said;
}
