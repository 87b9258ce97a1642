import { z } from 'zod';
import { type Fact, MAX_FACT_LENGTH, MAX_FACT_NAME_LENGTH, MAX_FACTS, factIdSchema } from '../model/fact.ts';
import { refuse } from '../model/refusal.ts';
import { withSettings } from '../model/site-edit.ts';
import type { Site } from '../model/site.ts';
import { type Applied, defineOperation } from './definition.ts';

const title = z.string().max(MAX_FACT_NAME_LENGTH, `at most ${MAX_FACT_NAME_LENGTH} characters`);
const text = z.string().max(MAX_FACT_LENGTH, `at most ${MAX_FACT_LENGTH} characters`);

export const factAddSchema = z.strictObject({
  name: z.literal('fact.add'),
  fact: factIdSchema,
  /** The fact that it follows; null puts it first, left out puts it last. */
  after: factIdSchema.nullable().optional(),
  title,
  text: text.optional(),
  inFooter: z.boolean().optional(),
});

/** Adds a fact of the site. Whoever adds it makes the id. */
export const factAdd = defineOperation({
  schema: factAddSchema,

  apply(site, { fact, after, title: name, text: says = '', inFooter = false }) {
    const { facts } = site.settings;
    if (facts.some(({ id }) => id === fact)) return refuse('fact-exists', { fact });
    if (facts.length >= MAX_FACTS) return refuse('fact-too-many', { limit: MAX_FACTS });
    if (name.trim() === '') return refuse('fact-unnamed', { fact });
    const before = after == null ? -1 : facts.findIndex(({ id }) => id === after);
    const at = after === undefined || (after !== null && before === -1) ? facts.length : before + 1;
    const made: Fact = { id: fact, name: name.trim(), text: says.trim(), inFooter };
    return withFacts(site, facts.toSpliced(at, 0, made), { name: 'fact.remove', fact });
  },

  cells: ({ fact }) => [`fact:${fact}.there`],

  words: ({ title: name }) => `added the fact ‘${name}’`,
});

export const factSetSchema = z.strictObject({
  name: z.literal('fact.set'),
  fact: factIdSchema,
  fields: z.strictObject({ title, text, inFooter: z.boolean() }).partial(),
});

/** Sets what a fact says; all places where it is named say it then. */
export const factSet = defineOperation({
  schema: factSetSchema,

  apply(site, { fact, fields }) {
    const { facts } = site.settings;
    const was = facts.find(({ id }) => id === fact);
    if (!was) return refuse('fact-unknown', { fact });
    const next: Fact = {
      id: fact,
      name: fields.title?.trim() ?? was.name,
      text: fields.text?.trim() ?? was.text,
      inFooter: fields.inFooter ?? was.inFooter,
    };
    if (next.name === '') return refuse('fact-unnamed', { fact });
    const before: { title?: string; text?: string; inFooter?: boolean } = {};
    if (next.name !== was.name) before.title = was.name;
    if (next.text !== was.text) before.text = was.text;
    if (next.inFooter !== was.inFooter) before.inFooter = was.inFooter;
    if (Object.keys(before).length === 0) return { ok: true, site, inverse: [], touched: [] };
    return withFacts(
      site,
      facts.map((one) => (one === was ? next : one)),
      { name: 'fact.set', fact, fields: before },
    );
  },

  cells: ({ fact, fields }) => Object.keys(fields).map((field) => `fact:${fact}.${field}`),

  words: ({ fact, fields }, site) =>
    fields.text === undefined
      ? `changed the fact ${named(site, fact)}`
      : `set ${named(site, fact)} to ‘${fields.text}’`,
});

export const factRemoveSchema = z.strictObject({ name: z.literal('fact.remove'), fact: factIdSchema });

/** Takes a fact away. Texts that name it say nothing in its place. */
export const factRemove = defineOperation({
  schema: factRemoveSchema,

  apply(site, { fact }) {
    const { facts } = site.settings;
    const at = facts.findIndex(({ id }) => id === fact);
    if (at === -1) return refuse('fact-unknown', { fact });
    const { name, text: says, inFooter } = facts[at]!;
    return withFacts(site, facts.toSpliced(at, 1), {
      name: 'fact.add',
      fact,
      after: facts[at - 1]?.id ?? null,
      title: name,
      text: says,
      inFooter,
    });
  },

  cells: ({ fact }) => [`fact:${fact}.there`],

  words: ({ fact }, site) => `removed the fact ${named(site, fact)}`,
});

const withFacts = (site: Site, facts: readonly Fact[], inverse: Applied['inverse'][number]): Applied => ({
  ok: true,
  site: withSettings(site, { ...site.settings, facts }),
  inverse: [inverse],
  touched: [],
});

const named = (site: Site, fact: string): string =>
  `‘${site.settings.facts.find(({ id }) => id === fact)?.name ?? 'that is not there'}’`;
