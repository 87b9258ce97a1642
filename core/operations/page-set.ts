import { z } from 'zod';
import {
  frontierOf,
  restoreSlugs,
  settleAfter,
  settleSlugs,
  slugsBefore,
  slugsFromTitle,
} from '../model/address-scope.ts';
import { type AccessChange, accessChange, accessChangeSchema, withAccess, type StandsIn } from '../model/access.ts';
import { type FrameChange, frameChange, frameChangeSchema, withFrame } from '../model/frame.ts';
import { contentIdSchema, pageIdSchema } from '../model/ids.ts';
import { HIDDEN, NODE_TYPES, type SiteNode, isSameNode } from '../model/node.ts';
import { targetSchema } from '../model/target.ts';
import { type PlanChange, planChange, planChangeSchema, withPlan } from '../model/plan.ts';
import { refuse } from '../model/refusal.ts';
import { SiteChange } from '../model/site-change.ts';
import { MAX_TITLE_LENGTH, addsStep, childrenOf, homeOf, nodeAt } from '../model/site.ts';
import { NO_SLUGS, type Slugs, sameSlugs, slugsSchema } from '../model/slug.ts';
import { textIn, textsChange, textsSchema, withTexts } from '../model/texts.ts';
import { checkAccess, checkFrame, checkRestored, checkSlugs, checkStands, checkTarget } from './checks.ts';
import { defineOperation, quoted, restoresSchema } from './definition.ts';

const fieldsSchema = z.strictObject({
  type: z.enum(NODE_TYPES).optional(),
  title: textsSchema(MAX_TITLE_LENGTH).optional(),
  label: textsSchema(MAX_TITLE_LENGTH).optional(),
  slug: slugsSchema.optional(),
  description: textsSchema(2000).optional(),
  inMenus: z.boolean().optional(),
  hidden: z.enum(HIDDEN).optional(),
  inAddress: z.boolean().optional(),
  target: targetSchema.nullable().optional(),
  content: contentIdSchema.nullable().optional(),
  /** What is left out of the rule stays as it is. */
  access: accessChangeSchema.optional(),
  /** What is left out of the frame stays as it is. */
  frame: frameChangeSchema.optional(),
  /** What is left out of the plan stays as it is. */
  plan: planChangeSchema.optional(),
});
export type PageFields = z.infer<typeof fieldsSchema>;

export const pageSetSchema = z.strictObject({
  name: z.literal('page.set'),
  page: pageIdSchema,
  fields: fieldsSchema,
  restores: restoresSchema,
});

/** Sets fields of a node; those left out stay as they are. */
export const pageSet = defineOperation({
  schema: pageSetSchema,

  apply(site, { page, fields, restores }) {
    const forbidden = checkStands(site, page);
    if (forbidden) return forbidden;
    const node = nodeAt(site, page);
    const next = withFields(node, fields);
    const wrong =
      checkRestored(restores) ??
      checkSlugs(site, page, fields.slug, node.parent, restores !== undefined) ??
      (fields.access && restores === undefined ? checkAccess(site, page, next.access) : null) ??
      (fields.frame && restores === undefined ? checkFrame(site, next.frame) : null) ??
      (fields.type !== undefined || fields.target !== undefined
        ? checkTarget(site, page, next.type, next.target, restores !== undefined)
        : null);
    if (wrong) return wrong;
    if (Object.keys(next.title).length === 0) return refuse('title-empty', { page });
    if (next.type === 'link' && childrenOf(site, page).length > 0)
      return refuse('pages-below', { page, below: childrenOf(site, page).length });
    if (next.type !== 'page' && next.content !== null) return refuse('has-text', { page });

    const change = new SiteChange(site);
    if (!isSameNode(node, next)) change.put(next);
    const home = homeOf(change.site);
    if (addsStep(node, homeOf(site)) !== addsStep(next, home)) {
      // The children come into another scope, or the node comes into this one.
      settleSlugs(
        change,
        [page, ...childrenOf(change.site, page)].flatMap((id) => frontierOf(change.site, id, home)),
        false,
      );
    } else if (!sameSlugs(node.slug, next.slug)) settleSlugs(change, [page], false);
    settleAfter(change, []);
    restoreSlugs(change, restores);
    if (change.touched.size === 0) return { ok: true, site, inverse: [], touched: [] };
    const before = slugsBefore(change);
    return {
      ok: true,
      site: change.site,
      inverse: [{ name: 'page.set', page, fields: fieldsBefore(node, next, fields), restores: before }],
      touched: [...change.touched],
    };
  },

  cells: ({ page, fields }) => fieldsSet(fields).map((field) => `${page}.${field}`),

  words({ page, fields }, site) {
    const language = site.settings.language;
    const name = quoted(site, page);
    const parts: string[] = [];
    const title = fields.title?.[language];
    if (title !== undefined) parts.push(`renamed ${name} to ‘${title}’`);
    if (fields.label) {
      const label = textIn(fields.label, language);
      parts.push(label === '' ? `removed the menu label of ${name}` : `gave ${name} the menu label ‘${label}’`);
    }
    const slug = fields.slug?.[language];
    if (slug && title === undefined)
      parts.push(slug.own ? `set the slug of ${name} to ‘${slug.text}’` : `let the slug of ${name} follow its title`);
    if (fields.description) parts.push(`changed the description of ${name}`);
    if (fields.content !== undefined) parts.push(`changed the text of ${name}`);
    if (fields.inMenus !== undefined)
      parts.push(`${fields.inMenus ? 'put' : 'took'} ${name} ${fields.inMenus ? 'in' : 'off'} menus`);
    if (fields.hidden !== undefined)
      parts.push(
        fields.hidden === 'no'
          ? `showed ${name} again`
          : `hid ${name}${fields.hidden === 'branch' ? ' and its branch' : ''}`,
      );
    if (fields.type !== undefined) parts.push(`made ${name} a ${fields.type}`);
    if (fields.inAddress !== undefined)
      parts.push(
        `${fields.inAddress ? 'gave' : 'took'} ${name} ${fields.inAddress ? 'a step in' : 'out of'} addresses`,
      );
    if (fields.target) parts.push(`set where ${name} points`);
    if (fields.access) parts.push(accessWords(fields.access, name));
    if (fields.frame) parts.push(frameWords(fields.frame, name));
    if (fields.plan) parts.push(planWords(fields.plan, name));
    return parts.length > 0 ? parts.join(', ') : `left ${name} as it was`;
  },
});

/** The names of the fields that are set; those of the rule and of the plan, and each question, by themselves: `plan.owner`. */
export function fieldsSet({ plan, access, frame, ...others }: PageFields): string[] {
  const { questions, ...ofPlan } = plan ?? {};
  return [
    ...Object.keys(others),
    ...Object.keys(access ?? {}).map((field) => `access.${field}`),
    ...Object.keys(frame ?? {}).map((field) => `frame.${field}`),
    ...Object.keys(ofPlan).map((field) => `plan.${field}`),
    ...Object.keys(questions ?? {}).map((id) => `plan.questions.${id}`),
  ];
}

/** The fields of which `isWanted` holds, by the names that `fieldsSet` gives. */
export function fieldsAmong(
  { plan, access, frame, ...others }: PageFields,
  isWanted: (field: string) => boolean,
): PageFields {
  const among = <Value>(record: Readonly<Record<string, Value>>, prefix: string) =>
    Object.fromEntries(Object.entries(record).filter(([field]) => isWanted(prefix + field)));
  const { questions, ...ofPlan } = plan ?? {};
  const wantedQuestions = among(questions ?? {}, 'plan.questions.');
  const wantedPlan = {
    ...among(ofPlan, 'plan.'),
    ...(Object.keys(wantedQuestions).length > 0 && { questions: wantedQuestions }),
  };
  const wantedAccess = among(access ?? {}, 'access.');
  const wantedFrame = among(frame ?? {}, 'frame.');
  return {
    ...among(others, ''),
    ...(Object.keys(wantedAccess).length > 0 && { access: wantedAccess }),
    ...(Object.keys(wantedFrame).length > 0 && { frame: wantedFrame }),
    ...(Object.keys(wantedPlan).length > 0 && { plan: wantedPlan }),
  };
}

function withFields(node: SiteNode, fields: PageFields): SiteNode {
  const type = fields.type ?? node.type;
  const title = fields.title ? withTexts(node.title, fields.title) : node.title;
  const inAddress =
    type === 'heading' ? (fields.inAddress ?? (node.type === 'heading' && node.inAddress)) : type === 'page';
  return {
    ...node,
    type,
    title,
    label: fields.label ? withTexts(node.label, fields.label) : node.label,
    slug: nextSlugs(node, type, title, fields),
    description: fields.description ? withTexts(node.description, fields.description) : node.description,
    inMenus: fields.inMenus ?? node.inMenus,
    hidden: fields.hidden ?? node.hidden,
    inAddress,
    target: type === 'link' ? (fields.target === undefined ? node.target : fields.target) : (fields.target ?? null),
    content: fields.content === undefined ? node.content : fields.content,
    access: fields.access ? withAccess(node.access, fields.access) : node.access,
    frame: fields.frame ? withFrame(node.frame, fields.frame) : node.frame,
    plan: fields.plan ? withPlan(node.plan, fields.plan) : node.plan,
  };
}

function nextSlugs(node: SiteNode, type: SiteNode['type'], title: SiteNode['title'], fields: PageFields): Slugs {
  if (type === 'link') return NO_SLUGS;
  if (title === node.title && !fields.slug && type === node.type) return node.slug;
  const given: Slugs = { ...node.slug, ...fields.slug };
  const fromTitle = slugsFromTitle({ type, title, slug: given });
  const slugs: Record<string, Slugs[string]> = {};
  for (const [language, slug] of Object.entries(fromTitle)) {
    const asked = fields.slug?.[language];
    const unchanged = title[language] === node.title[language] && !asked && node.slug[language];
    slugs[language] = unchanged || (asked && asked.text !== '' ? asked : slug);
  }
  return sameSlugs(slugs, node.slug) ? node.slug : slugs;
}

/** The fields that make `node` of `next`: those that were set, and those that followed from them. */
function fieldsBefore(node: SiteNode, next: SiteNode, set: PageFields): PageFields {
  const before: PageFields = {};
  if (set.type !== undefined) before.type = node.type;
  if (next.title !== node.title) before.title = textsChange(next.title, node.title);
  if (next.label !== node.label) before.label = textsChange(next.label, node.label);
  if (next.description !== node.description) before.description = textsChange(next.description, node.description);
  if (next.inMenus !== node.inMenus) before.inMenus = node.inMenus;
  if (next.hidden !== node.hidden) before.hidden = node.hidden;
  if (next.inAddress !== node.inAddress || set.type !== undefined) before.inAddress = node.inAddress;
  if (next.target !== node.target) before.target = node.target;
  if (next.content !== node.content) before.content = node.content;
  if (next.access !== node.access) before.access = accessChange(next.access, node.access);
  if (next.frame !== node.frame) before.frame = frameChange(next.frame, node.frame);
  if (next.plan !== node.plan) before.plan = planChange(next.plan, node.plan);
  if (!sameSlugs(node.slug, next.slug) && Object.keys(node.slug).length > 0) before.slug = node.slug;
  return before;
}

/** What was set of a rule, in words. */
function accessWords(access: AccessChange, name: string): string {
  const set = Object.keys(access);
  if (set.every((field) => field === 'engines'))
    return access.engines === 'no' ? `offered ${name} to search engines again` : `left ${name} out of search engines`;
  if (set.every((field) => field === 'search'))
    return access.search === 'no' ? `let site search find ${name} again` : `left ${name} out of site search`;
  if (set.every((field) => field === 'passphrase'))
    return access.passphrase === null
      ? `removed the passphrase of ${name}`
      : `set a passphrase for ${name} and what is below`;
  if (set.every((field) => field === 'labels')) return `changed the labels or the kind of ${name}`;
  if (set.every((field) => field === 'menuFor')) return `set who sees the menu entry of ${name}`;
  if (set.every((field) => field === 'standsIn'))
    return access.standsIn === null
      ? `made ${name} an ordinary page`
      : `made ${name} ${STANDS_IN_WORDS[access.standsIn!]}`;
  return `set who can open ${name}`;
}

const STANDS_IN_WORDS: Readonly<Record<StandsIn, string>> = {
  'sign-in': 'the sign-in page',
  'no-access': 'the no-access page',
  'not-found': 'the not-found page',
  account: 'the account page',
};

/** What was set of a frame, in words. */
function frameWords(frame: FrameChange, name: string): string {
  const words: Readonly<Record<keyof FrameChange, string>> = {
    layout: 'layout',
    trail: 'trail',
    listing: 'list of pages',
    date: 'date',
  };
  return `set the ${listed((Object.keys(frame) as (keyof FrameChange)[]).map((field) => words[field]))} of ${name}`;
}

/** What was set of a plan, in words. */
function planWords({ questions, ...plan }: PlanChange, name: string): string {
  const set = Object.keys(plan) as (keyof typeof PLAN_WORDS)[];
  const asked = Object.values(questions ?? {});
  const parts = set.length === 0 ? [] : [`set the ${listed(set.map((field) => PLAN_WORDS[field]))} of ${name}`];
  if (asked.length > 0) {
    const settled = asked.filter((question) => question?.settledBy != null).length;
    const one = settled === asked.length ? 'settled a question' : asked.includes(null) ? 'removed a question' : 'asked';
    parts.push(asked.length === 1 ? `${one} about ${name}` : `changed ${asked.length} questions about ${name}`);
  }
  return parts.join(' and ') || `left the plan of ${name} as it was`;
}

const PLAN_WORDS = {
  origin: 'origin',
  purpose: 'purpose',
  owner: 'owner',
  due: 'due date',
  readiness: 'readiness',
  importance: 'importance',
  words: 'words expected',
  goals: 'goals',
  oldAddresses: 'old addresses',
  references: 'references',
  notes: 'notes',
} as const;

const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
