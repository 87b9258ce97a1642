import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ruleOf } from '../model/access.ts';
import { type ContentId, toPageId } from '../model/ids.ts';
import { isAsItsKind, kindChanges } from '../model/kind-outline.ts';
import { type PageKind, isKind, kindAmong } from '../model/page-label.ts';
import { nodeAt } from '../model/site.ts';
import { applyOperations } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { holds } from '../testing/holds.ts';
import { anySite, siteAfter } from '../testing/random-site.ts';
import { giveLabel } from './give.ts';
import { followAgain, outlineOperations, pagesOfKind } from './page-outlines.ts';

const text = (name: string) => name as ContentId;
const course = 'course' as never;
const person = 'person' as never;
const page = (name: string, content: string | null, label: string | null): Operation => ({
  name: 'page.add',
  page: toPageId(name),
  place: { parent: null },
  title: { en: name },
  ...(content !== null && { content: text(content) }),
  ...(label !== null && { access: { labels: [label as never] } }),
});
const START = siteAfter([
  { name: 'label.add', label: course, title: 'Course', about: 'course' },
  { name: 'label.add', label: person, title: 'Person', about: 'person', pageOutline: text('ofPeople') },
  page('oars', null, 'course'),
  page('rope', 'own', 'course'),
  page('marek', 'ofPeople', 'person'),
  page('visit', null, null),
]);
const kindOf = (site: typeof START, id: string) => site.settings.labels.find((one) => one.id === id) as PageKind;
const done = (site: typeof START, operations: readonly Operation[]) => {
  const outcome = applyOperations(site, operations);
  if (!outcome.ok) throw new Error(outcome.code);
  return outcome.site;
};
const contents = (site: typeof START) =>
  ['oars', 'rope', 'marek', 'visit'].map((one) => nodeAt(site, toPageId(one)).content);

describe('the outline of a kind', () => {
  it('is what pages without a text begin with, and what they follow until somebody writes on them', () => {
    const first = done(START, outlineOperations(START, kindOf(START, 'course'), text('one')));
    expect(contents(first)).toEqual(['one', 'own', 'ofPeople', null]);
    const second = done(first, outlineOperations(first, kindOf(first, 'course'), text('two')));
    expect(contents(second)).toEqual(['two', 'own', 'ofPeople', null]);
    const written = done(second, [{ name: 'page.set', page: toPageId('oars'), fields: { content: text('mine') } }]);
    const third = done(written, outlineOperations(written, kindOf(written, 'course'), text('three')));
    expect(contents(third)).toEqual(['mine', 'own', 'ofPeople', null]);
    expect(pagesOfKind(third, kindOf(third, 'course'))).toEqual({
      following: [],
      differing: [toPageId('oars'), toPageId('rope')],
      without: [],
    });
    const again = done(third, followAgain(kindOf(third, 'course'), [toPageId('rope')]));
    expect(contents(again)).toEqual(['mine', 'three', 'ofPeople', null]);
  });

  it('is not given to pages that were emptied on purpose when it changes', () => {
    const first = done(START, outlineOperations(START, kindOf(START, 'course'), text('one')));
    const emptied = done(first, [{ name: 'page.set', page: toPageId('oars'), fields: { content: null } }]);
    const second = done(emptied, outlineOperations(emptied, kindOf(emptied, 'course'), text('two')));
    expect(contents(second)[0]).toBe(null);
  });

  it('goes from the pages that follow it when it is taken away', () => {
    const gone = done(START, outlineOperations(START, kindOf(START, 'person'), null));
    expect(contents(gone)).toEqual([null, 'own', null, null]);
    expect(kindOf(gone, 'person').pageOutline).toBeUndefined();
  });

  it('comes with the kind, and leaves with it what was not written on', () => {
    expect(contents(done(START, giveLabel(START, [toPageId('visit')], person)))[3]).toBe('ofPeople');
    const { labels } = START.settings;
    expect(kindChanges(nodeAt(START, toPageId('marek')), course, labels)).toEqual({
      access: { labels: ['course'] },
      content: null,
    });
    expect(kindChanges(nodeAt(START, toPageId('rope')), person, labels)).toEqual({ access: { labels: ['person'] } });
    expect(kindChanges(nodeAt(START, toPageId('rope')), course, labels)).toEqual({});
  });

  it('changes no text but of pages that follow it, on any site, and its undo gives the site back', () => {
    let followed = 0;
    holds(
      fc.property(anySite, fc.nat(), (site, at) => {
        const kinds = site.settings.labels.filter(isKind);
        if (kinds.length === 0) return;
        const kind = kinds[at % kinds.length]!;
        const outcome = applyOperations(site, outlineOperations(site, kind, text('quite another')));
        if (!outcome.ok) throw new Error(outcome.code);
        const { labels } = outcome.site.settings;
        site.nodes.forEach((before, id) => {
          const after = outcome.site.nodes.get(id)!;
          const isFollowing =
            before.removedWith === null &&
            before.type === 'page' &&
            kindAmong(ruleOf(before).labels, site.settings.labels) === kind &&
            before.content === (kind.pageOutline ?? null);
          if (isFollowing) followed++;
          expect([id, after.content]).toEqual([id, isFollowing ? 'quite another' : before.content]);
          expect(isAsItsKind(after, labels)).toBe(
            isFollowing ||
              (isAsItsKind(before, site.settings.labels) && kindAmong(ruleOf(before).labels, labels)?.id !== kind.id),
          );
        });
        const back = applyOperations(outcome.site, outcome.inverse);
        expect(back.ok && [back.site.settings, [...back.site.nodes.values()]]).toEqual([
          site.settings,
          [...site.nodes.values()],
        ]);
      }),
    );
    expect(followed).toBeGreaterThan(20);
  });
});
