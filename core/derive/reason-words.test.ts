import { describe, expect, it } from 'vitest';
import { type AudienceId, EVERYONE, closureOf } from '../model/audience.ts';
import type { LabelId, PassphraseId } from '../model/access.ts';
import { toPageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { siteAfter } from '../testing/random-site.ts';
import { accessReason } from './access.ts';
import { audienceNames, labelWords, reasonWords } from './reason-words.ts';

const NOW = Date.parse('2026-11-26T12:00:00Z');
const [staff, students] = ['staff', 'students'] as AudienceId[] as [AudienceId, AudienceId];
const course = 'course' as LabelId;
const shop = 'shop' as LabelId;
const [branch, page] = [toPageId('workshops'), toPageId('sawRoom')];
const site = siteAfter([
  { name: 'audience.add', audience: staff, title: 'Staff' },
  { name: 'audience.add', audience: students, title: 'Students' },
  { name: 'label.add', label: shop, title: 'Shop floor', rule: { except: [students] } },
  { name: 'label.add', label: course, title: 'Course', about: 'course', rule: { only: [students] } },
  { name: 'page.add', page: branch, place: { parent: null }, title: { en: 'Workshops' } },
  { name: 'page.add', page, place: { parent: branch }, title: { en: 'Saw room' } },
]);
const rule = (of: typeof page, access: object): Operation => ({ name: 'page.set', page: of, fields: { access } });
/** Why somebody of an audience may open the saw room or may not. */
const why = (who: AudienceId, of: Site, at = NOW) =>
  reasonWords(of, page, accessReason(of, page, closureOf(of.settings.audiences, [who]), at));
const with_ = (...operations: Operation[]) => siteAfter(operations, site);

describe('why somebody may open a page', () => {
  it('is nothing where nothing narrows it', () => {
    expect(why(EVERYONE, site)).toBe('No rule from the top of the tree to here restricts it.');
  });

  it('names each rule that lets them through, with the page that has it', () => {
    const both = with_(rule(branch, { only: [staff, students] }), rule(page, { except: [students] }));
    expect(why(staff, both)).toBe('Allowed by ‘Workshops’ (only Staff and Students), the page itself (not Students).');
  });
});

describe('why somebody may not', () => {
  it('names the page and the rule that decide it', () => {
    expect(why(EVERYONE, with_(rule(branch, { only: [staff] })))).toBe('Blocked by ‘Workshops’: only Staff.');
    expect(why(students, with_(rule(page, { except: [students] })))).toBe('Blocked by the page itself: not Students.');
    expect(why(staff, with_(rule(page, { only: [] })))).toBe('Blocked by the page itself: nobody.');
  });

  it('says that it is hidden, itself or with its branch', () => {
    const hide = (of: typeof page, hidden: 'page' | 'branch'): Operation => ({
      name: 'page.set',
      page: of,
      fields: { hidden },
    });
    expect(why(staff, with_(hide(page, 'page')))).toBe('Blocked by the page itself: hidden.');
    expect(why(staff, with_(hide(branch, 'branch')))).toBe('Blocked by ‘Workshops’: its branch is hidden.');
  });

  it('says from when until when it opens, by the clock of the site', () => {
    const term = with_(rule(page, { from: '2027-01-08T08:00:00.000Z', until: '2027-03-26T16:00:00.000Z' }));
    expect(why(staff, term)).toBe('Blocked by the page itself: from 8 Jan 2027, 08:00, until 26 Mar 2027, 16:00.');
    const quay = { ...term, settings: { ...term.settings, timeZone: 'Europe/Berlin' } };
    expect(why(staff, quay)).toBe('Blocked by the page itself: from 8 Jan 2027, 09:00, until 26 Mar 2027, 17:00.');
  });

  it('says that it opens with a passphrase', () => {
    const asked = with_(rule(branch, { passphrase: 'phrase01' as PassphraseId }));
    expect(why(EVERYONE, asked)).toBe('It opens with the passphrase of ‘Workshops’.');
  });

  it('names the label or the kind by which the rule came', () => {
    expect(why(students, with_(rule(branch, { labels: [shop] })))).toBe(
      'Blocked by ‘Workshops’: labelled ‘Shop floor’: not Students.',
    );
    expect(why(EVERYONE, with_(rule(page, { labels: [course] })))).toBe(
      'Blocked by the page itself: of the kind ‘Course’: only Students.',
    );
  });
});

describe('the rule of a label', () => {
  it('is told as a sentence', () => {
    expect(labelWords(site, {})).toBe('It restricts nothing yet.');
    expect(labelWords(site, { only: [staff], until: '2027-03-26T16:00:00.000Z', engines: 'page' })).toBe(
      'Only Staff, until 26 Mar 2027, 16:00, left out of search engines.',
    );
    expect(labelWords(site, { search: 'branch' })).toBe('Left out of site search.');
  });
});

it('audiences are named, and one that is gone is said to be unknown', () => {
  expect(audienceNames(site, [EVERYONE, staff])).toBe('Everyone and Staff');
  expect(audienceNames(site, ['former' as AudienceId])).toBe('an unknown audience');
});
