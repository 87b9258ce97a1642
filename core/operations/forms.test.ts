import { describe, expect, it } from 'vitest';
import { type PageId, toSiteKey } from '../model/ids.ts';
import type { FieldId } from '../model/kind-field.ts';
import { type Site, makeSite, newSettings } from '../model/site.ts';
import {
  type FormField,
  type FormId,
  MAX_FORMS,
  NO_FORM_FIELD_SETTINGS,
  NO_FORM_SETTINGS,
} from '../model/site-form.ts';
import { siteAfter } from '../testing/random-site.ts';
import { applyOperation, wordsOf } from './apply.ts';
import type { Operation } from './operation.ts';

const id = (name: string) => name as FormId;
const field = (name: string, more: Partial<FormField> = {}): FormField => ({
  ...NO_FORM_FIELD_SETTINGS,
  id: name.toLowerCase() as FieldId,
  name,
  ...more,
});
const add = (form: string, title: string, settings = {}): Operation => ({
  name: 'form.add',
  form: id(form),
  title,
  settings,
});
const set = (fields: Extract<Operation, { name: 'form.set' }>['fields']): Operation => ({
  name: 'form.set',
  form: id('apply'),
  fields,
});
const site = siteAfter(
  [
    add('apply', ' Application ', { fields: [field('Name')], mailTo: ['desk@pellow-quay.example'] }),
    add('ask', 'Question'),
  ],
  makeSite(toSiteKey('quay'), newSettings('Quay', 'en' as never), []),
);
const refusal = (operation: Operation, of: Site = site) => {
  const outcome = applyOperation(of, operation);
  return outcome.ok ? 'made' : outcome.code;
};

describe('a form', () => {
  it('has a name, fields each once, and is one of so many at most', () => {
    expect(site.settings.forms[0]).toEqual({
      ...NO_FORM_SETTINGS,
      id: 'apply',
      name: 'Application',
      fields: [field('Name')],
      mailTo: ['desk@pellow-quay.example'],
    });
    expect(refusal(add('visit', ' '))).toBe('form-unnamed');
    expect(refusal(add('apply', 'Again'))).toBe('form-exists');
    expect(refusal(set({ fields: [field('Name'), field('Name')] }))).toBe('form-field-twice');
    expect(refusal(set({ fields: [field('Name'), { ...field('name'), id: 'other' as FieldId }] }))).toBe(
      'form-field-twice',
    );
    const choices = [
      { id: 'a', name: 'A' },
      { id: 'b', name: 'a' },
    ];
    expect(refusal(set({ fields: [field('Day', { type: 'choice', choices })] }))).toBe('choice-twice');
    expect(refusal({ name: 'form.set', form: id('nowhere'), fields: {} })).toBe('form-unknown');
    expect(refusal({ name: 'form.remove', form: id('nowhere') })).toBe('form-unknown');
    const full = siteAfter(
      Array.from({ length: MAX_FORMS - 2 }, (_, n) => add(`form${n}`, `Form ${n}`)),
      site,
    );
    expect(refusal(add('visit', 'Visit'), full)).toBe('form-too-many');
  });

  it('is as it was by undoing', () => {
    for (const operation of [
      set({ title: 'Apply now' }),
      set({ fields: [field('Mail', { type: 'mail' }), field('Name')] }),
      set({ leadsTo: 'thanks' as PageId, keptDays: 30, mailTo: [] }),
      { name: 'form.remove', form: id('apply') } as const,
    ]) {
      const outcome = applyOperation(site, operation);
      if (!outcome.ok) throw new Error(outcome.code);
      expect(outcome.site.settings.forms).not.toEqual(site.settings.forms);
      expect(siteAfter([...outcome.inverse], outcome.site).settings).toEqual(site.settings);
    }
    const same = applyOperation(site, set({ title: 'Application' }));
    expect(same.ok && same.site).toBe(site);
  });

  it('is told of in the history', () =>
    expect(
      [
        add('visit', 'Visit'),
        set({ fields: [field('Name'), field('Mail')] }),
        set({ fields: [] }),
        set({ fields: [field('Name', { isRequired: true })] }),
        set({ title: 'Apply now' }),
        set({ keptDays: 30 }),
        { name: 'form.remove', form: id('ask') } as const,
      ].map((operation) => wordsOf(operation, site)),
    ).toEqual([
      'added the form ‘Visit’',
      'added the field ‘Mail’ to the form ‘Application’',
      'removed the field ‘Name’ from the form ‘Application’',
      'changed the fields of the form ‘Application’',
      'renamed the form ‘Application’ to ‘Apply now’',
      'changed the form ‘Application’',
      'removed the form ‘Question’',
    ]));
});
