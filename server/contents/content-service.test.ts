import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { letsPass } from '#core/derive/access.ts';
import type { AudienceId } from '#core/model/audience.ts';
import { type SectionRule, type TextDocument, type TextPart, contentIdOf } from '#core/model/content.ts';
import { BOX_TYPES, BOX_WIDTHS, type Box, type BoxId } from '#core/model/sketch.ts';
import { withPlaces } from '#core/sketch/start-writing.ts';
import { acceptContent } from './content-service.ts';

const paragraph = (text: string): TextPart => ({ type: 'paragraph', content: [{ type: 'text', text }] });
const section = (rule: object, ...content: TextPart[]): TextPart => ({
  type: 'audienceSection',
  attrs: rule as Record<string, unknown>,
  content,
});
const accept = (...content: TextPart[]) => {
  const document: TextDocument = { type: 'doc', content };
  return acceptContent({ id: contentIdOf(document), document });
};
const [STAFF, CREW] = ['staff', 'crew'] as [AudienceId, AudienceId];

describe('a text that comes in', () => {
  it('is one piece where all get all of it', () =>
    expect(accept(paragraph('Low tide.'), paragraph('High tide.'))).toMatchObject({
      html: '<p>Low tide.</p><p>High tide.</p>',
      parts: null,
    }));

  it('is parted where a section is for some, and what all get is without it', () => {
    const { html, parts } = accept(
      paragraph('Low tide.'),
      section({ only: [STAFF], except: [] }, paragraph('The key hangs here.')),
      paragraph('High tide.'),
    );
    expect(html).toBe('<p>Low tide.</p><p>High tide.</p>');
    expect(parts).toEqual([
      { only: null, except: [], html: '<p>Low tide.</p>' },
      { only: [STAFF], except: [], html: '<p>The key hangs here.</p>' },
      { only: null, except: [], html: '<p>High tide.</p>' },
    ]);
  });

  it.each([
    ['stands in another one', section({ only: null, except: [] }, section({ only: null, except: [] }, paragraph('x')))],
    ['stands in a quotation', { type: 'blockquote', content: [section({ only: null, except: [] }, paragraph('x'))] }],
    ['is empty', section({ only: null, except: [] })],
    ['is for what is no list', section({ only: 'staff', except: [] }, paragraph('x'))],
    ['leaves out what is no audience', section({ only: null, except: ['no id!'] }, paragraph('x'))],
    ['is for nobody that can be named', section({ only: [7], except: [] }, paragraph('x'))],
  ])('is refused where a section %s', (_, part) => expect(() => accept(part)).toThrow());

  it('gives each visitor what the rules of its sections let them have, in order, and never more', () => {
    const audiences = fc.subarray([STAFF, CREW]);
    const rule = fc.record({ only: fc.option(audiences, { nil: null }), except: audiences });
    const part = fc.oneof(fc.constant(null), rule);
    fc.assert(
      fc.property(fc.array(part, { minLength: 1, maxLength: 6 }), audiences, (rules, member) => {
        const words = rules.map((_, at) => `word${at}`);
        const { html, parts } = accept(
          ...rules.map((one, at) => (one === null ? paragraph(words[at]!) : section(one, paragraph(words[at]!)))),
        );
        const visitor = new Set(member);
        const shown = (of: SectionRule | null) => of === null || letsPass(of, visitor);
        const wanted = rules.flatMap((one, at) => (shown(one) ? [words[at]!] : []));
        const given =
          parts === null
            ? html
            : parts
                .filter(shown)
                .map((one) => one.html)
                .join('');
        expect(given.match(/word\d/g) ?? []).toEqual(wanted);
        // What search and previews take without asking who reads is for all.
        const forAll = rules.flatMap((one, at) =>
          one === null || (one.only === null && one.except.length === 0) ? [words[at]!] : [],
        );
        expect(html.match(/word\d/g) ?? []).toEqual(forAll);
      }),
      { numRuns: 60 },
    );
  });

  it('has a place for each type of box, which visitors are not told of', () => {
    const boxes = BOX_TYPES.map((type, n): Box => ({
      id: `b${n}` as BoxId,
      type,
      purpose: `Purpose${n}`,
      words: null,
      width: BOX_WIDTHS[n % BOX_WIDTHS.length]!,
    }));
    const { html, boxes: found, written } = accept(...withPlaces(null, boxes)!.content!);
    expect(found).toEqual(boxes.map(({ id }) => id));
    expect(written).toEqual(boxes.filter(({ type }) => type.startsWith('page')).map(({ id }) => id));
    // What a button is for is what it says; no other purpose is told.
    expect(html.match(/Purpose\d+/g)).toEqual([`Purpose${BOX_TYPES.indexOf('button')}`]);
    expect(html).not.toMatch(/data-box|"b\d/);
    expect(() => accept({ ...paragraph('x'), attrs: { box: 'no id!' } })).toThrow();
  });
});
