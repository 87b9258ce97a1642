import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { type LabelId, ruleOf, withAccess } from '../model/access.ts';
import { saysWho, withoutNarrowing } from '../model/narrowing.ts';
import { kindAmong, withKind } from '../model/page-label.ts';
import { toPageId } from '../model/ids.ts';
import { nodeAt } from '../model/site.ts';
import { anySite, siteAfter } from '../testing/random-site.ts';
import { applyOperation, wordsOf } from './apply.ts';
import type { Operation } from './operation.ts';

const page = toPageId('lofting');
const [course, person, handbook] = ['course', 'person', 'handbook'] as LabelId[] as [LabelId, LabelId, LabelId];
const bears = (...labels: LabelId[]): Operation => ({ name: 'page.set', page, fields: { access: { labels } } });
const site = siteAfter([
  { name: 'page.add', page, place: { parent: null }, title: { en: 'Lofting' } },
  { name: 'label.add', label: course, title: 'Course', about: 'course' },
  { name: 'label.add', label: person, title: 'Person', about: 'person' },
  { name: 'label.add', label: handbook, title: 'Handbook', rule: { only: ['everyone' as never] } },
]);

describe('a kind', () => {
  it('is a label of which a page bears one, beside labels that are none', () => {
    expect(applyOperation(site, bears(course, handbook))).toMatchObject({ ok: true });
    expect(applyOperation(site, bears(course, person))).toMatchObject({
      ok: false,
      code: 'kind-twice',
      params: { page },
    });
  });

  it('is not made of a label while a page that bears it has a kind', () => {
    const labelled = siteAfter([bears(course, handbook)], site);
    const asKind: Operation = { name: 'label.set', label: handbook, fields: { about: 'page' } };
    expect(applyOperation(labelled, asKind)).toMatchObject({ ok: false, code: 'kind-twice' });
    const freed = siteAfter([{ name: 'label.set', label: course, fields: { about: null } }, asKind], labelled);
    expect(kindAmong(ruleOf(nodeAt(freed, page)).labels, freed.settings.labels)?.id).toBe(handbook);
  });

  it('is told of in words', () => {
    expect(wordsOf({ name: 'label.add', label: 'x' as LabelId, title: 'Boat', about: 'page' }, site)).toBe(
      'added the kind ‘Boat’',
    );
    expect(wordsOf({ name: 'label.set', label: handbook, fields: { about: 'article' } }, site)).toBe(
      'made ‘Handbook’ a kind of page',
    );
  });

  it('of any page takes the place of the one before, and leaves its other labels', () =>
    holds(
      fc.property(anySite, ({ settings: { labels }, nodes }) => {
        const kinds = labels.filter(({ about }) => about !== undefined);
        for (const node of nodes.values()) {
          const borne = ruleOf(node).labels;
          for (const kind of [...kinds, null]) {
            const next = withKind(borne, kind?.id ?? null, labels);
            expect(kindAmong(next, labels)).toBe(kind);
            const others = (ids: readonly LabelId[]) => ids.filter((id) => kinds.every((one) => one.id !== id));
            expect(others(next)).toEqual(others(borne));
          }
        }
      }),
      { numRuns: 100 },
    ));
});

it('what narrows a page is removed as a whole, and what says nothing of who may open it stays', () =>
  holds(
    fc.property(anySite, ({ settings: { labels }, nodes }) => {
      for (const { access } of nodes.values()) {
        const rule = ruleOf({ access });
        const after = ruleOf({ access: withAccess(access, withoutNarrowing(rule.labels, labels)) });
        expect(saysWho(after, labels)).toBe(false);
        const { only, except, standsAlone, passphrase, labels: borne, ...rest } = rule;
        expect(after).toMatchObject(rest);
        if (!saysWho(rule, labels))
          expect(after).toEqual({ only, except, standsAlone, passphrase, labels: borne, ...rest });
      }
    }),
    { numRuns: 100 },
  ));
