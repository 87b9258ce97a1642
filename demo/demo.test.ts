import { describe, expect, it } from 'vitest';
import { derivedOf } from '#core/derive/derived.ts';
import { menuTableOf } from '#core/derive/menu-table.ts';
import { checkSite } from '#core/model/check-site.ts';
import { plainTextOf } from '#core/model/content.ts';
import { acceptContent } from '#server/contents/content-service.ts';
import { DemoBuilder, buildLiveSite } from './build-demo.ts';
import { demoDocument } from './demo-text.ts';
import { pellowAccess } from './pellow-access.ts';
import { pellowMenus } from './pellow-menus.ts';
import { PELLOW_QUAY, PELLOW_QUAY_DRAFTS } from './pellow-quay.ts';
import { TERN_SOUND } from './tern-sound.ts';

const builder = new DemoBuilder('pq');
const school = buildLiveSite(
  'pellow-quay',
  'Pellow Quay School of Boatbuilding',
  builder,
  PELLOW_QUAY,
  (idOf, site) => [
    ...pellowAccess(idOf, new Date('2026-11-25T09:00:00Z'), (blocks) => builder.contentOf(blocks)),
    ...pellowMenus(idOf, site),
  ],
);
const { outline, hiddenBy } = derivedOf(school);
const main = menuTableOf(school, school.settings.menus[0]!);

describe('the school', () => {
  it('is a sound site of more than a hundred pages, most of them with a text', () => {
    expect(checkSite(school)).toEqual([]);
    expect(outline.nodes.length).toBeGreaterThan(100);
    expect(outline.nodes.filter((node) => node.content !== null).length).toBeGreaterThanOrEqual(60);
  });
  it('is three levels deep at least, with headings, links, hidden branches and a branch off menus', () => {
    expect(Math.max(...outline.depth)).toBeGreaterThanOrEqual(3);
    expect(new Set(outline.nodes.map((node) => node.type))).toEqual(new Set(['page', 'heading', 'link']));
    expect(hiddenBy.some((by) => by !== -1)).toBe(true);
    const students = outline.rowOf.get(builder.idOf('Students'))!;
    for (let row = students; row < outline.end[students]!; row++) expect(main.answerAt(row)).toBe('off menus');
  });
  it('has texts that the editor takes, of whole sentences', () => {
    for (const [id, document] of builder.documents) {
      expect(acceptContent({ id, document }).html).toMatch(/^<(p|h2|details|ul|ol)/);
      expect(plainTextOf(document)).toMatch(/[.!?:*]?[.?!]?$/);
    }
  });
  it('has drafts that can be added where they belong', () => {
    for (const draft of PELLOW_QUAY_DRAFTS) expect(() => builder.idOf(draft.into)).not.toThrow();
  });
});

describe('the demo data', () => {
  it('names no address but invented ones', () => {
    const addresses = JSON.stringify([PELLOW_QUAY, PELLOW_QUAY_DRAFTS, TERN_SOUND]).match(/https?:\/\/[^/"]+/g) ?? [];
    expect(addresses.length).toBeGreaterThan(0);
    for (const address of addresses) expect(address).toMatch(/\.example$/);
  });
  it('makes a second, small site that is sound too', () => {
    const ferries = buildLiveSite('tern-sound', 'Tern Sound Ferry Office', new DemoBuilder('ts'), TERN_SOUND);
    expect(checkSite(ferries)).toEqual([]);
    expect(ferries.nodes.size).toBeGreaterThanOrEqual(35);
  });
});

describe('a demo text', () => {
  it('reads headings, lists and emphasis', () =>
    expect(demoDocument(['## Oars\n- ash\n- spruce', 'Two *good* ones.']).content?.map((part) => part.type)).toEqual([
      'heading',
      'bulletList',
      'paragraph',
    ]));
});
