import { isSameJson } from '../model/canonical-json.ts';
import { z } from 'zod';
import { restoreSlugs, settleAfter, slugsBefore } from '../model/address-scope.ts';
import { languageSchema, pageIdSchema } from '../model/ids.ts';
import { lookSchema } from '../model/look.ts';
import { MAX_FRAME_HOSTS, frameHostSchema } from '../model/frame-host.ts';
import { refuse } from '../model/refusal.ts';
import { SiteChange } from '../model/site-change.ts';
import { withSettings } from '../model/site-edit.ts';
import type { Settings } from '../model/site.ts';
import { trailSettingSchema } from '../model/trail-setting.ts';
import { checkRestored, checkStands } from './checks.ts';
import { defineOperation, quoted, restoresSchema } from './definition.ts';

export const MAX_SITE_NAME_LENGTH = 120;

export const siteSetSchema = z.strictObject({
  name: z.literal('site.set'),
  fields: z.strictObject({
    name: z.string().max(MAX_SITE_NAME_LENGTH, `at most ${MAX_SITE_NAME_LENGTH} characters`).optional(),
    language: languageSchema.optional(),
    home: pageIdSchema.nullable().optional(),
    trail: trailSettingSchema.optional(),
    timeZone: z.string().max(60).optional(),
    look: lookSchema.optional(),
    hosts: z.array(frameHostSchema).max(MAX_FRAME_HOSTS).optional(),
  }),
  restores: restoresSchema,
});

/** Sets the site's settings; those left out stay as they are. `home: null` makes the first page of the tree home. */
export const siteSet = defineOperation({
  schema: siteSetSchema,

  apply(site, { fields, restores }) {
    if (fields.home != null && !restores) {
      const forbidden = checkStands(site, fields.home);
      if (forbidden) return forbidden;
      if (site.nodes.get(fields.home)!.type !== 'page') return refuse('home-not-a-page', { page: fields.home });
    }
    const wrong = checkRestored(restores);
    if (wrong) return wrong;
    const name = fields.name?.replace(/\s+/g, ' ').trim();
    if (name === '') return refuse('name-empty');
    if (fields.timeZone !== undefined && !isTimeZone(fields.timeZone))
      return refuse('time-zone-unknown', { timeZone: fields.timeZone });
    const hosts = fields.hosts && [...new Set(fields.hosts)];
    const was = site.settings;
    const next: Settings = {
      ...was,
      name: name ?? was.name,
      language: fields.language ?? was.language,
      home: fields.home === undefined ? was.home : fields.home,
      trail: fields.trail === undefined || isSameJson(fields.trail, was.trail) ? was.trail : fields.trail,
      timeZone: fields.timeZone ?? was.timeZone,
      look: fields.look === undefined || isSameJson(fields.look, was.look) ? was.look : fields.look,
      hosts: hosts === undefined || isSameJson(hosts, was.hosts) ? was.hosts : hosts,
    };
    const before: {
      name?: string;
      language?: Settings['language'];
      home?: Settings['home'];
      trail?: Settings['trail'];
      timeZone?: string;
      look?: Settings['look'];
      hosts?: string[];
    } = {};
    if (next.name !== was.name) before.name = was.name;
    if (next.language !== was.language) before.language = was.language;
    if (next.home !== was.home) before.home = was.home;
    if (next.trail !== was.trail) before.trail = was.trail;
    if (next.timeZone !== was.timeZone) before.timeZone = was.timeZone;
    if (next.look !== was.look) before.look = was.look;
    if (next.hosts !== was.hosts) before.hosts = [...was.hosts];

    const change = new SiteChange(site);
    if (Object.keys(before).length > 0) change.become(withSettings(site, next));
    settleAfter(change, []);
    restoreSlugs(change, restores);
    if (change.site === site) return { ok: true, site, inverse: [], touched: [] };
    return {
      ok: true,
      site: change.site,
      inverse: [{ name: 'site.set', fields: before, restores: slugsBefore(change) }],
      touched: [...change.touched],
    };
  },

  cells: ({ fields }) => Object.keys(fields).map((field) => `site.${field}`),

  words({ fields }, site) {
    const parts: string[] = [];
    if (fields.name !== undefined) parts.push(`renamed the site to ‘${fields.name}’`);
    if (fields.language !== undefined) parts.push(`set the site’s language to ${fields.language}`);
    if (fields.home !== undefined)
      parts.push(
        fields.home === null ? 'let the first page be home' : `made ${quoted(site, fields.home)} the home page`,
      );
    if (fields.trail !== undefined) parts.push('set how trails look');
    if (fields.timeZone !== undefined) parts.push(`set the site’s time zone to ${fields.timeZone}`);
    if (fields.look !== undefined) parts.push('changed the look');
    if (fields.hosts !== undefined) parts.push('set which hosts’ frames pages may show');
    return parts.join(', ') || 'left the settings as they were';
  },
});

/** Whether the platform knows a time zone of that name. */
function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}
