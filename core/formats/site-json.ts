import { z } from 'zod';
import { audienceSchema } from '../model/audience.ts';
import { factSchema } from '../model/fact.ts';
import { layoutSchema } from '../model/layout.ts';
import { menuSchema } from '../model/menu.ts';
import { oldPageDecisionSchema } from '../model/old-page.ts';
import { redirectSchema } from '../model/redirect.ts';
import { faultInJson } from '../model/outside-json.ts';
import { frameHostSchema } from '../model/frame-host.ts';
import { sharedSectionSchema } from '../model/shared-section.ts';
import { boardSchema } from '../model/board.ts';
import { sketchSchema } from '../model/sketch.ts';
import { siteFormSchema } from '../model/site-form.ts';
import { trailSettingSchema } from '../model/trail-setting.ts';
import { BROUGHT_FIELDS, type BroughtFields, type BroughtTree, MAX_BROUGHT } from '../imports/brought-page.ts';
import type { TextDocument } from '../model/content.ts';
import { type PageId, contentIdSchema, languageSchema, pageIdSchema } from '../model/ids.ts';
import { lookSchema } from '../model/look.ts';
import { pageLabelSchema } from '../model/page-label.ts';
import { type InFileOf, type PageFieldName, forEachField, pageField } from '../model/page-fields.ts';
import { goalIdSchema, keptPlanSchema } from '../model/plan.ts';
import { type Site, branchOf, nodeAt } from '../model/site.ts';

/** What is said of a page; the plan in its kept form, since questions are not removed by a file. */
const valuesShape = {
  ...forEachField(({ file: { schema, isAlways } }) => (isAlways ? schema : schema.optional())),
  plan: keptPlanSchema.optional(),
};
type FilePage = {
  readonly id: PageId;
  /** The page that it stands below; it comes before in the list. Null at the top. */
  readonly parent: PageId | null;
} & { readonly [Name in PageFieldName]?: InFileOf<Name> | undefined };
const pageSchema = z.strictObject({
  id: pageIdSchema,
  parent: pageIdSchema.nullable(),
  ...valuesShape,
}) as unknown as z.ZodType<FilePage>;

/** A whole site as Spur takes it along: `docs/formats/site.schema.json` is made of this. */
export const siteFileSchema = z.strictObject({
  format: z.literal('spur-site'),
  version: z.literal(1),
  name: z.string().max(120),
  language: languageSchema,
  home: pageIdSchema.nullable(),
  audiences: z.array(audienceSchema).default([]),
  labels: z.array(pageLabelSchema).default([]),
  /** What is left out here, as in files of earlier versions, stays as it is in the site that the file is brought into. */
  facts: z.array(factSchema).optional(),
  shared: z.array(sharedSectionSchema).optional(),
  forms: z.array(siteFormSchema).optional(),
  look: lookSchema.optional(),
  hosts: z.array(frameHostSchema).optional(),
  menus: z.array(menuSchema).optional(),
  layouts: z.array(layoutSchema).optional(),
  redirects: z.array(redirectSchema).optional(),
  trail: trailSettingSchema.optional(),
  timeZone: z.string().max(60).optional(),
  goals: z.array(
    z.strictObject({ id: goalIdSchema, statement: z.string(), audience: z.string(), measure: z.string() }),
  ),
  sketches: z.array(sketchSchema).optional(),
  boards: z.array(boardSchema).optional(),
  oldPages: z.array(z.strictObject({ address: z.string(), ...oldPageDecisionSchema.shape })),
  /** In tree order. */
  pages: z.array(pageSchema),
  /** The texts of pages and their notes, as documents of the editor. */
  contents: z.array(z.strictObject({ id: contentIdSchema, document: z.looseObject({ type: z.literal('doc') }) })),
});
export type SiteFile = z.infer<typeof siteFileSchema>;

/** The site as one JSON file, with its texts. */
export function writeSiteJson(
  site: Site,
  contents: readonly { readonly id: string; readonly document: TextDocument }[],
): string {
  const { name, language, home } = site.settings;
  const file = {
    format: 'spur-site',
    version: 1,
    name,
    language,
    home,
    audiences: site.settings.audiences,
    labels: site.settings.labels,
    facts: site.settings.facts,
    shared: site.settings.shared,
    forms: site.settings.forms,
    look: site.settings.look,
    hosts: site.settings.hosts,
    menus: site.settings.menus,
    layouts: site.settings.layouts,
    redirects: site.settings.redirects,
    trail: site.settings.trail,
    timeZone: site.settings.timeZone,
    goals: site.goals,
    sketches: site.sketches,
    boards: site.boards,
    oldPages: [...site.oldPages].map(([address, decision]) => ({ address, ...decision })),
    pages: branchOf(site, null).map((id) => {
      const node = nodeAt(site, id);
      return {
        id,
        parent: node.parent,
        ...forEachField(({ file }, name) => file.write(node[name], language)),
      };
    }),
    contents,
  };
  return JSON.stringify(file, null, 1) + '\n';
}

/** Reads a site file; where it is refused, with the place of each fault in words. Line numbers are those of pages. */
export function readSiteJson(
  text: string,
): { readonly file: SiteFile; readonly tree: BroughtTree & { ok: true } } | (BroughtTree & { ok: false }) {
  const refused = (detail: string, line = 1) => ({ ok: false as const, faults: [{ line, detail }] });
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (fault) {
    return refused(`This is not JSON: ${(fault as Error).message}`);
  }
  const unsound = faultInJson(json);
  if (unsound) return refused(`${unsound.pointer || 'The file'}: ${unsound.detail}`);
  const parsed = siteFileSchema.safeParse(json);
  if (!parsed.success)
    return {
      ok: false,
      faults: parsed.error.issues
        .slice(0, 50)
        .map(({ path, message }) => ({ line: 1, detail: `${path.join('.') || 'The file'}: ${message}` })),
    };
  const file = parsed.data;
  if (file.pages.length > MAX_BROUGHT) return refused(`At most ${MAX_BROUGHT} pages can be imported at once.`);
  const placeOf = new Map<string, number>();
  const faults: { line: number; detail: string }[] = [];
  file.pages.forEach(({ id, parent }, index) => {
    if (placeOf.has(id)) faults.push({ line: index + 1, detail: `The id ‘${id}’ appears twice in the list.` });
    if (parent !== null && !placeOf.has(parent))
      faults.push({
        line: index + 1,
        detail: `Page ${index + 1} stands below ‘${parent}’, which does not come before it.`,
      });
    placeOf.set(id, index);
  });
  if (faults.length > 0) return { ok: false, faults };
  return {
    file,
    tree: {
      ok: true,
      notes: [],
      pages: file.pages.map(({ id, parent, ...said }, index) => ({
        line: index + 1,
        id,
        parent: parent === null ? null : placeOf.get(parent)!,
        fields: fieldsOf(said),
      })),
    },
  };
}

/** What a file says of a page, with what it means by leaving something out. */
const fieldsOf = (said: Omit<FilePage, 'id' | 'parent'>): BroughtFields =>
  Object.fromEntries(
    BROUGHT_FIELDS.map((name) => {
      const { absent } = pageField(name).file;
      const value = said[name];
      const isInParts = typeof absent === 'object' && absent !== null;
      return [name, isInParts ? { ...absent, ...(value as object | undefined) } : (value ?? absent)];
    }),
  );
