import { z } from 'zod';
import { type FileId, fileIdSchema } from '../files/file.ts';
import { TYPE_PAIRS } from '../look/type-pairs.ts';

/** The sets of colours that are computed from those of a look. */
export const SCHEME_NAMES = ['plain', 'tinted', 'strong', 'dark'] as const;
export type SchemeName = (typeof SCHEME_NAMES)[number];

/** Screens on which pages are light, and those on which they are dark. */
export const SCREENS = ['light', 'dark'] as const;
export type Screen = (typeof SCREENS)[number];

export const MAX_CSS_LENGTH = 20_000;

const colourSchema = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour is # and six signs of 0–9 and a–f, such as #0e6470');

export const lookSchema = z.strictObject({
  /** The colour of the organisation, as sRGB. */
  colour: colourSchema,
  /** The one of links and buttons; null for the first. */
  accent: colourSchema.nullable(),
  /** The families of headings and of text. */
  pair: z.enum(TYPE_PAIRS.map(({ id }) => id)),
  /** How large the text is, and how much larger headings are. */
  size: z.enum(['small', 'usual', 'large']),
  scale: z.enum(['calm', 'usual', 'bold']),
  weight: z.enum(['light', 'usual', 'heavy']),
  /** How long a line of text gets. */
  width: z.enum(['narrow', 'usual', 'wide']),
  room: z.enum(['dense', 'usual', 'roomy']),
  corners: z.enum(['square', 'soft', 'round']),
  lines: z.enum(['none', 'fine', 'strong']),
  /** The colours of the header, and of the footer. */
  header: z.enum(SCHEME_NAMES),
  footer: z.enum(SCHEME_NAMES),
  /** The organisation's sign in the header, as a picture of the library; the name where there is none. */
  logo: fileIdSchema.nullable().default(null),
  /** The same for dark grounds; null where the first one can be seen there too. */
  logoOnDark: fileIdSchema.nullable().default(null),
  /** Whether the site's name stands beside the logo; else the logo says it. */
  withName: z.boolean().default(true),
  /** CSS that somebody wrote for visitors’ pages; '' for none. What of it holds is worked out where it is used. */
  css: z.string().max(MAX_CSS_LENGTH).default(''),
});
/** How a site appears to its visitors: few decisions, from which all colours and sizes are computed. */
export type Look = Readonly<z.infer<typeof lookSchema>>;

/** What a site looks like until somebody decides. */
export const FIRST_LOOK: Look = {
  colour: '#0e6470',
  accent: null,
  pair: 'quay',
  size: 'usual',
  scale: 'usual',
  weight: 'usual',
  width: 'usual',
  room: 'usual',
  corners: 'soft',
  lines: 'fine',
  header: 'plain',
  footer: 'plain',
  logo: null,
  logoOnDark: null,
  withName: true,
  css: '',
};

/** A look with what no suggestion touches: the signs of the organisation, and the CSS that somebody wrote. */
export const withOwnOf = (look: Look, { logo, logoOnDark, withName, css }: Look): Look => ({
  ...look,
  logo,
  logoOnDark,
  withName,
  css,
});

/** The files of the library that a look shows. */
export const logosOf = ({ logo, logoOnDark }: Look): FileId[] => [logo, logoOnDark].filter((one) => one !== null);
