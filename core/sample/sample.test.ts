import { describe, expect, it } from 'vitest';
import type { TextPart } from '../model/content.ts';
import { checkSite } from '../model/check-site.ts';
import { FIRST_LOOK, SCHEME_NAMES } from '../model/look.ts';
import { FORM_FIELD_TYPES, formIdSchema, siteFormSchema } from '../model/site-form.ts';
import { nodeAt } from '../model/site.ts';
import { INSERTABLE, SECTIONS } from '../sections/all-sections.ts';
import { SAMPLE_PAGE, sampleForms, sampleSite } from './sample-site.ts';
import { sampleText } from './sample-text.ts';

const typesIn = (parts: readonly TextPart[]): string[] =>
  parts.flatMap(({ type, content = [] }) => [type, ...typesIn(content)]);

describe('the samples', () => {
  const types = new Set(typesIn(sampleText(formIdSchema.parse('one')).content!));
  const site = sampleSite({ ...FIRST_LOOK, header: 'dark' }, 'Somewhere', Date.parse('2027-05-03'));

  it.each([...new Set([...SECTIONS, ...INSERTABLE].map(({ type }) => type))])(
    'show a section of the type %s',
    (type) => {
      expect(types).toContain(type);
    },
  );

  it('stand on a sound site in the look that is asked for', () => {
    expect(checkSite(site)).toEqual([]);
    expect([site.settings.name, site.settings.look.header]).toEqual(['Somewhere', 'dark']);
    expect(nodeAt(site, SAMPLE_PAGE).title.en).toBe('Sample page');
  });

  it('ask for something of each type in the form of each scheme', () => {
    for (const scheme of SCHEME_NAMES) {
      const form = site.settings.forms.find(({ id }) => id === sampleForms(scheme).refused)!;
      expect(siteFormSchema.parse(form)).toEqual(form);
      expect(form.fields.map(({ type }) => type)).toEqual(FORM_FIELD_TYPES);
    }
  });
});
