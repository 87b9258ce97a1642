import { z } from 'zod';
import { contentIdSchema } from '../model/ids.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { MAX_SHARED, MAX_SHARED_NAME_LENGTH, type SharedSection, sharedIdSchema } from '../model/shared-section.ts';
import { defineOperation } from './definition.ts';
import { fieldsBefore, thingsOfSettings } from './things.ts';

const title = z.string().max(MAX_SHARED_NAME_LENGTH, `at most ${MAX_SHARED_NAME_LENGTH} characters`);
const content = contentIdSchema.nullable();

const sections = thingsOfSettings('shared', 'shared', { most: MAX_SHARED, code: 'shared-too-many' });
const checkSection = ({ id, name }: SharedSection): Refusal | null =>
  name === '' ? refuse('shared-unnamed', { shared: id }) : null;

export const sharedAddSchema = z.strictObject({
  name: z.literal('shared.add'),
  shared: sharedIdSchema,
  /** The section that it follows; null puts it first, left out puts it last. */
  after: sharedIdSchema.nullable().optional(),
  title,
  content: content.optional(),
});

/** Adds a shared section. Whoever adds it makes the id. */
export const sharedAdd = defineOperation({
  schema: sharedAddSchema,

  apply(site, { shared, after, title: name, content: says = null }) {
    const made: SharedSection = { id: shared, name: name.trim(), content: says };
    return sections.checkNew(site, shared) ?? checkSection(made) ?? sections.add(site, made, after);
  },

  cells: ({ shared }) => sections.cellOfThere(shared),

  words: ({ title: name }) => `added the shared section ‘${name}’`,
});

export const sharedSetSchema = z.strictObject({
  name: z.literal('shared.set'),
  shared: sharedIdSchema,
  fields: z.strictObject({ title, content }).partial(),
});

/** Renames a shared section, or sets what it says; all pages that show it say it then. */
export const sharedSet = defineOperation({
  schema: sharedSetSchema,

  apply(site, { shared, fields }) {
    const was = sections.find(site, shared);
    if (!was) return sections.unknown(shared);
    const next: SharedSection = {
      id: shared,
      name: fields.title?.trim() ?? was.name,
      content: fields.content === undefined ? was.content : fields.content,
    };
    return checkSection(next) ?? sections.set(site, was, next, fieldsBefore(was, next));
  },

  cells: ({ shared, fields }) => sections.cellsOfFields(shared, fields),

  words: ({ shared, fields }, site) =>
    fields.title === undefined
      ? `changed the text of the shared section ${sections.named(site, shared)}`
      : `renamed the shared section ${sections.named(site, shared)} ‘${fields.title}’`,
});

export const sharedRemoveSchema = z.strictObject({ name: z.literal('shared.remove'), shared: sharedIdSchema });

/** Takes a shared section away. Pages that show it have nothing in its place. */
export const sharedRemove = defineOperation({
  schema: sharedRemoveSchema,

  apply(site, { shared }) {
    const was = sections.find(site, shared);
    if (!was) return sections.unknown(shared);
    return sections.remove(site, was, { title: was.name, content: was.content });
  },

  cells: ({ shared }) => sections.cellOfThere(shared),

  words: ({ shared }, site) => `removed the shared section ${sections.named(site, shared)}`,
});
