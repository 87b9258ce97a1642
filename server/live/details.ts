import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { fieldContextOf } from '#core/fields/context.ts';
import type { FieldContext } from '#core/fields/field-type.ts';
import { detailOf, fieldsFor } from '#core/fields/values.ts';
import { labelOf } from '#core/derive/menu.ts';
import { namedBy, pagesNamed } from '#core/derive/named-by.ts';
import { fileTypeOf } from '#core/files/file.ts';
import { ruleOf } from '#core/model/access.ts';
import type { FileId } from '#core/files/file.ts';
import type { PageId } from '#core/model/ids.ts';
import type { KindField } from '#core/model/kind-field.ts';
import { dayIn } from '#core/model/moment-words.ts';
import { nodeAt } from '#core/model/site.ts';
import { type Html, type Markup, markup } from './html.ts';
import { type LiveView, isNamed, lockOf, pathOf } from './live-view.ts';
import { renderDownload, renderPicture } from './with-files.ts';

const contexts = new WeakMap<LiveView, FieldContext>();

/** What saying values needs, as a visitor has the site: pages that are hidden from them have no titles. */
export function fieldContext(view: LiveView): FieldContext {
  const { site, at, files, derived } = view;
  let context = contexts.get(view);
  if (!context) {
    const all = fieldContextOf(site, dayIn(site.settings.timeZone, at), (file) => files.get(file)?.name);
    const isSeen = (page: PageId): boolean => {
      const row = derived.outline.rowOf.get(page);
      return row !== undefined && isNamed(view, row);
    };
    context = {
      ...all,
      titleOf: (page) => (isSeen(page) ? all.titleOf(page) : undefined),
      pagesTitled: (title) => all.pagesTitled(title).filter(isSeen),
    };
    contexts.set(view, context);
  }
  return context;
}

/** What a page says in the fields that visitors see, in their order. */
export function shownDetails(view: LiveView, page: PageId): { readonly field: KindField; readonly value: string }[] {
  const { labels } = view.site.settings;
  const { details, access } = nodeAt(view.site, page);
  return fieldsFor(ruleOf({ access }).labels, labels).flatMap((field) => {
    const value = field.isForVisitors ? detailOf(details, field, fieldContext(view)) : null;
    return value === null ? [] : [{ field, value }];
  });
}

/** The fields of a page with what it says in them; nothing where it says nothing. */
export function renderDetails(view: LiveView, page: PageId): Markup {
  const lines = shownDetails(view, page).flatMap(({ field, value }) => {
    const said = renderValue(view, field, value);
    return said === '' ? [] : [markup`<div><dt>${field.name}</dt><dd>${said}</dd></div>`];
  });
  return lines.length === 0 ? '' : markup`<dl class="fields">${lines}</dl>`;
}

/** One value as a visitor reads it; nothing where all that it names is hidden from them. */
export function renderValue(view: LiveView, field: KindField, value: string): Markup {
  const type = FIELD_TYPE[field.type];
  if (field.type === 'pages') {
    const links = pagesNamed(field, value).flatMap((page) => pageLinkOf(view, page));
    return links.length === 0 ? '' : markup`${links.map((link, at) => markup`${at === 0 ? '' : ', '}${link}`)}`;
  }
  if (field.type === 'file') {
    const file = view.files.get(value as FileId);
    if (!file) return '';
    return fileTypeOf(file.type).kind === 'picture'
      ? renderPicture(view, file, { place: 'tile', alternative: null, isFirst: false })
      : renderDownload(view, file, '');
  }
  const words = type.words(value, field, fieldContext(view));
  const to = type.leadsTo?.(value) ?? null;
  if (to !== null) return markup`<a href="${to}">${words}</a>`;
  const lines = words.split('\n');
  return markup`${lines.map((line, at) => markup`${at === 0 ? '' : markup`<br>`}${line}`)}`;
}

function pageLinkOf(view: LiveView, page: PageId): Html[] {
  const { site, derived, place } = view;
  const row = derived.outline.rowOf.get(page);
  if (row === undefined || !isNamed(view, row)) return [];
  const address = derived.addresses[row] ?? null;
  const title = labelOf(site, derived.outline.nodes[row]!);
  return [
    address === null ? markup`${title}` : markup`<a href="${pathOf(place, address)}">${title}${lockOf(view, page)}</a>`,
  ];
}

/** The pages that name this one, under the headings of the fields in which they do; those that the visitor may not open are not even counted. */
export function renderNamings(view: LiveView, page: PageId): Markup[] {
  const { site, derived, locked } = view;
  return namedBy(site, page).flatMap(({ field, rows }, at) => {
    if (field.backName === '' || !field.isForVisitors) return [];
    const seen = rows.filter((row) => isNamed(view, row) && locked[row] === 0);
    if (seen.length === 0) return [];
    const items = seen.map((row) => markup`<li>${pageLinkOf(view, derived.outline.nodes[row]!.id)}</li>`);
    return [
      markup`<section class="named-by" aria-labelledby="named-by-${at}"><h2 id="named-by-${at}">${field.backName}</h2><ul>${items}</ul></section>`,
    ];
  });
}
