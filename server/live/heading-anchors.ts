import { anchorsFor } from '#core/model/content.ts';
import { markup, sound } from './html.ts';
import { elementsOf, withElements } from './html-elements.ts';

/** A text with anchors at its headings, by which links lead to them; they are those of `headingsOf`. The facts are not in it yet. */
export function withAnchors(html: string): string {
  if (!html.includes('<h')) return html;
  const headings = elementsOf(html, (name) => name === 'h2' || name === 'h3' || name === 'h4');
  const anchors = anchorsFor(headings.map(({ words }) => words));
  let next = 0;
  return withElements(html, headings, ({ name }, inner) => {
    const tag = sound(name);
    return markup`<${tag} id="${anchors[next++]}">${sound(inner)}</${tag}>`.text;
  });
}
