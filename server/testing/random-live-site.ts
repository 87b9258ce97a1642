import type { AccessChange, LabelId, PassphraseId } from '#core/model/access.ts';
import { type AudienceId, SIGNED_OUT } from '#core/model/audience.ts';
import { type SectionRule, type TextPart, contentIdOf } from '#core/model/content.ts';
import { type ContentId, type PageId, toPageId } from '#core/model/ids.ts';
import type { DetailsChange } from '#core/model/details.ts';
import type { FieldId } from '#core/model/kind-field.ts';
import { PLAIN_PAGE_LIST, THIS_PAGE } from '#core/sections/page-list.ts';
import { type FormField, type FormId, NO_FORM_FIELD_SETTINGS } from '#core/model/site-form.ts';
import type { SharedId } from '#core/model/shared-section.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import { emptySite, siteAfter } from '#core/testing/random-site.ts';
import { type StoredContent, acceptContent } from '../contents/content-service.ts';

export const AUDIENCES = ['a0', 'a1', 'a2', 'a3', 'a4', 'a5'] as AudienceId[];
/** The passphrases that its pages ask for, by id. */
export const PASSPHRASES = { passphraseNumber0: 'ebb and flow', passphraseNumber1: 'spring tide' };
const LABELS = ['l0', 'l1'] as LabelId[];
/** The kind of half of its pages: each says words of its own in a field that visitors see and in one that they do not, and names others. */
const KIND = 'kind' as LabelId;
const [SAID, KEPT, NAMES, PHOTO, PAPER] = ['said', 'kept', 'names', 'photo', 'paper'] as FieldId[] as [
  FieldId,
  FieldId,
  FieldId,
  FieldId,
  FieldId,
];
const FORM = 'form' as FormId;
/** One that the site does not have: what is kept from it is for nobody. */
const GONE = 'gone' as AudienceId;

/** The files that pages show, and sections of theirs: many pages show the same. */
export const FILES_OF_PAGES = 120;
export const FILES_OF_SECTIONS = 40;
export const fileOfPage = (n: number): string => `PageFile${String(n % FILES_OF_PAGES).padStart(8, '0')}`;
/** The files in the fields of pages of its kind, those with an even number; and those in a field that is not for visitors, which nobody gets. */
export const FILES_OF_FIELDS = 150;
export const fileOfField = (n: number): string => `FeldFile${String(n % FILES_OF_FIELDS).padStart(8, '0')}`;
export const fileOfKept = (n: number): string => `KeptFile${String(n % FILES_OF_FIELDS).padStart(8, '0')}`;
export const fileOfSection = (n: number): string => `PartFile${String(n % FILES_OF_SECTIONS).padStart(8, '0')}`;

/** Its shared sections: each has words and a file, and a stretch for some with words and a file of its own. */
export const SHARED = Array.from({ length: 6 }, (_, n) => `shared${n}` as SharedId);
export const fileOfShared = (n: number): string => `SharFile${String(n).padStart(8, '0')}`;
export const fileOfSharedPart = (n: number): string => `SharPart${String(n).padStart(8, '0')}`;
/** Where a page shows a shared section: for all who get the page, or in its stretch for some. */
export interface SharedPlace {
  readonly shared: number;
  readonly isInSection: boolean;
}

/**
 * A live site of so many pages, each with words and a file of its own in title, description and text, and rules on every fourth.
 * The library of the site has to be filled beside it.
 */
export function randomLiveSite(key: string, seed: number, size = 300) {
  /** Whom the section of each page is for, by number; the others have none. */
  const sections = new Map<number, SectionRule>();
  /** The shared sections that each page shows, by its number. */
  const sharedOn = new Map<number, readonly SharedPlace[]>();
  let state = seed * 7919;
  const random = (below: number) => (state = (state * 48271) % 2147483647) % below;
  const some = () => AUDIENCES.filter(() => random(3) === 0);
  const operations: Operation[] = AUDIENCES.map((audience, at) => ({
    name: 'audience.add',
    audience,
    title: `Audience ${at}`,
    includes: at > 0 && random(3) === 0 ? [AUDIENCES[random(at)]!] : [],
  }));
  for (const label of LABELS)
    operations.push({
      name: 'label.add',
      label,
      title: label,
      rule: {
        ...(random(2) === 0 ? { only: [AUDIENCES[random(6)]!] } : { except: [AUDIENCES[random(6)]!] }),
        ...(random(2) === 0 && { closedLook: 'locked' }),
        ...(random(2) === 0 && { search: 'page' }),
      },
    });
  operations.push(
    { name: 'label.add', label: KIND, title: 'Course', about: 'course' },
    { name: 'field.add', label: KIND, field: SAID, title: 'Said', settings: { property: 'courseCode' } },
    {
      name: 'field.add',
      label: KIND,
      field: KEPT,
      title: 'Kept',
      settings: { isForVisitors: false, property: 'provider' },
    },
    { name: 'field.add', label: KIND, field: PHOTO, title: 'Photo', settings: { type: 'file', property: 'image' } },
    { name: 'field.add', label: KIND, field: PAPER, title: 'Paper', settings: { type: 'file', isForVisitors: false } },
    {
      name: 'field.add',
      label: KIND,
      field: NAMES,
      title: 'Names',
      settings: { type: 'pages', isSeveral: true, backName: 'Named by', property: 'instructor' },
    },
  );
  /** What another page says in its fields, in a text. */
  const valuesOf = (n: number): TextPart => ({
    type: 'paragraph',
    content: [SAID, KEPT, NAMES].map((field) => ({ type: 'detail', attrs: { field, page: `p${n}` } })),
  });
  const pages: PageId[] = [];
  const contents: StoredContent[] = [];
  const anyRule = (): SectionRule => ({
    only: random(3) === 0 ? null : [random(6) === 0 ? SIGNED_OUT : AUDIENCES[random(6)]!],
    except: random(3) === 0 ? [random(4) === 0 ? GONE : AUDIENCES[random(6)]!] : [],
  });
  const paragraph = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] });
  const download = (file: string) => ({ type: 'download', attrs: { file, words: '' } });
  const place = (of: number) => ({ type: 'shared', attrs: { of: SHARED[of]! } });
  const keep = (content: TextPart[]): ContentId => {
    const document = { type: 'doc' as const, content };
    const id = contentIdOf(document);
    contents.push(acceptContent({ id, document }));
    return id;
  };
  const sharedRules = SHARED.map(anyRule);
  for (const [n, shared] of SHARED.entries()) {
    const forSome = [paragraph(`SharedPart${n}word on the slip.`), download(fileOfSharedPart(n))];
    const content = keep([
      paragraph(`Shared${n}word at the pier.`),
      download(fileOfShared(n)),
      // One in another shows nothing.
      place((n + 1) % SHARED.length),
      { type: 'audienceSection', attrs: { ...sharedRules[n]! }, content: forSome },
    ]);
    operations.push({ name: 'shared.add', shared, title: shared, content });
  }
  // It offers pages, leads to one, and asks for agreement with another.
  const asked = (id: string, more: Partial<FormField>): FormField => ({
    ...NO_FORM_FIELD_SETTINGS,
    id: id as FieldId,
    name: id,
    ...more,
  });
  operations.push({
    name: 'form.add',
    form: FORM,
    title: 'Form',
    settings: {
      leadsTo: toPageId('p9'),
      fields: [
        asked('which', { type: 'pages', isSeveral: true }),
        asked('course', { type: 'pages', of: KIND }),
        asked('agree', { type: 'yesNo', policy: toPageId('p7') }),
      ],
    },
  });
  const lists = [
    { kind: KIND, look: 'table', fields: [SAID, KEPT, NAMES, PHOTO, PAPER] },
    { kind: KIND, order: 'field', by: SAID, group: SAID, look: 'cards' },
    { where: [{ field: NAMES, test: 'said', value: '' }], fields: [SAID], look: 'dates' },
    { where: [{ field: NAMES, test: 'is', value: THIS_PAGE }] },
    { from: 'branch' },
  ].map((one) => ({ type: 'pageList', attrs: { ...PLAIN_PAGE_LIST, from: 'site', ...one } }));
  for (let n = 0; n < size; n++) {
    const page = toPageId(`p${n}`);
    const parent = n < 5 ? null : random(8) === 0 ? null : pages[random(n)]!;
    const section = anyRule();
    const hasSection = random(3) === 0;
    if (hasSection) sections.set(n, section);
    const shared: SharedPlace[] = [];
    if (random(4) === 0) shared.push({ shared: random(SHARED.length), isInSection: false });
    if (hasSection && random(2) === 0) shared.push({ shared: random(SHARED.length), isInSection: true });
    sharedOn.set(n, shared);
    const places = (isInSection: boolean) =>
      shared.filter((one) => one.isInSection === isInSection).map((one) => place(one.shared));
    const forSome = [paragraph(`Section${n}word on the quay.`), download(fileOfSection(n)), ...places(true)];
    const content = keep([
      paragraph(`Text${n}word in the harbour.`),
      download(fileOfPage(n)),
      ...places(false),
      ...(n % 3 === 0 ? [valuesOf((n * 7919) % size)] : []),
      ...(n % 20 === 0 ? [...lists, { type: 'form', attrs: { of: FORM } }] : []),
      ...(hasSection ? [{ type: 'audienceSection', attrs: { ...section }, content: forSome }] : []),
    ]);
    const only = some();
    const access: AccessChange = {
      ...(random(2) === 0 && only.length > 0 && { only: random(8) === 0 ? [SIGNED_OUT, ...only.slice(1)] : only }),
      ...(random(6) === 0 && { except: [AUDIENCES[random(6)]!] }),
      ...(random(5) === 0 && { standsAlone: true }),
      ...(random(3) === 0 && { closedLook: random(2) === 0 ? 'locked' : 'out-of-sight' }),
      ...(random(8) === 0 && { from: random(2) === 0 ? '2020-01-01T00:00:00Z' : '2090-01-01T00:00:00Z' }),
      ...(random(8) === 0 && { engines: random(2) === 0 ? 'page' : 'branch' }),
      ...(random(8) === 0 && { search: random(2) === 0 ? 'page' : 'branch' }),
      ...(random(4) === 0 && { passphrase: Object.keys(PASSPHRASES)[random(2)] as PassphraseId }),
      ...(random(4) === 0 && { labels: [LABELS[random(2)]!] }),
    };
    operations.push({
      name: 'page.add',
      page,
      place: { parent },
      title: { en: `Title${n}word` },
      description: { en: `Description${n}word` },
      inMenus: random(5) > 0,
      hidden: random(15) === 0 ? (random(2) === 0 ? 'page' : 'branch') : 'no',
      content,
      ...(n % 2 === 0
        ? { access: { ...(random(4) === 0 && access), labels: [...(access.labels ?? []), KIND] } }
        : random(4) === 0 && { access }),
      details: {
        [SAID]: `Said${n}word`,
        [KEPT]: `Kept${n}word`,
        [PHOTO]: fileOfField(n),
        [PAPER]: fileOfKept(n),
        [NAMES]: [...new Set([toPageId(`p${random(size)}`), toPageId(`p${random(size)}`)])].join(' '),
      } as DetailsChange,
    });
    pages.push(page);
  }
  operations.push({ name: 'release.make', pages: [...pages], retire: [] });
  const site = { ...siteAfter(operations, { ...emptySite(), key: key as Site['key'] }) };
  return { site, contents, sections, sharedOn, sharedRules };
}
