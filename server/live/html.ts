const ESCAPES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

const IS_UNSAFE = /[&<>"']/;

/** A text made safe for HTML, XML and attribute values. Most texts are safe as they are. */
const escaped = (text: string): string =>
  IS_UNSAFE.test(text) ? text.replace(/[&<>"']/g, (letter) => ESCAPES[letter]!) : text;

/** HTML or XML. The template `markup` makes it and escapes what is put in; `sound` takes what was made so before. */
export class Html {
  readonly text: string;

  constructor(text: string) {
    this.text = text;
  }
}

/** HTML, or nothing. */
export type Markup = Html | '';

/** What can be put in: a text, which is escaped; HTML; several of these in a row; or nothing. */
type Part = string | number | Html | readonly Part[] | null | undefined | false;

/** A template for HTML and XML that escapes each text that is put in. */
export function markup(texts: TemplateStringsArray, ...parts: readonly Part[]): Html {
  let made = texts[0]!;
  for (let at = 0; at < parts.length; at++) made += written(parts[at]) + texts[at + 1]!;
  return new Html(made);
}

function written(part: Part): string {
  if (typeof part === 'string') return part === '' ? '' : escaped(part);
  if (part instanceof Html) return part.text;
  if (typeof part === 'number') return String(part);
  if (!part) return '';
  let made = '';
  for (const one of part) made += written(one);
  return made;
}

/** What is HTML already: texts as they were rendered when they were saved, and pieces of what `markup` has made. */
export const sound = (text: string): Html => new Html(text);

/** Data as JSON that can stand in a `<script>` element. */
export const scriptJson = (data: unknown): Html => sound(JSON.stringify(data).replace(/</g, '\\u003c'));
