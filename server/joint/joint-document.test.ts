import { updateYFragment } from '@tiptap/y-tiptap';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as Y from 'yjs';
import { type TextDocument, plainTextOf } from '#core/model/content.ts';
import { putTextIntoLines } from '#contract/joint-lines.ts';
import { JOINT_FRAGMENT } from '#contract/joint-text.ts';
import { textSchema } from '#contract/rich-text.ts';
import { anyDocument } from '../testing/random-document.ts';
import { documentIn, isSameText, isSound, seedOf, sharedOf, updateTo } from './joint-document.ts';

const paragraph = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] });
const textOf = (...lines: string[]): TextDocument => ({ type: 'doc', content: lines.map(paragraph) });
const lines = (document: TextDocument | null): string[] =>
  (document?.content ?? []).map((part) => JSON.stringify(part).replaceAll(/.*?"text":"([^"]*)"|[^"]*$/g, '$1'));

/** Somebody's copy of a shared document, in which they write as the editor does. */
class Copy {
  readonly shared: Y.Doc;
  readonly sent: Uint8Array[] = [];
  constructor(state: Uint8Array) {
    this.shared = sharedOf(state);
    this.shared.on('update', (update: Uint8Array, origin: unknown) => {
      if (origin !== 'others') this.sent.push(update);
    });
  }
  hear(update: Uint8Array): void {
    Y.applyUpdate(this.shared, update, 'others');
  }
  write(change: (document: TextDocument) => TextDocument): void {
    const next = change(documentIn(this.shared) ?? { type: 'doc', content: [{ type: 'paragraph' }] });
    const fragment = this.shared.getXmlFragment(JOINT_FRAGMENT);
    updateYFragment(this.shared, fragment, textSchema.nodeFromJSON(next), { mapping: new Map(), isOMark: new Map() });
  }
}

describe('a shared document', () => {
  it('begins alike everywhere, and says what the text says', () => {
    fc.assert(
      fc.property(anyDocument, (document) => {
        expect(seedOf(document)).toEqual(seedOf(document));
        expect(isSameText(documentIn(sharedOf(seedOf(document))), document)).toBe(true);
      }),
      { numRuns: 100 },
    );
    const bare: TextDocument = { type: 'doc', content: [{ type: 'heading', attrs: { level: 2 } }] };
    for (const nothing of [null, bare]) expect(documentIn(sharedOf(seedOf(nothing)))).toBeNull();
    expect(isSameText(bare, null)).toBe(true);
  });

  it('ends equal in all copies and keeps each letter, in whatever order what was written arrives', () => {
    const step = fc.record({ who: fc.nat({ max: 2 }), line: fc.nat({ max: 3 }), letter: fc.constantFrom(...'abcdef') });
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 30 }), fc.infiniteStream(fc.nat()), (steps, chance) => {
        const luck = () => chance.next().value as number;
        const state = seedOf(textOf('one', 'two', 'three', 'four'));
        const copies = [0, 1, 2].map(() => new Copy(state));
        const heard = copies.map(() => [0, 0, 0]);
        for (const { who, line, letter } of steps) {
          copies[who]!.write((document) => ({
            ...document,
            content: document.content!.map((part, at) =>
              at === line ? paragraph(lines(document)[at]! + letter) : part,
            ),
          }));
          // Somebody hears some of what somebody else has written, or nothing for a while.
          const [to, from] = [luck() % 3, luck() % 3];
          if (to === from || luck() % 2 === 0) continue;
          const next = copies[from]!.sent[heard[to]![from]!];
          if (next) copies[to]!.hear(next);
          if (next) heard[to]![from]! += 1;
        }
        const all = copies.flatMap(({ sent }) => sent);
        for (const copy of copies) for (const update of all) copy.hear(update);
        const backwards = sharedOf(state, ...[...all].reverse());
        expect(isSound(backwards)).toBe(true);
        const texts = [...copies.map(({ shared }) => shared), backwards].map((shared) => lines(documentIn(shared)));
        for (const text of texts) expect(text).toEqual(texts[0]);
        const count = (letter: string, of: string) => of.split(letter).length - 1;
        for (const letter of 'abcdf') {
          const typed = steps.filter((one) => one.letter === letter).length;
          expect(count(letter, texts[0]!.join(' ').replace('four', ''))).toBe(typed);
        }
      }),
      { numRuns: 60 },
    );
  });

  it.each(['empty', 'emptied'])(
    'has the letters of two who begin in one %s line once each, in the order of each',
    (how) => {
      const whole = 'abcdefgh';
      fc.assert(
        fc.property(
          fc.array(fc.record({ who: fc.nat({ max: 1 }), hears: fc.boolean() }), { maxLength: 24 }),
          (steps) => {
            let state = seedOf(how === 'empty' ? null : textOf('gone'));
            if (how === 'emptied') {
              const copy = new Copy(state);
              copy.write(() => ({ type: 'doc', content: [{ type: 'paragraph' }] }));
              putTextIntoLines(copy.shared.getXmlFragment(JOINT_FRAGMENT));
              state = Y.encodeStateAsUpdate(copy.shared);
            }
            const copies = [new Copy(state), new Copy(state)] as const;
            const typed = [0, 0];
            const heard = [0, 0];
            for (const { who, hears } of steps) {
              const [copy, other] = [copies[who]!, copies[1 - who]!];
              if (hears) {
                for (const update of other.sent.slice(heard[who])) copy.hear(update);
                heard[who] = other.sent.length;
              }
              const letter = (who === 0 ? whole : whole.toUpperCase())[typed[who]!];
              if (letter === undefined) continue;
              // Behind what they typed last, as the cursor is.
              const before = (who === 0 ? whole : whole.toUpperCase())[typed[who]! - 1];
              copy.write((document) => {
                const line = plainTextOf(document);
                const at = before === undefined ? 0 : line.indexOf(before) + 1;
                return textOf(line.slice(0, at) + letter + line.slice(at));
              });
              typed[who]! += 1;
            }
            for (const [at, copy] of copies.entries()) for (const update of copies[1 - at]!.sent) copy.hear(update);
            const [text, other] = copies.map(({ shared }) => plainTextOf(documentIn(shared) ?? textOf()));
            expect(other).toBe(text);
            const of = (kind: RegExp) => [...(text ?? '')].filter((sign) => kind.test(sign)).join('');
            expect(of(/[a-z]/)).toBe(whole.slice(0, typed[0]));
            expect(of(/[A-Z]/)).toBe(whole.toUpperCase().slice(0, typed[1]));
          },
        ),
        { numRuns: 200 },
      );
    },
  );

  it('takes in a text that was saved past it, with what was written meanwhile', () => {
    const state = seedOf(textOf('one', 'two'));
    const mira = new Copy(state);
    mira.write(() => textOf('one', 'two, by Mira'));
    const shared = sharedOf(state, ...mira.sent, updateTo(state, textOf('zero', 'one', 'two')));
    expect(lines(documentIn(shared))).toEqual(['zero', 'one', 'two, by Mira']);
  });

  it('leaves out what no text has', () => {
    const shared = sharedOf(seedOf(textOf('one')));
    const fragment = shared.getXmlFragment(JOINT_FRAGMENT);
    fragment.insert(1, [new Y.XmlElement('script'), new Y.XmlElement('listItem')]);
    const wrong = new Y.XmlElement('fact');
    wrong.setAttribute('id', '<script>');
    const around = new Y.XmlElement('paragraph');
    around.insert(0, [wrong]);
    expect(lines(documentIn(shared))).toEqual(['one']);
    fragment.insert(1, [around]);
    expect(lines(documentIn(shared)).filter(Boolean)).toEqual(['one']);
    expect(isSound(shared)).toBe(true);
    fragment.insert(0, [new Y.XmlText('loose')]);
    expect(isSound(shared)).toBe(false);
    expect(() => documentIn(shared)).toThrow();
  });
});
