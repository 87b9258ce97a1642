import { EditorState, TextSelection } from '@tiptap/pm/state';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textSchema } from '#contract/rich-text.ts';
import { deleteAcross } from './delete-across.ts';

type Part = Readonly<Record<string, unknown>>;
const of = (type: string, ...content: Part[]): Part => ({ type, content });
const words = fc
  .constantFrom('', 'tide', 'boats and oars')
  .map((text): Part[] => (text === '' ? [] : [{ type: 'text', text }]));
const line = words.map((text) => of('paragraph', ...text));
const block = fc.oneof(
  line,
  words.map((text): Part => ({ ...of('heading', ...text), attrs: { level: 2 } })),
  words.map((text) => of('button', ...text)),
  fc
    .array(line, { minLength: 1, maxLength: 2 })
    .map((lines) => of('bulletList', ...lines.map((one) => of('listItem', one)))),
);
const blocks = fc.array(block, { minLength: 1, maxLength: 3 });
const row = fc.tuple(line, line).map((cells) => of('tableRow', ...cells.map((one) => of('tableCell', one))));
const section = fc.oneof(
  blocks.map((inner) => of('note', ...inner)),
  blocks.map((inner) => of('band', ...inner)),
  blocks.map((inner) => of('beside', ...inner)),
  line.map((one) => of('quotation', one)),
  fc.tuple(words, blocks).map(([question, inner]) => of('fold', of('foldQuestion', ...question), ...inner)),
  fc.tuple(blocks, blocks).map((columns) => of('columns', ...columns.map((inner) => of('column', ...inner)))),
  fc.array(row, { minLength: 1, maxLength: 2 }).map((rows) => of('table', ...rows)),
);
const anyText = fc
  .array(fc.oneof(block, section), { minLength: 1, maxLength: 4 })
  .map((parts) => textSchema.nodeFromJSON(of('doc', ...parts)));

describe('what is deleted from one section into another', () => {
  it('leaves a text, with all that is outside and nothing of what is between', () => {
    fc.assert(
      fc.property(anyText, fc.nat(), fc.nat(), (doc, one, other) => {
        const [from, to] = [one, other].map((at) => at % (doc.content.size + 1)).sort((a, b) => a - b) as [
          number,
          number,
        ];
        const { $from, $to } = TextSelection.between(doc.resolve(from), doc.resolve(to));
        const { tr } = EditorState.create({ doc });
        deleteAcross(tr, $from.pos, $to.pos);
        tr.doc.check();
        const text = (start: number, end: number) => doc.textBetween(start, end, '');
        expect(tr.doc.textContent).toBe(text(0, $from.pos) + text($to.pos, doc.content.size));
        // What is typed next stands where the deleted began.
        if (!tr.selection.$from.parent.inlineContent) return;
        tr.insertText('x');
        expect(tr.doc.textContent).toBe(`${text(0, $from.pos)}x${text($to.pos, doc.content.size)}`);
      }),
      { numRuns: 500 },
    );
  });
});
