import { isSameJson } from './canonical-json.ts';
import { z } from 'zod';
import {
  type AccessChange,
  type AccessRule,
  NO_RULE,
  accessChange,
  accessChangeSchema,
  fromKeptAccess,
  sameAccess,
  toKeptAccess,
  withAccess,
} from './access.ts';
import {
  type Details,
  type DetailsChange,
  detailsChange,
  detailsChangeSchema,
  keptDetailsSchema,
  sameDetails,
  withDetails,
} from './details.ts';
import { accessWords, frameWords, planWords } from './field-words.ts';
import {
  type PageFrame,
  frameChange,
  frameChangeSchema,
  fromKeptFrame,
  sameFrame,
  toKeptFrame,
  withFrame,
} from './frame.ts';
import { type ContentId, type Language, contentIdSchema } from './ids.ts';
import {
  NO_PLAN,
  type PagePlan,
  type PlanChange,
  fromKeptPlan,
  keptPlanSchema,
  planChange,
  planChangeSchema,
  samePlan,
  toKeptPlan,
  withPlan,
} from './plan.ts';
import type { Permission } from './permission.ts';
import { NO_SLUGS, type Slugs, isReservedSlug, sameSlugs, slugsSchema } from './slug.ts';
import { type Target, targetSchema } from './target.ts';
import { NO_TEXTS, type Texts, sameTexts, textIn, textsChange, textsSchema, withTexts } from './texts.ts';

export const NODE_TYPES = ['page', 'heading', 'link'] as const;
export type NodeType = (typeof NODE_TYPES)[number];

/** `page`: this page alone cannot be reached; `branch`: nor anything below it. */
export const HIDDEN = ['no', 'page', 'branch'] as const;
export type Hidden = (typeof HIDDEN)[number];

export const MAX_TITLE_LENGTH = 300;
export const MAX_DESCRIPTION_LENGTH = 2000;

/** What a page, a heading or a link says of itself. Never changed in place. */
export interface PageValues {
  readonly type: NodeType;
  readonly title: Texts;
  /** The menu label; where it is empty the title serves. */
  readonly label: Texts;
  /** Empty for links, which have no address of their own. */
  readonly slug: Slugs;
  readonly description: Texts;
  /** The title that search engines and browsers show; where it is empty the title serves. */
  readonly searchTitle: Texts;
  /** The page's text, or null while it has none. */
  readonly content: ContentId | null;
  /** For a link only. */
  readonly target: Target | null;
  readonly inMenus: boolean;
  readonly hidden: Hidden;
  /** Its own rule of who may open it, or null where it has none. */
  readonly access: AccessRule | null;
  /** What it says of its layout, its trail and what it lists, or null where it says nothing. */
  readonly frame: PageFrame | null;
  /** For a heading: whether it adds a step to the addresses below it. Always true for a page, false for a link. */
  readonly inAddress: boolean;
  /** What it says in the fields of its kind, or null where it says nothing. */
  readonly details: Details | null;
  /** What is planned for it, or null where nothing is. The plan never goes live. */
  readonly plan: PagePlan | null;
}
export type PageFieldName = keyof PageValues;

/**
 * One field of a page, in all places that have to know of it: operations, history, releases, the database, the site as
 * it is sent, files, the shared plan. Adding a field is adding it here; `docs/architecture.md` names what else there is.
 */
export interface PageField<Value, Change, Kept, InFile> {
  /** What is said of it where nothing was said. */
  readonly none: Value;
  /** A change as an operation brings it. */
  readonly change: z.ZodType<Change>;
  /** The value with a change made. Where nothing changes the same object comes back. */
  with(value: Value, change: Change): Value;
  /** The change that makes `before` of `after`. */
  between(after: Value, before: Value): Change;
  isSame(a: Value, b: Value): boolean;
  /** How it is kept and sent: a word, yes or no, or any JSON. */
  readonly keptAs: 'word' | 'yes-no' | 'json';
  readonly kept: z.ZodType<Kept>;
  toKept(value: Value): Kept;
  fromKept(kept: Kept): Value;
  /** How it is called where the draft differs from what visitors have; null for what never goes live. */
  readonly aspect: string | null;
  /** The same, for people. */
  readonly called: string;
  /** What somebody needs to change it. */
  readonly permission: Permission;
  /** What was done, after the name of who did it: "changed the description of ‘Visit’". */
  words(change: Change, name: string, language: Language): string;
  /** What of it those see whom the plan is shared with. */
  forGuests(value: Value): Value;
  /** The change that gives it to a copy in another site, of a language that may be another one; undefined: it stays behind. */
  carried(value: Value, from: Language, to: Language): Change | undefined;
  /** Its form in files, where texts are those of one language. */
  readonly file: FileForm<Value, Change, InFile>;
  /** For a field that is set part by part: the names of the parts that a change sets, and the change of some of them. */
  partsOf?(change: Change): string[];
  partsAmong?(change: Change, isWanted: (part: string) => boolean): Change | undefined;
}

/** How files have a field. */
export interface FileForm<Value, Change, InFile> {
  readonly schema: z.ZodType<InFile>;
  /** Whether a site file always says it. */
  readonly isAlways: boolean;
  /** What a site file means that leaves it out; undefined: it stays as it is. */
  readonly absent: InFile | undefined;
  /** Undefined: it is left out. */
  write(value: Value, language: Language): InFile | undefined;
  /** The change that makes it what the file says; undefined where it is that already. */
  change(said: InFile, value: Value, language: Language): Change | undefined;
  /** Its column in CSV and its attribute in OPML, and what its cells hold; null where these formats leave it out. */
  readonly column: { readonly name: string; readonly cells: Cells } | null;
}
/** What cells of CSV and attributes of OPML hold: a text, yes or no, one of some words, or where a link points. */
export type Cells = 'text' | 'yes-no' | 'target' | readonly string[];

const asItIs = <Value>(value: Value): Value => value;
const latter = <Value>(_: Value, next: Value): Value => next;

type Words<Change> = PageField<unknown, Change, unknown, unknown>['words'];

/** A text by language. */
const texts = <Aspect extends string>(is: {
  longest: number;
  aspect: Aspect;
  called: string;
  permission: Permission;
  column: string;
  words: Words<Texts>;
}) => ({
  none: NO_TEXTS,
  change: textsSchema(is.longest),
  with: withTexts,
  between: textsChange,
  isSame: sameTexts,
  keptAs: 'json' as const,
  kept: textsSchema(is.longest),
  toKept: asItIs<Texts>,
  fromKept: asItIs<Texts>,
  aspect: is.aspect,
  called: is.called,
  permission: is.permission,
  words: is.words,
  forGuests: asItIs<Texts>,
  // A site of another language takes the text of the one that it was written for.
  carried: (value: Texts, from: Language, to: Language): Texts =>
    value[to] !== undefined || from === to ? value : { ...value, ...(value[from] && { [to]: value[from] }) },
  file: {
    schema: z.string().max(is.longest),
    isAlways: false,
    absent: '',
    write: (value: Texts, language: Language): string | undefined => value[language],
    change: (said: string, value: Texts, language: Language): Texts | undefined =>
      said === (value[language] ?? '') ? undefined : { [language]: said },
    column: { name: is.column, cells: 'text' as Cells },
  },
});

/** A value that is set as a whole. */
const plain = <Schema extends z.ZodType, Aspect extends string>(is: {
  schema: Schema;
  none: z.output<Schema>;
  keptAs: 'word' | 'yes-no' | 'json';
  aspect: Aspect;
  called: string;
  permission: Permission;
  absent?: z.output<Schema>;
  column: { readonly name: string; readonly cells: Cells } | null;
  words: Words<z.output<Schema>>;
}) => {
  type Value = z.output<Schema>;
  const isSame = (a: Value, b: Value): boolean => a === b || (is.keptAs === 'json' && isSameJson(a, b));
  return {
    none: is.none,
    change: is.schema,
    with: latter<Value>,
    between: latter<Value>,
    isSame,
    keptAs: is.keptAs,
    kept: is.schema,
    toKept: asItIs<Value>,
    fromKept: asItIs<Value>,
    aspect: is.aspect,
    called: is.called,
    permission: is.permission,
    words: is.words,
    forGuests: asItIs<Value>,
    carried: asItIs<Value> as (value: Value) => Value | undefined,
    file: {
      schema: is.schema,
      isAlways: is.none !== null,
      absent: is.absent as Value | undefined,
      write: (value: Value): Value | undefined => value ?? undefined,
      change: (said: Value, value: Value): Value | undefined => (isSame(said, value) ? undefined : said),
      column: is.column,
    },
  };
};

/** The same, where there may be nothing. */
const orNothing = <Schema extends z.ZodType, Aspect extends string>(
  schema: Schema,
  is: Omit<Parameters<typeof plain<z.ZodNullable<Schema>, Aspect>>[0], 'schema' | 'none'>,
) => {
  const field = plain({ ...is, schema: schema.nullable(), none: null as z.output<Schema> | null });
  return { ...field, file: { ...field.file, schema } };
};

/** A value of several parts, which are set one by one; null where nothing is said. */
const parts = <Value, Change extends object, Kept extends object, Aspect extends string | null>(is: {
  schema: z.ZodType<Change>;
  kept: z.ZodType<Kept>;
  with: (value: Value | null, change: Change) => Value | null;
  between: (after: Value | null, before: Value | null) => Change;
  isSame: (a: Value | null, b: Value | null) => boolean;
  toKept: (value: Value) => Kept;
  fromKept: (kept: Kept | null) => Value | null;
  aspect: Aspect;
  called: string;
  permission: Permission;
  words: Words<Change>;
  forGuests: (value: Value | null) => Value | null;
  carried: (value: Value | null) => Change | undefined;
  absent: Change | undefined;
  /** The part that is a record, whose entries are parts of their own. */
  record?: keyof Change & string;
}) => ({
  none: null as Value | null,
  change: is.schema,
  with: is.with,
  between: is.between,
  isSame: is.isSame,
  keptAs: 'json' as const,
  kept: is.kept.nullable(),
  toKept: (value: Value | null): Kept | null => value && is.toKept(value),
  fromKept: is.fromKept,
  aspect: is.aspect,
  called: is.called,
  permission: is.permission,
  words: is.words,
  forGuests: is.forGuests,
  carried: is.carried,
  file: {
    schema: is.schema,
    isAlways: false,
    absent: is.absent,
    write: (value: Value | null): Change | undefined => (value === null ? undefined : is.between(null, value)),
    change: (said: Change, value: Value | null): Change | undefined => {
      const change = is.between(value, is.with(value, said));
      return Object.keys(change).length > 0 ? change : undefined;
    },
    column: null,
  },
  partsOf: (change: Change): string[] =>
    Object.entries(change).flatMap(([part, value]) =>
      part === is.record ? Object.keys(value as object).map((key) => `${part}.${key}`) : [part],
    ),
  partsAmong: (change: Change, isWanted: (part: string) => boolean): Change | undefined => {
    const wanted = Object.entries(change).flatMap(([part, value]): [string, unknown][] => {
      if (part !== is.record) return isWanted(part) ? [[part, value]] : [];
      const entries = Object.entries(value as object).filter(([key]) => isWanted(`${part}.${key}`));
      return entries.length > 0 ? [[part, Object.fromEntries(entries)]] : [];
    });
    return wanted.length > 0 ? (Object.fromEntries(wanted) as Change) : undefined;
  },
});

/** What a page is planned to be in a site file that says nothing of it. Questions are added, never taken away. */
const NOTHING_PLANNED = { ...NO_PLAN, questions: undefined } as PlanChange;

/** What those see of a plan whom it is shared with: not the planners' own notes, questions and references. */
function planForGuests(plan: PagePlan | null): PagePlan | null {
  const questions = Object.fromEntries(Object.keys(plan?.questions ?? {}).map((id) => [id, null]));
  return plan && withPlan(plan, { notes: null, references: [], questions });
}

/** What is planned for a page where it goes to another site: goals, sketches, old addresses and references are of the site it leaves. */
function carriedPlan(plan: PagePlan | null): PlanChange | undefined {
  const taken = withPlan(plan, { origin: NO_PLAN.origin, goals: [], oldAddresses: [], references: [], sketch: null });
  return taken === null ? undefined : toKeptPlan(taken);
}

const TITLE = texts({
  longest: MAX_TITLE_LENGTH,
  aspect: 'title',
  called: 'Renamed',
  permission: 'shape',
  column: 'title',
  words: (title, name, language) => `renamed ${name} to ‘${textIn(title, language)}’`,
});

/** In the order in which differences are shown and history tells them. */
export const PAGE_FIELDS = {
  type: plain({
    schema: z.enum(NODE_TYPES),
    none: 'page',
    keptAs: 'word',
    aspect: 'type',
    called: 'Type',
    permission: 'shape',
    column: { name: 'type', cells: NODE_TYPES },
    words: (type, name) => `made ${name} a ${type}`,
  }),
  title: {
    ...TITLE,
    file: {
      ...TITLE.file,
      isAlways: true,
      write: (title: Texts, language: Language) => textIn(title, language),
      change: (said: string, title: Texts, language: Language) =>
        said === '' || said === textIn(title, language) ? undefined : { [language]: said },
    },
  },
  label: texts({
    longest: MAX_TITLE_LENGTH,
    aspect: 'label',
    called: 'Menu label',
    permission: 'menus',
    column: 'menu_label',
    words: (change, name, language) => {
      const label = textIn(change, language);
      return label === '' ? `removed the menu label of ${name}` : `gave ${name} the menu label ‘${label}’`;
    },
  }),
  slug: {
    none: NO_SLUGS,
    change: slugsSchema,
    with: (slugs: Slugs, change: Slugs): Slugs => ({ ...slugs, ...change }),
    between: latter<Slugs>,
    isSame: sameSlugs,
    keptAs: 'json',
    kept: slugsSchema,
    toKept: asItIs<Slugs>,
    fromKept: asItIs<Slugs>,
    aspect: 'slug',
    called: 'Slug',
    permission: 'shape',
    words: (change: Slugs, name: string, language: Language) => {
      const slug = change[language];
      if (!slug) return '';
      return slug.own ? `set the slug of ${name} to ‘${slug.text}’` : `let the slug of ${name} follow its title`;
    },
    forGuests: asItIs<Slugs>,
    // In the other site it may come to stand at the root, by way of a home page, where some slugs are not to be had.
    carried: (slugs: Slugs): Slugs =>
      Object.fromEntries(Object.entries(slugs).filter(([, { own, text }]) => own && !isReservedSlug(text, true))),
    file: {
      schema: z.string().max(MAX_TITLE_LENGTH),
      isAlways: false,
      absent: undefined,
      write: (slugs: Slugs, language: Language): string | undefined => slugs[language]?.text,
      // Empty: it follows the title. A slash is how files name the home page.
      change: (said: string, slugs: Slugs, language: Language): Slugs | undefined => {
        const slug = slugs[language];
        return said === '/' || !slug || said === slug.text
          ? undefined
          : { [language]: { text: said, own: said !== '' } };
      },
      column: { name: 'slug', cells: 'text' },
    },
  },
  description: texts({
    longest: MAX_DESCRIPTION_LENGTH,
    aspect: 'description',
    called: 'Description',
    permission: 'write',
    column: 'description',
    words: (_, name) => `changed the description of ${name}`,
  }),
  searchTitle: texts({
    longest: MAX_TITLE_LENGTH,
    aspect: 'searchTitle',
    called: 'Title for search',
    permission: 'write',
    column: 'search_title',
    words: (change, name, language) => {
      const title = textIn(change, language);
      return title === '' ? `removed the title for search of ${name}` : `gave ${name} the title for search ‘${title}’`;
    },
  }),
  content: orNothing(contentIdSchema, {
    keptAs: 'word',
    aspect: 'text',
    called: 'Text',
    permission: 'write',
    absent: null,
    column: null,
    words: (_, name) => `changed the text of ${name}`,
  }),
  target: {
    ...orNothing(targetSchema, {
      keptAs: 'json',
      aspect: 'target',
      called: 'Target',
      permission: 'shape',
      column: { name: 'target', cells: 'target' },
      words: (target, name) => (target ? `set where ${name} points` : ''),
    }),
    carried: (target: Target | null) => (target && 'url' in target ? target : undefined),
  },
  inMenus: plain({
    schema: z.boolean(),
    none: true,
    keptAs: 'yes-no',
    aspect: 'inMenus',
    called: 'In menus',
    permission: 'menus',
    column: { name: 'in_menus', cells: 'yes-no' },
    words: (inMenus, name) => `${inMenus ? 'put' : 'took'} ${name} ${inMenus ? 'in' : 'off'} menus`,
  }),
  hidden: plain({
    schema: z.enum(HIDDEN),
    none: 'no',
    keptAs: 'word',
    aspect: 'hidden',
    called: 'Hidden',
    permission: 'access',
    column: { name: 'hidden', cells: HIDDEN },
    words: (hidden, name) =>
      hidden === 'no' ? `showed ${name} again` : `hid ${name}${hidden === 'branch' ? ' and its branch' : ''}`,
  }),
  access: parts({
    schema: accessChangeSchema,
    kept: accessChangeSchema,
    with: withAccess,
    between: accessChange,
    isSame: sameAccess,
    toKept: toKeptAccess,
    fromKept: fromKeptAccess,
    aspect: 'access',
    called: 'Who can open it',
    permission: 'access',
    words: accessWords,
    forGuests: () => null,
    // Audiences and labels are of the site that it leaves.
    carried: () => undefined,
    absent: NO_RULE as AccessChange,
  }),
  frame: parts({
    schema: frameChangeSchema,
    kept: frameChangeSchema,
    with: withFrame,
    between: frameChange,
    isSame: sameFrame,
    toKept: toKeptFrame,
    fromKept: fromKeptFrame,
    aspect: 'frame',
    called: 'Layout or trail',
    permission: 'menus',
    words: frameWords,
    forGuests: () => null,
    carried: () => undefined,
    absent: undefined,
  }),
  inAddress: plain({
    schema: z.boolean(),
    none: false,
    keptAs: 'yes-no',
    aspect: 'inAddress',
    called: 'Step in addresses',
    permission: 'shape',
    column: null,
    words: (inAddress, name) =>
      `${inAddress ? 'gave' : 'took'} ${name} ${inAddress ? 'a step in' : 'out of'} addresses`,
  }),
  details: {
    none: null as Details | null,
    change: detailsChangeSchema,
    with: withDetails,
    between: detailsChange,
    isSame: sameDetails,
    keptAs: 'json',
    kept: keptDetailsSchema.nullable(),
    toKept: asItIs<Details | null>,
    fromKept: asItIs<Details | null>,
    aspect: 'details',
    called: 'Fields',
    permission: 'write',
    words: (change: DetailsChange, name: string) => {
      const count = Object.keys(change).length;
      return `${count === 1 ? 'changed a field' : `changed ${count} fields`} of ${name}`;
    },
    forGuests: () => null,
    // Kinds are of the site that it leaves.
    carried: () => undefined,
    file: {
      schema: detailsChangeSchema,
      isAlways: false,
      absent: undefined,
      write: (details: Details | null): DetailsChange | undefined => details ?? undefined,
      change: (said: DetailsChange, details: Details | null): DetailsChange | undefined => {
        const change = detailsChange(details, withDetails(details, said));
        return Object.keys(change).length > 0 ? change : undefined;
      },
      column: null,
    },
    partsOf: (change: DetailsChange): string[] => Object.keys(change),
    partsAmong: (change: DetailsChange, isWanted: (part: string) => boolean): DetailsChange | undefined => {
      const wanted = Object.entries(change).filter(([id]) => isWanted(id));
      return wanted.length > 0 ? Object.fromEntries(wanted) : undefined;
    },
  },
  plan: parts({
    schema: planChangeSchema,
    kept: keptPlanSchema,
    with: withPlan,
    between: planChange,
    isSame: samePlan,
    toKept: toKeptPlan,
    fromKept: fromKeptPlan,
    aspect: null,
    called: 'Plan',
    permission: 'plan',
    words: planWords,
    forGuests: planForGuests,
    carried: carriedPlan,
    absent: NOTHING_PLANNED,
    record: 'questions',
  }),
} as const satisfies { readonly [Name in PageFieldName]: PageField<PageValues[Name], unknown, unknown, unknown> };

/** Any field, where what it holds does not matter. */
type AnyField = PageField<unknown, unknown, unknown, unknown>;
export const PAGE_FIELD_NAMES = Object.keys(PAGE_FIELDS) as readonly PageFieldName[];
/** The field of that name, where it is not known which one. */
export const pageField = (name: PageFieldName): AnyField => PAGE_FIELDS[name] as unknown as AnyField;

type Fields = typeof PAGE_FIELDS;
export type ChangeOf<Name extends PageFieldName> = z.output<Fields[Name]['change']>;
export type KeptOf<Name extends PageFieldName> = z.output<Fields[Name]['kept']>;
export type InFileOf<Name extends PageFieldName> = NonNullable<Parameters<Fields[Name]['file']['change']>[0]>;

/** One thing for each field, by its name. */
export const forEachField = <Made>(make: (field: AnyField, name: PageFieldName) => Made): Record<PageFieldName, Made> =>
  Object.fromEntries(PAGE_FIELD_NAMES.map((name) => [name, make(pageField(name), name)])) as Record<
    PageFieldName,
    Made
  >;

/** What a new page says of itself. */
export const NO_VALUES = Object.freeze(forEachField(({ none }) => none)) as unknown as PageValues;

/** The fields of an operation that sets some of them, each as it is changed. */
export type PageChanges = { -readonly [Name in PageFieldName]?: ChangeOf<Name> | undefined };
type OptionalChanges = { readonly [Name in PageFieldName]: z.ZodOptional<Fields[Name]['change']> };
/** For schemas of operations that say what a page says of itself. */
export const pageChangesShape = forEachField(({ change }) => change.optional()) as unknown as OptionalChanges;
type KeptValues = { readonly [Name in PageFieldName]: z.ZodDefault<Fields[Name]['kept']> };
/** For schemas of nodes as they are kept. What was kept before there was a field says nothing of it. */
export const keptValuesShape = forEachField(({ kept, toKept, none }) =>
  kept.default(toKept(none)),
) as unknown as KeptValues;

/** What a page says of itself as it is kept, and read again. */
export const toKeptValues = (values: PageValues): { [Name in PageFieldName]: KeptOf<Name> } =>
  forEachField((field, name) => field.toKept(values[name])) as { [Name in PageFieldName]: KeptOf<Name> };
export const fromKeptValues = (kept: { readonly [Name in PageFieldName]: KeptOf<Name> }): PageValues =>
  forEachField((field, name) => field.fromKept(kept[name])) as unknown as PageValues;

/** The changes that make `before` of `after`: of the fields that differ. */
export const changesBetween = (after: PageValues, before: PageValues): PageChanges =>
  Object.fromEntries(
    PAGE_FIELD_NAMES.flatMap((name) => {
      const field = pageField(name);
      return field.isSame(after[name], before[name]) ? [] : [[name, field.between(after[name], before[name])]];
    }),
  );

/** What a page says of itself with changes made; values that do not change are the same objects. */
export const withChanges = (values: PageValues, changes: PageChanges): PageValues =>
  forEachField((field, name) =>
    changes[name] === undefined ? values[name] : field.with(values[name], changes[name]),
  ) as unknown as PageValues;

/** The changes that give all of it to a new page: what adds such a page again. */
export const changesOf = (values: PageValues): PageChanges & { title: Texts } =>
  changesBetween(NO_VALUES, values) as PageChanges & { title: Texts };

/** What a copy in a site of another language is given of it; what is of the site that it leaves stays behind. */
export const carriedChanges = (values: PageValues, from: Language, to: Language): PageChanges & { title: Texts } =>
  forEachField((field, name) => field.carried(values[name], from, to)) as never;

/** What of it those see whom the plan is shared with; the same object where that is all. */
export function valuesForGuests<Values extends PageValues>(values: Values): Values {
  const seen = forEachField((field, name) => field.forGuests(values[name])) as unknown as PageValues;
  return PAGE_FIELD_NAMES.every((name) => seen[name] === values[name]) ? values : { ...values, ...seen };
}
