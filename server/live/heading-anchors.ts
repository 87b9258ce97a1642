import { anchorsFor } from '#core/model/content.ts';

const HEADING = /<h([23])>([\s\S]*?)<\/h\1>/g;

/** A text with anchors at its headings, by which links lead to them; they are those of `headingsOf`. The facts are not in it yet. */
export function withAnchors(html: string): string {
  const anchors = anchorsFor([...html.matchAll(HEADING)].map(([, , inner]) => wordsOf(inner!)));
  let next = 0;
  return html.replace(
    HEADING,
    (_, level: string, inner: string) => `<h${level} id="${anchors[next++]}">${inner}</h${level}>`,
  );
}

const SIGNS: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'", nbsp: '\u00a0' };
const wordsOf = (html: string): string =>
  html.replace(/<[^<>]*>/g, '').replace(/&(amp|lt|gt|quot|#39|nbsp);/g, (_, sign: string) => SIGNS[sign]!);
