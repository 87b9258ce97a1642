import { z } from 'zod';
import { NO_RULE, audiencesIn } from '../model/access.ts';
import {
  type Audience,
  type AudienceId,
  EVERYONE,
  MAX_AUDIENCE_NAME_LENGTH,
  MAX_AUDIENCES,
  audienceIdSchema,
  includesItself,
} from '../model/audience.ts';
import { type PageId, pageIdSchema } from '../model/ids.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { withSettings } from '../model/site-edit.ts';
import type { Site } from '../model/site.ts';
import { audiencesOfMenu } from './menus.ts';
import { type Applied, defineOperation } from './definition.ts';

const title = z.string().max(MAX_AUDIENCE_NAME_LENGTH, `at most ${MAX_AUDIENCE_NAME_LENGTH} characters`);
const includes = z.array(audienceIdSchema).max(MAX_AUDIENCES);

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
    const { audiences } = site.settings;
    if (audience === EVERYONE || audiences.some((one) => one.id === audience))
      return refuse('audience-exists', { audience });
    if (audiences.length >= MAX_AUDIENCES) return refuse('audience-too-many', { limit: MAX_AUDIENCES });
    const made: Audience = { id: audience, name: given.trim(), includes: normal(included), ...landingOf(landing) };
    const next = [...audiences];
    const before = after == null ? -1 : next.findIndex((one) => one.id === after);
    next.splice(after === undefined || (after !== null && before === -1) ? next.length : before + 1, 0, made);
    return checkAudience(next, made) ?? withAudiences(site, next, { name: 'audience.remove', audience });
  },

  cells: ({ audience }) => [`audience:${audience}.there`],

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
    const { audiences } = site.settings;
    const was = audiences.find((one) => one.id === audience);
    if (!was) return refuse('audience-unknown', { audience });
    const next: Audience = {
      id: audience,
      name: fields.title?.trim() ?? was.name,
      includes: fields.includes ? normal(fields.includes) : was.includes,
      ...landingOf(fields.landing === undefined ? was.landing : fields.landing),
    };
    const before: typeof fields = {};
    if (next.name !== was.name) before.title = was.name;
    if (next.includes.join() !== was.includes.join()) before.includes = [...was.includes];
    if (next.landing !== was.landing) before.landing = was.landing ?? null;
    if (Object.keys(before).length === 0) return { ok: true, site, inverse: [], touched: [] };
    const all = audiences.map((one) => (one === was ? next : one));
    return checkAudience(all, next) ?? withAudiences(site, all, { name: 'audience.set', audience, fields: before });
  },

  cells: ({ audience, fields }) => Object.keys(fields).map((field) => `audience:${audience}.${field}`),

  words: ({ audience, fields }, site) =>
    fields.title === undefined
      ? fields.includes === undefined
        ? `set the landing page of the audience ${named(site, audience)}`
        : `changed who belongs to the audience ${named(site, audience)}`
      : `renamed the audience ${named(site, audience)} to ‘${fields.title}’`,
});

export const audienceRemoveSchema = z.strictObject({ name: z.literal('audience.remove'), audience: audienceIdSchema });

/** Takes an audience away. One that a rule or another audience names stays: nobody is shut out or let in by surprise. */
export const audienceRemove = defineOperation({
  schema: audienceRemoveSchema,

  apply(site, { audience }) {
    const { audiences } = site.settings;
    const at = audiences.findIndex((one) => one.id === audience);
    if (at === -1) return refuse('audience-unknown', { audience });
    const count =
      audiences.filter((one) => one.includes.includes(audience)).length +
      site.nodes.count(({ access }) => access !== null && audiencesIn(access).includes(audience)) +
      site.live.count(({ node: { access } }) => access !== null && audiencesIn(access).includes(audience)) +
      [...site.settings.labels, ...(site.liveSettings?.labels ?? [])].filter(({ rule }) =>
        audiencesIn({ ...NO_RULE, ...rule }).includes(audience),
      ).length +
      [...site.settings.menus, ...(site.liveSettings?.menus ?? [])].filter((menu) =>
        audiencesOfMenu(menu).includes(audience),
      ).length;
    if (count > 0) return refuse('audience-used', { audience, count });
    const { id, name, includes: included, landing } = audiences[at]!;
    return withAudiences(site, audiences.toSpliced(at, 1), {
      name: 'audience.add',
      audience: id,
      after: audiences[at - 1]?.id ?? null,
      title: name,
      includes: [...included],
      ...landingOf(landing),
    });
  },

  cells: ({ audience }) => [`audience:${audience}.there`],

  words: ({ audience }, site) => `removed the audience ${named(site, audience)}`,
});

function checkAudience(audiences: readonly Audience[], one: Audience): Refusal | null {
  if (one.name === '') return refuse('audience-unnamed', { audience: one.id });
  const unknown = one.includes.find((id) => !audiences.some((other) => other.id === id));
  if (unknown !== undefined) return refuse('audience-unknown', { audience: unknown });
  return includesItself(audiences, one.id) ? refuse('audience-in-itself', { audience: one.id }) : null;
}

/** Nothing is kept where there is no landing page. */
const landingOf = (landing: PageId | null | undefined): { landing?: PageId } => (landing == null ? {} : { landing });

const normal = (ids: readonly AudienceId[]): AudienceId[] => [...new Set(ids)].sort();

const withAudiences = (site: Site, audiences: readonly Audience[], inverse: Applied['inverse'][number]): Applied => ({
  ok: true,
  site: withSettings(site, { ...site.settings, audiences }),
  inverse: [inverse],
  touched: [],
});

const named = (site: Site, audience: AudienceId): string =>
  `‘${site.settings.audiences.find((one) => one.id === audience)?.name ?? 'that is not there'}’`;
