import { z } from 'zod';
import { type LabelId, NO_RULE, labelIdSchema } from '../model/access.ts';
import {
  ABOUT,
  MAX_LABEL_NAME_LENGTH,
  MAX_LABELS,
  type PageLabel,
  isKind,
  kindAmong,
  labelRuleSchema,
  normalLabelRule,
} from '../model/page-label.ts';
import type { SiteNode } from '../model/node.ts';
import { type KindField, MAX_FIELDS, kindFieldSchema } from '../model/kind-field.ts';
import { contentIdSchema } from '../model/ids.ts';
import { maybeField } from '../fields/values.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import type { Site } from '../model/site.ts';
import { checkNarrowing } from './checks.ts';
import { defineOperation } from './definition.ts';
import { allBut, fieldsBefore, thingsOfSettings } from './things.ts';

const title = z.string().max(MAX_LABEL_NAME_LENGTH, `at most ${MAX_LABEL_NAME_LENGTH} characters`);

const labels = thingsOfSettings('label', 'labels', { most: MAX_LABELS, code: 'label-too-many' });

export const labelAddSchema = z.strictObject({
  name: z.literal('label.add'),
  label: labelIdSchema,
  /** The label that it follows; null puts it first, left out puts it last. */
  after: labelIdSchema.nullable().optional(),
  title,
  rule: labelRuleSchema.optional(),
  /** Makes it a kind. */
  about: z.enum(ABOUT).optional(),
  /** What its pages can say of themselves, where it comes with that. */
  fields: z.array(kindFieldSchema).max(MAX_FIELDS).optional(),
  /** What its pages begin with, where it comes with that. */
  pageOutline: contentIdSchema.optional(),
});

/** Adds a label of the site. Whoever adds it makes the id. */
export const labelAdd = defineOperation({
  schema: labelAddSchema,

  apply(site, { label, after, title: given, rule, about, fields = [], pageOutline }) {
    const made: PageLabel = {
      id: label,
      name: given.trim(),
      rule: normalLabelRule(rule ?? {}),
      ...(about !== undefined && { about }),
      ...(fields.length > 0 && { fields }),
      ...(pageOutline !== undefined && { pageOutline }),
    };
    return (
      labels.checkNew(site, label) ??
      checkLabel(site, made) ??
      checkNewFields(site, fields) ??
      labels.add(site, made, after)
    );
  },

  cells: ({ label }) => labels.cellOfThere(label),

  words: ({ title: text, about }) => `added the ${about === undefined ? 'label' : 'kind'} ‘${text}’`,
});

export const labelSetSchema = z.strictObject({
  name: z.literal('label.set'),
  label: labelIdSchema,
  /** The rule takes the place of the one before as a whole. */
  fields: z
    .strictObject({
      title,
      rule: labelRuleSchema,
      /** Null makes a kind a label like others. */
      about: z.enum(ABOUT).nullable(),
      /** The text that its pages begin with; null for none. Pages that have it already are set by themselves, in the same edit. */
      pageOutline: contentIdSchema.nullable(),
    })
    .partial(),
});

/** Renames a label, gives it another rule, or makes it a kind, or none. A label of pages that have a kind already becomes none. */
export const labelSet = defineOperation({
  schema: labelSetSchema,

  apply(site, { label, fields }) {
    const was = labels.find(site, label);
    if (!was) return labels.unknown(label);
    const about = fields.about === undefined ? was.about : (fields.about ?? undefined);
    const pageOutline = fields.pageOutline === undefined ? was.pageOutline : (fields.pageOutline ?? undefined);
    const next: PageLabel = {
      id: label,
      name: fields.title?.trim() ?? was.name,
      rule: fields.rule ? normalLabelRule(fields.rule) : was.rule,
      ...(about !== undefined && { about }),
      ...(was.fields && { fields: was.fields }),
      ...(pageOutline !== undefined && { pageOutline }),
    };
    const before = fieldsBefore(was, next);
    if (Object.keys(before).length === 0) return labels.set(site, was, was, before);
    return (
      checkLabel(site, next) ??
      (isKind(next) && !isKind(was) ? checkOnlyKind(site, label) : null) ??
      labels.set(site, was, next, before)
    );
  },

  cells: ({ label, fields }) => labels.cellsOfFields(label, fields),

  words: ({ label, fields }, site) => {
    if (fields.title !== undefined) return `renamed the label ${labels.named(site, label)} to ‘${fields.title}’`;
    if (fields.rule !== undefined) return `set who can open what is labelled ${labels.named(site, label)}`;
    if (fields.pageOutline !== undefined) return `changed the outline of ${labels.named(site, label)}`;
    return fields.about === null
      ? `made ${labels.named(site, label)} an ordinary label`
      : `made ${labels.named(site, label)} a kind of page`;
  },
});

export const labelRemoveSchema = z.strictObject({ name: z.literal('label.remove'), label: labelIdSchema });

/** Takes a label away. One that a page bears stays: no page is opened by surprise. */
export const labelRemove = defineOperation({
  schema: labelRemoveSchema,

  apply(site, { label }) {
    const was = labels.find(site, label);
    if (!was) return labels.unknown(label);
    const bears = (access: { readonly labels: readonly LabelId[] } | null) => access?.labels.includes(label) === true;
    const count =
      site.nodes.count(({ access }) => bears(access)) +
      site.live.count(({ node }, id) => bears(node.access) && !bears(site.nodes.get(id)?.access ?? null));
    if (count > 0) return refuse('label-used', { label, count });
    return labels.remove(site, was, { title: was.name, ...allBut(was, 'id', 'name') });
  },

  cells: ({ label }) => labels.cellOfThere(label),

  words: ({ label }, site) => `removed the label ${labels.named(site, label)}`,
});

const checkLabel = (site: Site, { id, name, rule }: PageLabel): Refusal | null =>
  name === '' ? refuse('label-unnamed', { label: id }) : checkNarrowing(site, id, { ...NO_RULE, ...rule });

/** No field has the id of another one: what pages say is kept by these ids. */
function checkNewFields(site: Site, fields: KindField[]): Refusal | null {
  const ids = fields.map(({ id }) => id);
  const twice = ids.find((id, at) => ids.indexOf(id) !== at || maybeField(site.settings.labels, id) !== undefined);
  return twice === undefined ? null : refuse('field-exists', { field: twice });
}

/** No page that bears the label has a kind already. */
function checkOnlyKind(site: Site, label: LabelId): Refusal | null {
  const hasAnother = ({ access }: SiteNode): boolean =>
    access !== null && access.labels.includes(label) && kindAmong(access.labels, site.settings.labels) !== null;
  const page = [...site.nodes.values()].find(hasAnother);
  return page ? refuse('kind-twice', { page: page.id }) : null;
}
