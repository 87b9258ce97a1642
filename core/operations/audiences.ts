import { z } from 'zod';
import { NO_RULE, audiencesIn } from '../model/access.ts';
import {
  type Audience,
  type AudienceId,
  MAX_AUDIENCE_NAME_LENGTH,
  MAX_AUDIENCES,
  audienceIdSchema,
  includesItself,
  isBuiltIn,
} from '../model/audience.ts';
import { type PageId, pageIdSchema } from '../model/ids.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { audiencesOfMenu } from './menus.ts';
import { defineOperation } from './definition.ts';
import { fieldsBefore, thingsOfSettings } from './things.ts';

const title = z.string().max(MAX_AUDIENCE_NAME_LENGTH, `at most ${MAX_AUDIENCE_NAME_LENGTH} characters`);
const includes = z.array(audienceIdSchema).max(MAX_AUDIENCES);

const audiences = thingsOfSettings('audience', 'audiences', { most: MAX_AUDIENCES, code: 'audience-too-many' });

export const audienceAddSchema = z.strictObject({
  name: z.literal('audience.add'),
  audience: audienceIdSchema,
  /** The audience that it follows; null puts it first, left out puts it last. */
  after: audienceIdSchema.nullable().optional(),
  title,
  includes: includes.optional(),
  landing: pageIdSchema.optional(),
});

/** Adds an audience. Whoever adds it makes the id. */
export const audienceAdd = defineOperation({
  schema: audienceAddSchema,

  apply(site, { audience, after, title: given, includes: included = [], landing }) {
    if (isBuiltIn(audience)) return refuse('audience-exists', { audience });
    const made: Audience = { id: audience, name: given.trim(), includes: normal(included), ...landingOf(landing) };
    return (
      audiences.checkNew(site, audience) ??
      checkAudience(audiences.with(site, made, after), made) ??
      audiences.add(site, made, after)
    );
  },

  cells: ({ audience }) => audiences.cellOfThere(audience),

  words: ({ title: text }) => `added the audience ‘${text}’`,
});

export const audienceSetSchema = z.strictObject({
  name: z.literal('audience.set'),
  audience: audienceIdSchema,
  /** A landing of null is the home page. */
  fields: z.strictObject({ title, includes, landing: pageIdSchema.nullable() }).partial(),
});

/** Sets fields of an audience; those left out stay as they are. */
export const audienceSet = defineOperation({
  schema: audienceSetSchema,

  apply(site, { audience, fields }) {
    const was = audiences.find(site, audience);
    if (!was) return audiences.unknown(audience);
    const next: Audience = {
      id: audience,
      name: fields.title?.trim() ?? was.name,
      includes: fields.includes ? normal(fields.includes) : was.includes,
      ...landingOf(fields.landing === undefined ? was.landing : fields.landing),
    };
    const before = fieldsBefore(was, next);
    if (Object.keys(before).length === 0) return audiences.set(site, was, was, before);
    const all = site.settings.audiences.map((one) => (one === was ? next : one));
    return checkAudience(all, next) ?? audiences.set(site, was, next, before);
  },

  cells: ({ audience, fields }) => audiences.cellsOfFields(audience, fields),

  words: ({ audience, fields }, site) =>
    fields.title === undefined
      ? fields.includes === undefined
        ? `set the landing page of the audience ${audiences.named(site, audience)}`
        : `changed who belongs to the audience ${audiences.named(site, audience)}`
      : `renamed the audience ${audiences.named(site, audience)} to ‘${fields.title}’`,
});

export const audienceRemoveSchema = z.strictObject({ name: z.literal('audience.remove'), audience: audienceIdSchema });

/** Takes an audience away. One that a rule or another audience names stays: nobody is shut out or let in by surprise. */
export const audienceRemove = defineOperation({
  schema: audienceRemoveSchema,

  apply(site, { audience }) {
    const was = audiences.find(site, audience);
    if (!was) return audiences.unknown(audience);
    const count =
      site.settings.audiences.filter((one) => one.includes.includes(audience)).length +
      site.nodes.count(({ access }) => access !== null && audiencesIn(access).includes(audience)) +
      site.live.count(({ node: { access } }) => access !== null && audiencesIn(access).includes(audience)) +
      [...site.settings.labels, ...(site.liveSettings?.labels ?? [])].filter(({ rule }) =>
        audiencesIn({ ...NO_RULE, ...rule }).includes(audience),
      ).length +
      [...site.settings.menus, ...(site.liveSettings?.menus ?? [])].filter((menu) =>
        audiencesOfMenu(menu).includes(audience),
      ).length;
    if (count > 0) return refuse('audience-used', { audience, count });
    const { name: title, includes: included, landing } = was;
    return audiences.remove(site, was, { title, includes: [...included], ...landingOf(landing) });
  },

  cells: ({ audience }) => audiences.cellOfThere(audience),

  words: ({ audience }, site) => `removed the audience ${audiences.named(site, audience)}`,
});

function checkAudience(all: readonly Audience[], one: Audience): Refusal | null {
  if (one.name === '') return refuse('audience-unnamed', { audience: one.id });
  const unknown = one.includes.find((id) => !all.some((other) => other.id === id));
  if (unknown !== undefined) return refuse('audience-unknown', { audience: unknown });
  return includesItself(all, one.id) ? refuse('audience-in-itself', { audience: one.id }) : null;
}

/** Nothing is kept where there is no landing page. */
const landingOf = (landing: PageId | null | undefined): { landing?: PageId } => (landing == null ? {} : { landing });

const normal = (ids: readonly AudienceId[]): AudienceId[] => [...new Set(ids)].sort();
