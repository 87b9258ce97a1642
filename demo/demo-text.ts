import { AUDIENCE_SECTION, FACT, type TextDocument, type TextPart } from '#core/model/content.ts';
import { PLAIN_PAGE_LIST, pageListSchema } from '#core/sections/page-list.ts';
import { FORM } from '#core/sections/form.ts';
import { PAGE_FIELDS_HERE } from '#core/sections/page-fields.ts';
import { SHARED } from '#core/sections/shared.ts';
import { demoFileId } from './demo-files.ts';

/**
 * The blocks of a demo text as a document of the editor. A block that begins with `:: staff` is a section for that audience, one with
 * `? ` a question that opens, `@ quay: Words.` a picture with its caption (`@left`, `@right`, `@wide`), `@gallery quay bench` some,
 * `@file form: Words` a document, `= ferry` a shared section, `& tour` a form, `{fields}` the fields of its page, `% {…}` a list of pages, with what is set of it as JSON, `! ` a note, `!! ` a warning, `> ` a quotation with its source in the last line, `| ` a table;
 * `{telephone}` is a fact of the site, `[words](page:…)` or `[words](https://…)` a link, `[[words]](page:…)` by itself a button.
 */
export function demoDocument(blocks: readonly string[]): TextDocument {
  return { type: 'doc', content: blocks.flatMap((block) => block.split(/\n\n/)).flatMap(partsOf) };
}

function partsOf(block: string): TextPart[] {
  const lines = block.split('\n');
  if (lines[0]!.startsWith(':: '))
    return [
      {
        type: AUDIENCE_SECTION,
        attrs: { only: lines[0]!.slice(3).split(' '), except: [] },
        content: partsOf(lines.slice(1).join('\n')),
      },
    ];
  if (lines[0]!.startsWith('## ')) {
    const heading: TextPart = { type: 'heading', attrs: { level: 2 }, content: inline(lines[0]!.slice(3)) };
    return [heading, ...(lines.length > 1 ? partsOf(lines.slice(1).join('\n')) : [])];
  }
  const [first = '', ...rest] = lines;
  const button = /^\[\[([^\]]+)\]\]\(([^)]+)\)$/.exec(first);
  if (button) return [{ type: 'button', attrs: { to: button[2]! }, content: [{ type: 'text', text: button[1]! }] }];
  if (first.startsWith('? '))
    return [
      {
        type: 'fold',
        content: [{ type: 'foldQuestion', content: inline(first.slice(2)) }, ...partsOf(rest.join('\n'))],
      },
    ];
  if (block.startsWith('% '))
    return [
      {
        type: 'pageList',
        attrs: pageListSchema.parse({ ...PLAIN_PAGE_LIST, ...(JSON.parse(block.slice(2)) as object) }),
      },
    ];
  if (block === '{fields}') return [{ type: PAGE_FIELDS_HERE.type }];
  if (block.startsWith('& ')) return [{ type: FORM.type, attrs: { of: block.slice(2) } }];
  if (block.startsWith('= ')) return [{ type: SHARED.type, attrs: { of: block.slice(2) } }];
  const shown = /^@(\w*) ([\w ]+?)(?:: (.+))?$/.exec(block);
  if (shown) return [showing(shown[1]!, shown[2]!, shown[3] ?? '')];
  const note = /^(!!?) (.+)$/s.exec(block);
  if (note)
    return [{ type: 'note', attrs: { tone: note[1] === '!' ? 'note' : 'warning' }, content: partsOf(note[2]!) }];
  if (first.startsWith('> '))
    return [{ type: 'quotation', attrs: { source: rest.join(' ') }, content: partsOf(first.slice(2)) }];
  if (lines.every((line) => line.startsWith('| '))) return [{ type: 'table', content: lines.map(tableRow) }];
  if (lines.every((line) => line.startsWith('- ')))
    return [
      list(
        'bulletList',
        lines.map((line) => line.slice(2)),
      ),
    ];
  if (lines.every((line) => /^\d+\. /.test(line)))
    return [
      list(
        'orderedList',
        lines.map((line) => line.replace(/^\d+\. /, '')),
      ),
    ];
  return [{ type: 'paragraph', content: inline(lines.join(' ')) }];
}

/** A section that shows files of the demo. */
function showing(how: string, names: string, words: string): TextPart {
  if (how === 'gallery')
    return {
      type: 'gallery',
      attrs: { pictures: names.split(' ').map((name) => ({ file: demoFileId(name), caption: '' })) },
    };
  const file = demoFileId(names);
  if (how === 'file') return { type: 'download', attrs: { file, words } };
  return {
    type: 'picture',
    attrs: { file, place: how === '' ? 'text' : how, alternative: null, credit: '' },
    content: inline(words),
  };
}

const tableRow = (line: string, at: number): TextPart => ({
  type: 'tableRow',
  content: line
    .slice(2)
    .split(' | ')
    .map((cell) => ({
      type: at === 0 ? 'tableHeader' : 'tableCell',
      content: [{ type: 'paragraph', content: inline(cell) }],
    })),
});

const list = (type: string, items: readonly string[]): TextPart => ({
  type,
  content: items.map((item) => ({ type: 'listItem', content: [{ type: 'paragraph', content: inline(item) }] })),
});

const inline = (text: string): TextPart[] =>
  text
    .split(/(\*[^*]+\*|\{[a-z]+\}|\[[^\]]+\]\([^)]+\))/)
    .filter((part) => part !== '')
    .map((part) => {
      if (part.startsWith('{')) return { type: FACT, attrs: { id: part.slice(1, -1) } };
      if (part.startsWith('*')) return { type: 'text', text: part.slice(1, -1), marks: [{ type: 'italic' }] };
      const [, words, href] = /^\[([^\]]+)\]\(([^)]+)\)$/.exec(part) ?? [];
      return words === undefined
        ? { type: 'text', text: part }
        : { type: 'text', text: words, marks: [{ type: 'link', attrs: { href } }] };
    });
