import type { Fact } from '#core/model/fact.ts';
import type { Site } from '#core/model/site.ts';
import { markup } from './html.ts';
import { elementsOf, withElements } from './html-elements.ts';

/** What a fact of the site says; '' where it says nothing. */
export const factText = (site: Site, id: Fact['id']): string =>
  site.settings.facts.find((one) => one.id === id)?.text ?? '';

/** A text with what the facts say in the places that name them; nothing for one that is not there. */
export function withFacts(text: string, facts: readonly Fact[]): string {
  if (!text.includes('data-fact')) return text;
  const places = elementsOf(text, (name, attributes) => name === 'span' && 'data-fact' in attributes);
  return withElements(
    text,
    places,
    ({ attributes }) => markup`${facts.find(({ id }) => id === attributes['data-fact'])?.text}`.text,
  );
}
