import { SHARED_DATA } from '#core/sections/shared.ts';
import { elementsOf, withElements } from './html-elements.ts';

const placesIn = (html: string) =>
  html.includes(SHARED_DATA) ? elementsOf(html, (_, attributes) => SHARED_DATA in attributes) : [];

/** The shared sections that a text has places for, by their ids. */
export const sharedNamed = (html: string): string[] => placesIn(html).map(({ attributes }) => attributes[SHARED_DATA]!);

/** A text with shared sections in their places; nothing for one that is not there. One within another shows nothing. */
export function withShared(html: string, sections: ReadonlyMap<string, string>): string {
  const places = placesIn(html);
  if (places.length === 0) return html;
  return withElements(html, places, ({ attributes }) => withoutPlaces(sections.get(attributes[SHARED_DATA]!) ?? ''));
}

const withoutPlaces = (html: string): string => withElements(html, placesIn(html), () => '');
