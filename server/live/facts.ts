import { type Fact, leadOfFact } from '#core/model/fact.ts';
import type { Site } from '#core/model/site.ts';
import { type Markup, markup } from './html.ts';
import { elementsOf, withElements } from './html-elements.ts';

/** What a fact of the site says; '' where it says nothing. */
export const factText = (site: Site, id: Fact['id']): string =>
  site.settings.facts.find((one) => one.id === id)?.text ?? '';

/** What a fact says; a telephone number or mail address as the link that it is. */
export function renderFact(fact: Fact): Markup {
  const lead = leadOfFact(fact);
  return lead === null ? markup`${fact.text}` : markup`<a href="${lead}">${fact.text}</a>`;
}

/** Facts in a list, each with its name; nothing where none of them says anything. */
export function renderFacts(facts: readonly Fact[]): Markup {
  const said = facts.filter(({ text }) => text !== '');
  if (said.length === 0) return '';
  return markup`<ul class="facts">${said.map((fact) => markup`<li><span>${fact.name}</span> ${renderFact(fact)}</li>`)}</ul>`;
}

/** A text with what the facts say in the places that name them; nothing for one that is not there. */
export function withFacts(text: string, facts: readonly Fact[]): string {
  if (!text.includes('data-fact')) return text;
  const places = elementsOf(text, (name, attributes) => name === 'span' && 'data-fact' in attributes);
  // Words that lead somewhere already lead there with what they name.
  const links = elementsOf(text, (name) => name === 'a');
  return withElements(text, places, ({ attributes, from }) => {
    const fact = facts.find(({ id }) => id === attributes['data-fact']);
    if (!fact) return '';
    const isInLink = links.some((link) => link.from < from && from < link.to);
    return isInLink ? markup`${fact.text}`.text : markup`${renderFact(fact)}`.text;
  });
}
