import { z } from 'zod';
import { MAX_AUDIENCE_NAME_LENGTH, MAX_AUDIENCES } from '../model/audience.ts';
import { HEADER_STYLES, MAX_LAYOUTS, MAX_LAYOUT_NAME_LENGTH, MENU_SLOTS } from '../model/layout.ts';
import { MAX_MENU_NAME_LENGTH } from '../model/menu.ts';
import { ABOUT, MAX_LABELS, MAX_LABEL_NAME_LENGTH } from '../model/page-label.ts';
import { starterFieldsSchema, starterFormSchema } from './starter-file-fields.ts';
import { CLOSED_LOOKS, HELD_BACK, MENU_FOR, STANDS_IN } from '../model/access.ts';
import { lookSchema } from '../model/look.ts';
import { MAX_TITLE_LENGTH, NODE_TYPES } from '../model/page-fields.ts';
import { MAX_PURPOSE_LENGTH } from '../model/plan.ts';
import { MAX_FORMS, MAX_FORM_NAME_LENGTH } from '../model/site-form.ts';
import { MAX_SKETCHES } from '../model/sketch.ts';
import { starterSectionsSchema } from './starter-sections.ts';
import { sketchNameSchema, starterSketchSchema } from './starter-sketches.ts';

/** How a starter names settings of a site: ids are a site's own. */
const audienceNameSchema = z.string().trim().min(1).max(MAX_AUDIENCE_NAME_LENGTH);
const layoutNameSchema = z.string().trim().min(1).max(MAX_LAYOUT_NAME_LENGTH);
const kindNameSchema = z.string().trim().min(1).max(MAX_LABEL_NAME_LENGTH);

/** A layout that a starter's pages stand in. Menus go by their names; trails and pictures are a site's own. */
const starterLayoutSchema = z.strictObject({
  name: layoutNameSchema,
  header: z.enum(HEADER_STYLES),
  hasFooter: z.boolean(),
  hasTurns: z.boolean(),
  menus: z.partialRecord(z.enum(MENU_SLOTS), z.string().trim().min(1).max(MAX_MENU_NAME_LENGTH)),
});
export type StarterLayout = z.infer<typeof starterLayoutSchema>;

/** A kind that a starter's pages are of. Its rule is a site's own. */
const starterKindSchema = z.strictObject({
  name: kindNameSchema,
  about: z.enum(ABOUT),
  /** What its pages say of themselves, in order. */
  fields: starterFieldsSchema.optional(),
  /** The sections of what its pages begin with, by their headings; their fields stand before them. */
  sections: starterSectionsSchema.optional(),
});
export type StarterKind = z.infer<typeof starterKindSchema>;

export const MAX_SHELLS = 2000;

const audienceNames = z.array(audienceNameSchema).max(MAX_AUDIENCES);
const shellAccessSchema = z
  .strictObject({
    only: audienceNames,
    except: audienceNames,
    standsAlone: z.boolean(),
    closedLook: z.enum(CLOSED_LOOKS),
    engines: z.enum(HELD_BACK),
    search: z.enum(HELD_BACK),
    standsIn: z.enum(STANDS_IN),
    menuFor: z.enum(MENU_FOR),
  })
  .partial();
/** Who may open a page to be. Audiences go by their names; windows of time are not a starter's. */
export type ShellAccess = z.infer<typeof shellAccessSchema>;

/** A page to be: what it is called, and what it will hold. */
export interface Shell {
  readonly title: string;
  readonly type?: 'page' | 'heading';
  readonly label?: string | undefined;
  readonly slug?: string | undefined;
  readonly inMenus?: boolean | undefined;
  readonly description?: string | undefined;
  readonly purpose?: string | undefined;
  /** The headings of its sections. */
  readonly sections?: readonly string[] | undefined;
  readonly access?: ShellAccess | undefined;
  /** The name of its kind, and of its own layout. */
  readonly kind?: string | undefined;
  readonly layout?: string | undefined;
  /** The name of the form that its text ends with. */
  readonly form?: string | undefined;
  /** The name of the sketch that it names itself. */
  readonly sketch?: string | undefined;
  readonly below?: readonly Shell[] | undefined;
}

const shellSchema: z.ZodType<Shell> = z.strictObject({
  title: z.string().trim().min(1).max(MAX_TITLE_LENGTH),
  type: z.enum(NODE_TYPES).exclude(['link']).optional(),
  label: z.string().max(MAX_TITLE_LENGTH).optional(),
  slug: z.string().max(MAX_TITLE_LENGTH).optional(),
  inMenus: z.boolean().optional(),
  description: z.string().max(2000).optional(),
  purpose: z.string().max(MAX_PURPOSE_LENGTH).optional(),
  sections: starterSectionsSchema.optional(),
  access: shellAccessSchema.optional(),
  kind: kindNameSchema.optional(),
  layout: layoutNameSchema.optional(),
  form: z.string().trim().min(1).max(MAX_FORM_NAME_LENGTH).optional(),
  sketch: sketchNameSchema.optional(),
  get below() {
    return z.array(shellSchema).max(MAX_SHELLS).optional();
  },
});

/** A starter as a file: `docs/formats/starter.schema.json` is made of this. */
export const starterSchema = z.strictObject({
  format: z.literal('spur-starter'),
  version: z.literal(1),
  name: z.string().trim().min(1, 'a starter has a name').max(100),
  description: z.string().max(500),
  /** How a site that begins with it appears. */
  look: lookSchema.optional(),
  layouts: z.array(starterLayoutSchema).max(MAX_LAYOUTS).optional(),
  kinds: z.array(starterKindSchema).max(MAX_LABELS).optional(),
  forms: z.array(starterFormSchema).max(MAX_FORMS).optional(),
  sketches: z.array(starterSketchSchema).max(MAX_SKETCHES).optional(),
  pages: z.array(shellSchema).min(1, 'a starter has at least one page').max(MAX_SHELLS),
});
export type Starter = z.infer<typeof starterSchema>;
