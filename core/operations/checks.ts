import { type AccessRule, audiencesIn } from '../model/access.ts';
import { isBuiltIn } from '../model/audience.ts';
import type { PageFrame } from '../model/frame.ts';
import { FIELD_TYPE } from '../fields/all-types.ts';
import { maybeField } from '../fields/values.ts';
import type { DetailsChange } from '../model/details.ts';
import type { PageId } from '../model/ids.ts';
import type { FieldId } from '../model/kind-field.ts';
import type { NodeType } from '../model/page-fields.ts';
import { isKind } from '../model/page-label.ts';
import type { Target } from '../model/target.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { scopeBelow } from '../model/address-scope.ts';
import { type Site, homeOf, maybeNodeAt } from '../model/site.ts';
import { isReservedSlug, type Slugs, isSlug } from '../model/slug.ts';

/** The node, or the refusal that says that it is not there or was removed. */
export function checkStands(site: Site, page: PageId): Refusal | null {
  const node = site.nodes.get(page);
  if (!node) return refuse('page-unknown', { page });
  return node.removedWith === null ? null : refuse('page-removed', { page });
}

/** Slugs that an inverse gives back are held to the shape of a slug too: they may come from outside. */
export function checkRestored(restores: Readonly<Record<PageId, Slugs>> | undefined): Refusal | null {
  for (const [page, slugs] of Object.entries(restores ?? {}) as [PageId, Slugs][]) {
    const wrong = Object.values(slugs).find((slug) => !isSlug(slug.text));
    if (wrong) return refuse('slug-shape', { page, slug: wrong.text });
  }
  return null;
}

/**
 * Chosen slugs must be fit for an address and not be one that the visitors' side needs for itself. One that is restored
 * may be: the node had it where it added no step, or where its step was not at the root.
 */
export function checkSlugs(
  site: Site,
  page: PageId,
  slugs: Slugs | undefined,
  parent: PageId | null,
  isRestored: boolean,
): Refusal | null {
  for (const slug of Object.values(slugs ?? {})) {
    if (!slug.own) continue;
    if (!isSlug(slug.text)) return refuse('slug-shape', { page, slug: slug.text });
    if (!isRestored && isReservedSlug(slug.text, scopeBelow(site, parent, homeOf(site)) === null))
      return refuse('slug-reserved', { page, slug: slug.text });
  }
  return null;
}

/** A link points somewhere; nothing else does; and the page that it points at stands in the tree, unless the link is restored. */
export function checkTarget(
  site: Site,
  page: PageId,
  type: NodeType,
  target: Target | null | undefined,
  isRestored: boolean,
): Refusal | null {
  if (type !== 'link') return target ? refuse('target-not-for-this', { page }) : null;
  if (!target) return refuse('target-missing', { page });
  if (!isRestored && 'page' in target && (target.page === page || maybeNodeAt(site, target.page)?.type !== 'page'))
    return refuse('target-unknown', { page, target: target.page });
  return null;
}

/** What a page says in a field is a value of the field's type, in its one form. Nothing is asked of what is taken away. */
export function checkDetails(site: Site, page: PageId, change: DetailsChange | undefined): Refusal | null {
  for (const [id, value] of Object.entries(change ?? {}) as [FieldId, string | null][]) {
    const field = maybeField(site.settings.labels, id)?.field;
    if (value === null) continue;
    if (!field) return refuse('field-unknown', { field: id });
    const type = FIELD_TYPE[field.type];
    if (!type.isValue(value, field))
      return refuse('field-value', { page, field: field.name, expects: type.expects(field) });
  }
  return null;
}

/** A rule names audiences and labels that there are, one kind at most, and a window that is open for a while. */
export function checkAccess(site: Site, page: PageId, rule: AccessRule | null): Refusal | null {
  if (rule === null) return null;
  const label = rule.labels.find((id) => !site.settings.labels.some((one) => one.id === id));
  if (label !== undefined) return refuse('label-unknown', { label });
  const kinds = site.settings.labels.filter((one) => isKind(one) && rule.labels.includes(one.id));
  if (kinds.length > 1) return refuse('kind-twice', { page });
  return checkNarrowing(site, page, rule);
}

/** A frame names a layout that there is. */
export function checkFrame(site: Site, frame: PageFrame | null): Refusal | null {
  const layout = frame?.layout ?? null;
  return layout === null || site.settings.layouts.some(({ id }) => id === layout)
    ? null
    : refuse('layout-unknown', { layout });
}

/** What narrows, of a page's rule or of a label's. `of` is the page or label, for the refusal. */
export function checkNarrowing(
  site: Site,
  of: string,
  { only, except, from, until }: Pick<AccessRule, 'only' | 'except' | 'from' | 'until'>,
): Refusal | null {
  const unknown = audiencesIn({ only, except }).find(
    (id) => !isBuiltIn(id) && !site.settings.audiences.some((audience) => audience.id === id),
  );
  if (unknown !== undefined) return refuse('audience-unknown', { audience: unknown });
  return from !== null && until !== null && Date.parse(from) >= Date.parse(until)
    ? refuse('window-empty', { page: of })
    : null;
}
