import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FIELD_DRAWS } from '../testing/draw-page-edits.ts';
import { Draw } from '../testing/draw.ts';
import { holds } from '../testing/holds.ts';
import { anyPlantedSite } from '../testing/random-site.ts';
import type { SiteNode } from './node.ts';
import { PAGE_FIELD_NAMES, type PageFieldName, pageField } from './page-fields.ts';
import type { Site } from './site.ts';

/** A node of a site, with a change of one of its fields; both drawn. */
const anyChange = (name: PageFieldName) =>
  fc
    .tuple(anyPlantedSite, fc.nat(), fc.integer())
    .map(([site, at, seed]): { site: Site; node: SiteNode; change: unknown } | null => {
      const nodes = [...site.nodes.values()];
      const node = nodes[at % nodes.length];
      const change = node && FIELD_DRAWS[name](node, site, new Draw(seed));
      return node === undefined || change === undefined ? null : { site, node, change };
    });

describe.each(PAGE_FIELD_NAMES)('the field %s', (name) => {
  const field = pageField(name);
  const law = (holdsOf: (given: { site: Site; node: SiteNode; change: unknown }) => void) =>
    holds(
      fc.property(anyChange(name), (given) => given === null || holdsOf(given)),
      { numRuns: 40 },
    );

  it('is changed, and back by the change between the two', () => {
    let changed = 0;
    law(({ node, change }) => {
      const before = node[name];
      const after = field.with(before, field.change.parse(change));
      if (!field.isSame(before, after)) changed += 1;
      const back = field.with(after, field.change.parse(field.between(after, before)));
      // A slug that was not there is what the title gives; the operation sees to that.
      if (name !== 'slug') expect(field.isSame(back, before)).toBe(true);
      expect(field.isSame(field.with(before, field.between(before, after)), after)).toBe(true);
    });
    expect(changed).toBeGreaterThan(0);
  });

  it('is kept, and read again as it was, through JSON and its schema', () => {
    law(({ node, change }) => {
      for (const value of [field.none, node[name], field.with(node[name], change)]) {
        const kept = field.kept.parse(JSON.parse(JSON.stringify(field.toKept(value))));
        expect(field.isSame(field.fromKept(kept), value)).toBe(true);
      }
    });
  });

  it('has words for what was done, and for a difference', () => {
    expect(field.called).toMatch(/^[A-Z]/);
    let told = 0;
    law(({ change, site }) => {
      const words = field.words(change, '‘Visit’', site.settings.language);
      if (words === '') return;
      told += 1;
      expect(words).toMatch(/‘Visit’/);
    });
    expect(told).toBeGreaterThan(0);
  });

  it('asks for nothing where a file says what it is', () => {
    law(({ node, site }) => {
      const { language } = site.settings;
      const said = field.file.write(node[name], language);
      if (said !== undefined) expect(field.file.change(said, node[name], language)).toBeUndefined();
      else
        expect(field.file.absent === undefined || !field.file.change(field.file.absent, node[name], language)).toBe(
          true,
        );
    });
  });
});
