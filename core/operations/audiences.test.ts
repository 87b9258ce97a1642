import { describe, expect, it } from 'vitest';
import { type Audience, type AudienceId, EVERYONE, MAX_AUDIENCES } from '../model/audience.ts';
import { type PageId, toPageId } from '../model/ids.ts';
import type { LabelId } from '../model/access.ts';
import type { Site } from '../model/site.ts';
import { siteAfter } from '../testing/random-site.ts';
import { applyOperation, applyOperations, wordsOf } from './apply.ts';
import type { Operation } from './operation.ts';

const [staff, students, governors] = ['staff', 'students', 'governors'] as AudienceId[] as [
  AudienceId,
  AudienceId,
  AudienceId,
];
const page = toPageId('handbook');
const added = (audience: AudienceId, title: string, more: object = {}): Operation => ({
  name: 'audience.add',
  audience,
  title,
  ...more,
});
const site = siteAfter([
  { name: 'page.add', page, place: { parent: null }, title: { en: 'Handbook' } },
  added(staff, 'Staff'),
  added(students, 'Students', { includes: [staff] }),
]);
const names = ({ settings }: Site) => settings.audiences.map(({ name }) => name);
const refusal = (operation: Operation, of = site) => {
  const outcome = applyOperation(of, operation);
  return outcome.ok ? 'made' : outcome.code;
};
const after = (...operations: Operation[]) => siteAfter(operations, site);

describe('an audience that is added', () => {
  it('stands last, after another one, or first', () => {
    expect(names(after(added(governors, 'Governors')))).toEqual(['Staff', 'Students', 'Governors']);
    expect(names(after(added(governors, 'Governors', { after: staff })))).toEqual(['Staff', 'Governors', 'Students']);
    expect(names(after(added(governors, 'Governors', { after: null })))).toEqual(['Governors', 'Staff', 'Students']);
  });

  it('has a name and an id of its own', () => {
    expect(refusal(added(governors, '  '))).toBe('audience-unnamed');
    expect(refusal(added(staff, 'Staff again'))).toBe('audience-exists');
    expect(refusal(added(EVERYONE, 'All'))).toBe('audience-exists');
  });

  it('takes in only audiences that are there, and never itself, by a detour neither', () => {
    expect(refusal(added(governors, 'Governors', { includes: ['guests'] }))).toBe('audience-unknown');
    expect(refusal(added(governors, 'Governors', { includes: [governors] }))).toBe('audience-in-itself');
    expect(refusal({ name: 'audience.set', audience: staff, fields: { includes: [students] } })).toBe(
      'audience-in-itself',
    );
  });

  it('is one of so many at most', () => {
    const full = after(
      ...Array.from({ length: MAX_AUDIENCES - 2 }, (_, n) => added(`more${n}` as AudienceId, `More ${n}`)),
    );
    expect(refusal(added(governors, 'Governors'), full)).toBe('audience-too-many');
  });
});

describe('an audience that is changed', () => {
  const one = (of: Site, id: AudienceId): Audience => of.settings.audiences.find((audience) => audience.id === id)!;

  it('keeps what is not named', () => {
    const renamed = after({ name: 'audience.set', audience: students, fields: { title: ' Apprentices ' } });
    expect(one(renamed, students)).toEqual({ id: students, name: 'Apprentices', includes: [staff] });
  });

  it('lands on a page until it is to land on the home page again', () => {
    const landing = (to: PageId | null): Operation => ({
      name: 'audience.set',
      audience: students,
      fields: { landing: to },
    });
    expect(one(after(landing(page)), students).landing).toBe(page);
    expect(one(after(landing(page), landing(null)), students)).not.toHaveProperty('landing');
  });

  it('leaves the site as it was where nothing differs', () => {
    const outcome = applyOperation(site, { name: 'audience.set', audience: staff, fields: { title: 'Staff' } });
    expect(outcome).toMatchObject({ ok: true, inverse: [] });
    expect(outcome.ok && outcome.site).toBe(site);
  });

  it('is told in words by what was changed of it', () => {
    const words = (fields: object) => wordsOf({ name: 'audience.set', audience: students, fields }, site);
    expect(words({ title: 'Apprentices' })).toBe('renamed the audience ‘Students’ to ‘Apprentices’');
    expect(words({ includes: [] })).toBe('changed who belongs to the audience ‘Students’');
    expect(words({ landing: page })).toBe('set the landing page of the audience ‘Students’');
  });
});

describe('an audience that is removed', () => {
  const remove = (audience: AudienceId): Operation => ({ name: 'audience.remove', audience });

  it('comes back at its place by undoing', () => {
    const three = after(added(governors, 'Governors', { after: staff, landing: page }));
    const gone = applyOperations(three, [remove(governors)]);
    if (!gone.ok) throw new Error(gone.code);
    expect(names(gone.site)).toEqual(['Staff', 'Students']);
    const back = applyOperations(gone.site, gone.inverse);
    expect(back.ok && back.site.settings.audiences).toEqual(three.settings.audiences);
  });

  it('is not while something names it: another audience, a page, a label, or what is live', () => {
    const only = (...ids: AudienceId[]): Operation => ({
      name: 'page.set',
      page,
      fields: { access: { only: ids.length === 0 ? null : ids } },
    });
    expect(refusal(remove(staff))).toBe('audience-used');
    expect(refusal(remove(students))).toBe('made');
    expect(refusal(remove(students), after(only(students)))).toBe('audience-used');
    const label: Operation = {
      name: 'label.add',
      label: 'shop' as LabelId,
      title: 'Shop floor',
      rule: { except: [students] },
    };
    expect(refusal(remove(students), after(label))).toBe('audience-used');
    const live = after(only(students), { name: 'release.make', pages: [page], retire: [] }, only());
    expect(refusal(remove(students), live)).toBe('audience-used');
    expect(refusal(remove('nobody' as AudienceId))).toBe('audience-unknown');
  });
});
