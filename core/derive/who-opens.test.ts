import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type AudienceId, SIGNED_OUT, closureOf } from '../model/audience.ts';
import { holds } from '../testing/holds.ts';
import { emptySite, anySite, siteAfter } from '../testing/random-site.ts';
import type { PageId } from '../model/ids.ts';
import { type Membership, NOBODY_KNOWN, accessReason, accessTable } from './access.ts';
import { outlineOf } from './outline.ts';
import { whoOpens, whoOpensWords } from './who-opens.ts';

const [STAFF, TRAINEES, CREW] = ['staff', 'trainees', 'crew'] as AudienceId[] as [AudienceId, AudienceId, AudienceId];
const AT = Date.parse('2026-11-29T12:00:00Z');
const audience = (id: AudienceId, title: string, includes: AudienceId[] = []) =>
  [
    { name: 'audience.add', audience: id, title },
    ...(includes.length > 0 ? [{ name: 'audience.set' as const, audience: id, fields: { includes } }] : []),
  ] as const;
const wordsAt = (...rules: object[]) => {
  const site = siteAfter(
    [
      ...audience(TRAINEES, 'Trainees'),
      ...audience(STAFF, 'Staff', [TRAINEES]),
      ...audience(CREW, 'Crew'),
      ...rules.map((access, level) => ({
        name: 'page.add' as const,
        page: `p${level}` as PageId,
        place: { parent: level === 0 ? null : (`p${level - 1}` as PageId) },
        title: { en: 'Page' },
        access,
      })),
    ],
    emptySite(),
  );
  return whoOpensWords(whoOpens(site, `p${rules.length - 1}` as PageId, AT));
};

describe('to whom a page opens, in words', () => {
  it('names the audiences that all rules together let in, and none that one of them includes', () => {
    expect(wordsAt({ only: [STAFF] })).toBe('Staff');
    expect(wordsAt({ only: [STAFF, CREW] })).toBe('Staff and Crew');
    expect(wordsAt({ only: [STAFF, CREW] }, { only: [CREW] })).toBe('Crew');
    expect(wordsAt({ only: [TRAINEES] })).toBe('Trainees');
    expect(wordsAt({ only: [SIGNED_OUT] })).toBe('visitors who are not signed in');
  });

  it('names those within them that it does not let in', () => {
    expect(wordsAt({ only: [STAFF], except: [TRAINEES] })).toBe('Staff, but not to Trainees');
  });

  it('says nothing where nobody gets in', () => {
    expect(wordsAt({ only: [STAFF] }, { only: [CREW] })).toBeNull();
    expect(wordsAt({ only: [] })).toBeNull();
  });

  it('passes over a passphrase, and what a page that stands alone does not take from above', () => {
    expect(wordsAt({ only: [STAFF], passphrase: 'passphraseOfTests1' })).toBe('Staff');
    expect(wordsAt({ only: [STAFF] }, { only: [CREW], standsAlone: true })).toBe('Crew');
  });
});

describe('to whom a page opens', () => {
  it('is true of the members of every audience, for every page', () =>
    holds(
      fc.property(anySite, (site) => {
        const { audiences } = site.settings;
        const outline = outlineOf(site);
        const lets = (id: PageId, visitor: Membership) => {
          const { opens, asks } = accessReason(site, id, visitor, AT);
          return opens || asks;
        };
        for (const { id } of outline.nodes) {
          const named = whoOpens(site, id, AT);
          expect(named.signedOut).toBe(lets(id, NOBODY_KNOWN));
          for (const one of audiences) {
            const around = closureOf(audiences, [one.id]);
            const among = (some: readonly { id: AudienceId }[]) => some.some((other) => around.has(other.id));
            if (named.audiences.includes(one)) expect(lets(id, around)).toBe(true);
            else if (named.except.includes(one)) expect(lets(id, around)).toBe(false);
            else if (lets(id, around)) expect(among(named.audiences)).toBe(true);
            else expect(!among(named.audiences) || among(named.except)).toBe(true);
          }
        }
      }),
      { numRuns: 100 },
    ));

  it('is told of a page with a lock alone where its rule says so, by the same rule that shows the lock', () => {
    const site = siteAfter(
      [
        ...audience(STAFF, 'Staff'),
        {
          name: 'page.add',
          page: 'p' as PageId,
          place: { parent: null },
          title: { en: 'Page' },
          access: { only: [STAFF], closedLook: 'locked-for' },
        },
      ],
      emptySite(),
    );
    expect(accessTable(outlineOf(site), site.settings, [NOBODY_KNOWN], AT).locked[0]).toBe(1);
    expect(accessReason(site, 'p' as PageId, NOBODY_KNOWN, AT).closedLook).toBe('locked-for');
  });
});
