const ESCAPES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** A text made safe for HTML, XML and attribute values. */
export const escaped = (text: string): string => text.replace(/[&<>"']/g, (letter) => ESCAPES[letter]!);

/** Data as JSON that can stand in a `<script>` element. */
export const scriptJson = (data: unknown): string => JSON.stringify(data).replace(/</g, '\\u003c');
