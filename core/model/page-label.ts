import { z } from 'zod';
import {
  type AccessRule,
  type LabelId,
  NO_RULE,
  accessChangeSchema,
  labelIdSchema,
  toKeptAccess,
  withAccess,
} from './access.ts';
import { type ContentId, contentIdSchema } from './ids.ts';
import { type KindField, MAX_FIELDS, kindFieldSchema } from './kind-field.ts';

export const MAX_LABEL_NAME_LENGTH = 60;
export const MAX_LABELS = 100;

/** What a label narrows, for all pages that bear it; what is left out is as in `NO_RULE`. */
export const labelRuleSchema = accessChangeSchema.pick({
  only: true,
  except: true,
  closedLook: true,
  from: true,
  until: true,
  engines: true,
  search: true,
});
export type LabelRule = z.infer<typeof labelRuleSchema>;

/** What pages of a kind are about; `page` says no more than that. */
export const ABOUT = ['page', 'person', 'place', 'course', 'event', 'article', 'organisation'] as const;
export type About = (typeof ABOUT)[number];

export const pageLabelSchema = z.strictObject({
  id: labelIdSchema,
  name: z.string().min(1).max(MAX_LABEL_NAME_LENGTH),
  rule: labelRuleSchema,
  about: z.enum(ABOUT).optional(),
  fields: z.array(kindFieldSchema).max(MAX_FIELDS).optional(),
  pageOutline: contentIdSchema.optional(),
});

/**
 * A word that pages are labelled with, and the rule that holds for all of them: said once for the site. One that says what its
 * pages are about is a *kind*: a page bears any number of labels, and one kind at most.
 */
export interface PageLabel {
  readonly id: LabelId;
  readonly name: string;
  readonly rule: LabelRule;
  readonly about?: About;
  /** Of a kind: what its pages can say of themselves, in order; left out where there is nothing. A label keeps them that is no kind any more. */
  readonly fields?: KindField[];
  /** Of a kind: the text that its pages begin with, and have until they have one of their own; left out where there is none. */
  readonly pageOutline?: ContentId;
}

/** A label that is a kind. */
export type PageKind = PageLabel & { readonly about: About };

export const isKind = (label: PageLabel): label is PageKind => label.about !== undefined;

/** The kind among labels that a page bears, or null where it is a page like any other. */
export const kindAmong = (borne: readonly LabelId[], labels: readonly PageLabel[]): PageKind | null =>
  borne.length === 0 ? null : (labels.find((one): one is PageKind => isKind(one) && borne.includes(one.id)) ?? null);

/** The labels that a page bears with this kind in place of the one that it had; null takes its kind away. */
export const withKind = (borne: readonly LabelId[], kind: LabelId | null, labels: readonly PageLabel[]): LabelId[] => [
  ...borne.filter((id) => !labels.some((one) => one.id === id && isKind(one))),
  ...(kind === null ? [] : [kind]),
];

const known = new WeakMap<readonly PageLabel[], ReadonlyMap<LabelId, AccessRule>>();

/** The rules of labels in full, by the labels' ids. */
export function rulesOfLabels(labels: readonly PageLabel[]): ReadonlyMap<LabelId, AccessRule> {
  let rules = known.get(labels);
  if (!rules) {
    rules = new Map(labels.map(({ id, rule }) => [id, { ...NO_RULE, ...rule }]));
    known.set(labels, rules);
  }
  return rules;
}

/** A label's rule with what is as in `NO_RULE` left out and its lists in order, as it is kept. */
export const normalLabelRule = (rule: LabelRule): LabelRule => toKeptAccess(withAccess(null, rule) ?? NO_RULE);
