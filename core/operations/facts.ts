import { z } from 'zod';
import { type Fact, MAX_FACT_LENGTH, MAX_FACT_NAME_LENGTH, MAX_FACTS, factIdSchema } from '../model/fact.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { defineOperation } from './definition.ts';
import { fieldsBefore, thingsOfSettings } from './things.ts';

const title = z.string().max(MAX_FACT_NAME_LENGTH, `at most ${MAX_FACT_NAME_LENGTH} characters`);
const text = z.string().max(MAX_FACT_LENGTH, `at most ${MAX_FACT_LENGTH} characters`);

const facts = thingsOfSettings('fact', 'facts', { most: MAX_FACTS, code: 'fact-too-many' });
const checkFact = ({ id, name }: Fact): Refusal | null => (name === '' ? refuse('fact-unnamed', { fact: id }) : null);

export const factAddSchema = z.strictObject({
  name: z.literal('fact.add'),
  fact: factIdSchema,
  /** The fact that it follows; null puts it first, left out puts it last. */
  after: factIdSchema.nullable().optional(),
  title,
  text: text.optional(),
  inFooter: z.boolean().optional(),
  inHeader: z.boolean().optional(),
});

/** Adds a fact of the site. Whoever adds it makes the id. */
export const factAdd = defineOperation({
  schema: factAddSchema,

  apply(site, { fact, after, title: name, text: says = '', inFooter = false, inHeader = false }) {
    const made: Fact = { id: fact, name: name.trim(), text: says.trim(), inFooter, ...(inHeader && { inHeader }) };
    return facts.checkNew(site, fact) ?? checkFact(made) ?? facts.add(site, made, after);
  },

  cells: ({ fact }) => facts.cellOfThere(fact),

  words: ({ title: name }) => `added the fact ‘${name}’`,
});

export const factSetSchema = z.strictObject({
  name: z.literal('fact.set'),
  fact: factIdSchema,
  fields: z.strictObject({ title, text, inFooter: z.boolean(), inHeader: z.boolean() }).partial(),
});

/** Sets what a fact says; all places where it is named say it then. */
export const factSet = defineOperation({
  schema: factSetSchema,

  apply(site, { fact, fields }) {
    const was = facts.find(site, fact);
    if (!was) return facts.unknown(fact);
    const inHeader = fields.inHeader ?? was.inHeader;
    const next: Fact = {
      id: fact,
      name: fields.title?.trim() ?? was.name,
      text: fields.text?.trim() ?? was.text,
      inFooter: fields.inFooter ?? was.inFooter,
      ...(inHeader && { inHeader }),
    };
    return (
      checkFact(next) ??
      facts.set(site, was, next, fieldsBefore({ inHeader: false, ...was }, { inHeader: false, ...next }))
    );
  },

  cells: ({ fact, fields }) => facts.cellsOfFields(fact, fields),

  words: ({ fact, fields }, site) =>
    fields.text === undefined
      ? `changed the fact ${facts.named(site, fact)}`
      : `set ${facts.named(site, fact)} to ‘${fields.text}’`,
});

export const factRemoveSchema = z.strictObject({ name: z.literal('fact.remove'), fact: factIdSchema });

/** Takes a fact away. Texts that name it say nothing in its place. */
export const factRemove = defineOperation({
  schema: factRemoveSchema,

  apply(site, { fact }) {
    const was = facts.find(site, fact);
    if (!was) return facts.unknown(fact);
    return facts.remove(site, was, {
      title: was.name,
      text: was.text,
      inFooter: was.inFooter,
      ...(was.inHeader && { inHeader: true }),
    });
  },

  cells: ({ fact }) => facts.cellOfThere(fact),

  words: ({ fact }, site) => `removed the fact ${facts.named(site, fact)}`,
});
