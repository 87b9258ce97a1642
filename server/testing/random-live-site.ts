import type { AccessChange, LabelId, PassphraseId } from '#core/model/access.ts';
import { type AudienceId, SIGNED_OUT } from '#core/model/audience.ts';
import { type SectionRule, contentIdOf } from '#core/model/content.ts';
import { type PageId, toPageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import { emptySite, siteAfter } from '#core/testing/random-site.ts';
import { acceptContent } from '../contents/content-service.ts';

export const AUDIENCES = ['a0', 'a1', 'a2', 'a3', 'a4', 'a5'] as AudienceId[];
/** The passphrases that its pages ask for, by id. */
export const PASSPHRASES = { passphraseNumber0: 'ebb and flow', passphraseNumber1: 'spring tide' };
const LABELS = ['l0', 'l1'] as LabelId[];
/** One that the site does not have: what is kept from it is for nobody. */
const GONE = 'gone' as AudienceId;

/** The files that pages show, and sections of theirs: many pages show the same. */
export const FILES_OF_PAGES = 120;
export const FILES_OF_SECTIONS = 40;
export const fileOfPage = (n: number): string => `PageFile${String(n % FILES_OF_PAGES).padStart(8, '0')}`;
export const fileOfSection = (n: number): string => `PartFile${String(n % FILES_OF_SECTIONS).padStart(8, '0')}`;

/**
 * A live site of so many pages, each with words and a file of its own in title, description and text, and rules on every fourth.
 * The library of the site has to be filled beside it.
 */
export function randomLiveSite(key: string, seed: number, size = 300) {
  /** Whom the section of each page is for, by number; the others have none. */
  const sections = new Map<number, SectionRule>();
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
      ...(label === LABELS[1] && { about: 'course' }),
      rule: {
        ...(random(2) === 0 ? { only: [AUDIENCES[random(6)]!] } : { except: [AUDIENCES[random(6)]!] }),
        ...(random(2) === 0 && { closedLook: 'locked' }),
        ...(random(2) === 0 && { search: 'page' }),
      },
    });
  const pages: PageId[] = [];
  const contents = [];
  for (let n = 0; n < size; n++) {
    const page = toPageId(`p${n}`);
    const parent = n < 5 ? null : random(8) === 0 ? null : pages[random(n)]!;
    const paragraph = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] });
    const section = {
      only: random(3) === 0 ? null : [random(6) === 0 ? SIGNED_OUT : AUDIENCES[random(6)]!],
      except: random(3) === 0 ? [random(4) === 0 ? GONE : AUDIENCES[random(6)]!] : [],
    };
    const hasSection = random(3) === 0;
    if (hasSection) sections.set(n, section);
    const document = {
      type: 'doc' as const,
      content: [
        paragraph(`Text${n}word in the harbour.`),
        { type: 'download', attrs: { file: fileOfPage(n), words: '' } },
        ...(hasSection
          ? [
              {
                type: 'audienceSection',
                attrs: section,
                content: [
                  paragraph(`Section${n}word on the quay.`),
                  { type: 'download', attrs: { file: fileOfSection(n), words: '' } },
                ],
              },
            ]
          : []),
      ],
    };
    const content = contentIdOf(document);
    contents.push(acceptContent({ id: content, document }));
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
      ...(random(4) === 0 && { access }),
    });
    pages.push(page);
  }
  operations.push({ name: 'release.make', pages: [...pages], retire: [] });
  const site = { ...siteAfter(operations, { ...emptySite(), key: key as Site['key'] }) };
  return { site, contents, sections };
}
