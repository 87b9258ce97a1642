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

export const LONGEST_LABEL_NAME = 60;
export const MOST_LABELS = 100;

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

export const pageLabelSchema = z.strictObject({
  id: labelIdSchema,
  name: z.string().min(1).max(LONGEST_LABEL_NAME),
  rule: labelRuleSchema,
});

/** A word that pages are labelled with, and the rule that holds for all of them: said once for the site. */
export interface PageLabel {
  readonly id: LabelId;
  readonly name: string;
  readonly rule: LabelRule;
}

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
