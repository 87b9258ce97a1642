import { z } from 'zod';
import { type LabelId, NO_RULE, labelIdSchema } from '../model/access.ts';
import {
  ABOUT,
  type About,
  MAX_LABEL_NAME_LENGTH,
  type LabelRule,
  MAX_LABELS,
  type PageLabel,
  isKind,
  kindAmong,
  labelRuleSchema,
  normalLabelRule,
} from '../model/page-label.ts';
import type { SiteNode } from '../model/node.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { withSettings } from '../model/site-edit.ts';
import type { Site } from '../model/site.ts';
import { checkNarrowing } from './checks.ts';
import { type Applied, defineOperation } from './definition.ts';

const title = z.string().max(MAX_LABEL_NAME_LENGTH, `at most ${MAX_LABEL_NAME_LENGTH} characters`);

export const labelAddSchema = z.strictObject({
  name: z.literal('label.add'),
  label: labelIdSchema,
  /** The label that it follows; null puts it first, left out puts it last. */
  after: labelIdSchema.nullable().optional(),
  title,
  rule: labelRuleSchema.optional(),
  /** Makes it a kind. */
  about: z.enum(ABOUT).optional(),
});

/** Adds a label of the site. Whoever adds it makes the id. */
export const labelAdd = defineOperation({
  schema: labelAddSchema,

  apply(site, { label, after, title: given, rule, about }) {
    const { labels } = site.settings;
    if (labels.some((one) => one.id === label)) return refuse('label-exists', { label });
    if (labels.length >= MAX_LABELS) return refuse('label-too-many', { limit: MAX_LABELS });
    const made: PageLabel = {
      id: label,
      name: given.trim(),
      rule: normalLabelRule(rule ?? {}),
      ...(about !== undefined && { about }),
    };
    const before = after == null ? -1 : labels.findIndex((one) => one.id === after);
    const at = after === undefined || (after !== null && before === -1) ? labels.length : before + 1;
    return checkLabel(site, made) ?? withLabels(site, labels.toSpliced(at, 0, made), { name: 'label.remove', label });
  },

  cells: ({ label }) => [`label:${label}.there`],

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
    })
    .partial(),
});

/** Renames a label, gives it another rule, or makes it a kind, or none. A label of pages that have a kind already becomes none. */
export const labelSet = defineOperation({
  schema: labelSetSchema,

  apply(site, { label, fields }) {
    const { labels } = site.settings;
    const was = labels.find((one) => one.id === label);
    if (!was) return refuse('label-unknown', { label });
    const about = fields.about === undefined ? was.about : (fields.about ?? undefined);
    const next: PageLabel = {
      id: label,
      name: fields.title?.trim() ?? was.name,
      rule: fields.rule ? normalLabelRule(fields.rule) : was.rule,
      ...(about !== undefined && { about }),
    };
    const before: { title?: string; rule?: LabelRule; about?: About | null } = {};
    if (next.name !== was.name) before.title = was.name;
    if (JSON.stringify(next.rule) !== JSON.stringify(was.rule)) before.rule = was.rule;
    if (about !== was.about) before.about = was.about ?? null;
    if (Object.keys(before).length === 0) return { ok: true, site, inverse: [], touched: [] };
    return (
      checkLabel(site, next) ??
      (isKind(next) && !isKind(was) ? checkOnlyKind(site, label) : null) ??
      withLabels(
        site,
        labels.map((one) => (one === was ? next : one)),
        { name: 'label.set', label, fields: before },
      )
    );
  },

  cells: ({ label, fields }) => Object.keys(fields).map((field) => `label:${label}.${field}`),

  words: ({ label, fields }, site) => {
    if (fields.title !== undefined) return `renamed the label ${named(site, label)} to ‘${fields.title}’`;
    if (fields.rule !== undefined) return `set who can open what is labelled ${named(site, label)}`;
    return fields.about === null
      ? `made ${named(site, label)} an ordinary label`
      : `made ${named(site, label)} a kind of page`;
  },
});

export const labelRemoveSchema = z.strictObject({ name: z.literal('label.remove'), label: labelIdSchema });

/** Takes a label away. One that a page bears stays: no page is opened by surprise. */
export const labelRemove = defineOperation({
  schema: labelRemoveSchema,

  apply(site, { label }) {
    const { labels } = site.settings;
    const at = labels.findIndex((one) => one.id === label);
    if (at === -1) return refuse('label-unknown', { label });
    const bears = (access: { readonly labels: readonly LabelId[] } | null) => access?.labels.includes(label) === true;
    const count =
      site.nodes.count(({ access }) => bears(access)) +
      site.live.count(({ node }, id) => bears(node.access) && !bears(site.nodes.get(id)?.access ?? null));
    if (count > 0) return refuse('label-used', { label, count });
    const { name, rule, about } = labels[at]!;
    return withLabels(site, labels.toSpliced(at, 1), {
      name: 'label.add',
      label,
      after: labels[at - 1]?.id ?? null,
      title: name,
      rule,
      ...(about !== undefined && { about }),
    });
  },

  cells: ({ label }) => [`label:${label}.there`],

  words: ({ label }, site) => `removed the label ${named(site, label)}`,
});

const checkLabel = (site: Site, { id, name, rule }: PageLabel): Refusal | null =>
  name === '' ? refuse('label-unnamed', { label: id }) : checkNarrowing(site, id, { ...NO_RULE, ...rule });

/** No page that bears the label has a kind already. */
function checkOnlyKind(site: Site, label: LabelId): Refusal | null {
  const hasAnother = ({ access }: SiteNode): boolean =>
    access !== null && access.labels.includes(label) && kindAmong(access.labels, site.settings.labels) !== null;
  const page = [...site.nodes.values()].find(hasAnother);
  return page ? refuse('kind-twice', { page: page.id }) : null;
}

const withLabels = (site: Site, labels: readonly PageLabel[], inverse: Applied['inverse'][number]): Applied => ({
  ok: true,
  site: withSettings(site, { ...site.settings, labels }),
  inverse: [inverse],
  touched: [],
});

const named = (site: Site, label: LabelId): string =>
  `‘${site.settings.labels.find((one) => one.id === label)?.name ?? 'that is not there'}’`;
