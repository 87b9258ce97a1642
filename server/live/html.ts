const ESCAPES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

const IS_UNSAFE = /[&<>"']/;

/** A text made safe for HTML, XML and attribute values. Most texts are safe as they are. */
export const escaped = (text: string): string =>
  IS_UNSAFE.test(text) ? text.replace(/[&<>"']/g, (letter) => ESCAPES[letter]!) : text;

/** Data as JSON that can stand in a `<script>` element. */
export const scriptJson = (data: unknown): string => JSON.stringify(data).replace(/</g, '\\u003c');
